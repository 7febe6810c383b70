import { useState } from "react";
import { getChanges, type SessionView } from "#contract";
import { useAsk } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { useOutbox } from "#web/device/outbox.ts";
import { ChangeList } from "#web/parts/changed.tsx";
import { Panel } from "#web/parts/page.tsx";

/** What a session that was held changed on the map, child by child, before and after. */
export function SessionChanged({ session }: { session: SessionView }) {
  const mayRead = useIsAtLeast("teacher");
  const came = new Set(session.reports.flatMap((report) => report.came));
  const members = session.members.filter(({ id }) => came.has(id));
  if (!mayRead || members.length === 0) return null;
  return (
    <Panel title="What changed on the map">
      <ul className="flex flex-col divide-y divide-line">
        {members.map(({ id, name }) => (
          <li key={id}>
            <OfChild childId={id} name={name} sessionId={session.id} />
          </li>
        ))}
      </ul>
    </Panel>
  );
}

function OfChild({ childId, name, sessionId }: { childId: string; name: string; sessionId: string }) {
  const [open, setOpen] = useState(false);
  const { waiting } = useOutbox();
  const asking = { params: { id: childId }, query: { sessionId } };
  const { data } = useAsk(getChanges, open && waiting.length === 0 ? asking : null);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-9 cursor-pointer py-1.5">{name}</summary>
      <div className="pb-2">
        <ChangeList data={data} what="session" />
      </div>
    </details>
  );
}
