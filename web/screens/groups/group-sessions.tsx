import { Link } from "react-router";
import type { AnswerOf, listSessions } from "#contract";
import { nearDay } from "#core/saying";
import { Panel } from "#web/parts/page.tsx";
import { Teaches } from "#web/parts/teaches.tsx";

/** The sessions of a group, the latest day first, with what was handed back. */
export function GroupSessions({
  sessions,
  today,
}: {
  sessions: AnswerOf<typeof listSessions> | undefined;
  today: string;
}) {
  return (
    <Panel title="Sessions">
      {sessions?.length === 0 && <p className="text-soft">No session yet.</p>}
      <ul className="flex flex-col gap-1">
        {sessions?.map((session) => (
          <li key={session.id}>
            <div className="flex items-center justify-between gap-2">
              <Link
                to={`/sessions/${session.id}`}
                className="py-0.5 underline decoration-line underline-offset-4 hover:decoration-ink"
              >
                {nearDay(session.heldOn, today)}
              </Link>
              <span>
                <Teaches {...session} />{" "}
                <span className="text-sm text-soft">{session.state === "held" ? "held" : "planned"}</span>
              </span>
            </div>
            {session.last && (
              <p className="text-sm text-soft">
                {session.last.by}: {session.last.came} came. {session.last.note}
              </p>
            )}
          </li>
        ))}
      </ul>
    </Panel>
  );
}
