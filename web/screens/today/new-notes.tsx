import { Link } from "react-router";
import { type NoteView, readNotes, unreadNotes } from "#contract";
import { nearDay, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant } from "#web/device/clock.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

const MOST = 6;

/** Where a note stands: an assistant has no page of a child. */
function placeOf({ childId, groupId, sessionId }: NoteView, teaches: boolean): string | undefined {
  if (childId) return teaches ? `/child/${childId}` : undefined;
  return groupId ? `/groups/${groupId}` : `/sessions/${sessionId}`;
}

/** Notes that whoever is here has not read; nothing where there is none. */
export function NewNotes({ today }: { today: string }) {
  const { data } = useAsk(unreadNotes, {});
  const teaches = useIsAtLeast("teacher");
  if (!data || data.length === 0) return null;
  const read = async (ids: string[]) => {
    try {
      await call(readNotes, { body: { ids } });
      await refreshAll();
    } catch (error) {
      toast.error(wordsOfError(error));
    }
  };
  return (
    <Panel
      title={data.length === 1 ? "A new note" : `${data.length} new notes`}
      actions={data.length > 1 && <Button onClick={() => void read(data.map(({ id }) => id))}>All seen</Button>}
    >
      <ul aria-label="New notes" className="flex flex-col divide-y divide-line">
        {data.slice(0, MOST).map((note) => {
          const place = placeOf(note, teaches);
          const name = note.heldOn ? `${note.aboutName}, ${shortDay(note.heldOn, today)}` : note.aboutName;
          return (
            <li key={note.id} className="flex items-start justify-between gap-3 py-2">
              <div className="min-w-0">
                <p>
                  {place ? (
                    <Link
                      to={place}
                      className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                    >
                      {name}
                    </Link>
                  ) : (
                    <strong>{name}</strong>
                  )}
                  <span className="text-sm text-soft">
                    {" "}
                    · {note.by}, {nearDay(dayOfInstant(note.at), today)}
                    {note.forWhom.who === "one" && " · for you"}
                  </span>
                </p>
                <p className="whitespace-pre-line break-words">{note.text}</p>
              </div>
              <Button shape="quiet" aria-label={`Seen: ${name}`} onClick={() => void read([note.id])}>
                Seen
              </Button>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
