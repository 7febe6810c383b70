import { useState } from "react";
import { Link } from "react-router";
import { editSession, getAfresh, listSessions, replanSession, type SessionView } from "#contract";
import { nearDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { useIsAtLeast } from "#web/device/me.ts";
import { newSeed } from "#web/device/settings.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";
import { toastWithUndo } from "#web/parts/undo.ts";

/** Of a session that is planned: a session was held since it was filled, and what would be other by what was marked there. */
export function Since({ session, today }: { session: SessionView; today: string }) {
  const [seed] = useState(newSeed);
  const [open, setOpen] = useState(false);
  const mayPlan = useIsAtLeast("teacher");
  const { since, version } = session;
  const { data, error } = useAsk(
    getAfresh,
    open && since && mayPlan ? { params: { id: session.id }, query: { seed } } : null,
    { revalidateOnFocus: false },
  );
  if (!since || session.state === "held") return null;
  const take = async () => {
    if (!data) return;
    const { target, second, focus } = data;
    const before = session.plan;
    try {
      const { version: filled } = await call(replanSession, {
        params: { id: session.id },
        body: { version, target, second, focus, seed },
      });
      await refreshAll();
      toastWithUndo("Changed by what was marked since.", async () => {
        await call(editSession, { params: { id: session.id }, body: { version: filled, plan: before } });
        await refreshAll();
      });
    } catch (problem) {
      toast.error(wordsOfError(problem));
      await refreshAll();
    }
  };
  return (
    <Panel title="Taught since it was planned">
      <p>
        {since.by} said what happened in{" "}
        <Link
          to={`/sessions/${since.sessionId}`}
          className="underline decoration-line underline-offset-4 hover:decoration-ink"
        >
          the session of {nearDay(since.heldOn, today)}
        </Link>
        .
      </p>
      {mayPlan && !open && (
        <Button className="mt-2" onClick={() => setOpen(true)}>
          What would change here
        </Button>
      )}
      {open && (
        <div aria-live="polite" className="mt-2 min-h-11">
          {error && <p className="text-damson">{wordsOfError(error)}</p>}
          {!data && !error && <p className="text-soft">Filling it anew to compare …</p>}
          {data && data.changes.length === 0 && <p>Nothing: it stands as it would be filled today.</p>}
          {data && data.changes.length > 0 && (
            <>
              <ul className="list-disc pl-5">
                {data.changes.map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </ul>
              <Button className="mt-2" onClick={() => void take()}>
                Change it so
              </Button>
              <p className="mt-1 text-sm text-soft">What was edited in it by hand goes; one press brings it back.</p>
            </>
          )}
        </div>
      )}
    </Panel>
  );
}

/** Of a session that was held: the next of its group, where one is planned already. */
export function NextPlanned({ session, today }: { session: SessionView; today: string }) {
  const { data } = useAsk(listSessions, session.state === "held" ? { query: { groupId: session.groupId } } : null);
  const next = data
    ?.filter(({ id, state, heldOn }) => id !== session.id && state === "planned" && heldOn >= session.heldOn)
    .at(-1);
  if (!next) return null;
  return (
    <Panel title="The next session">
      <Link to={`/sessions/${next.id}`} className="underline decoration-line underline-offset-4 hover:decoration-ink">
        Planned for {nearDay(next.heldOn, today)}: see what changes in it
      </Link>
    </Panel>
  );
}
