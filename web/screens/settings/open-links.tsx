import { Link } from "react-router";
import { listShares, unshareSession } from "#contract";
import { nearDay, shortDay } from "#core/saying";
import { call, refreshAll, useAsk, wordsOfError } from "#web/device/api.ts";
import { dayOfInstant, todayHere } from "#web/device/clock.ts";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";
import { toast } from "#web/parts/toast.tsx";

/** Links by which someone without a sign-in reaches the card of a session, each ended with a press. */
export function OpenLinks() {
  const { data } = useAsk(listShares, {});
  const today = todayHere();
  const end = async (sessionId: string, name: string) => {
    try {
      await call(unshareSession, { params: { id: sessionId } });
      toast(`The link to ${name} is switched off.`);
    } catch (error) {
      toast.error(wordsOfError(error));
    }
    await refreshAll();
  };
  if (!data || data.length === 0) return null;
  return (
    <Panel title="Links to sessions">
      <p className="mb-2 text-sm text-soft">
        Whoever has one sees the card of that one session, can teach from it and say what happened, without signing
        in.
      </p>
      <ul className="flex flex-col divide-y divide-line">
        {data.map(({ sessionId, groupName, heldOn, endsOn, openedAt }) => {
          const name = `${groupName}, ${shortDay(heldOn, today)}`;
          return (
            <li key={sessionId} className="flex flex-wrap items-center gap-x-4 gap-y-2 py-2.5">
              <p className="min-w-0 flex-1 basis-64">
                <Link
                  to={`/sessions/${sessionId}`}
                  className="underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {name}
                </Link>{" "}
                <span className="text-sm text-soft">
                  until {shortDay(endsOn, today)},{" "}
                  {openedAt ? `opened ${nearDay(dayOfInstant(openedAt), today)}` : "not opened yet"}
                </span>
              </p>
              <Button aria-label={`Switch off the link to ${name}`} onClick={() => end(sessionId, name)}>
                Switch off
              </Button>
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
