import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Today } from "#contract";
import { timeInWords } from "#core/saying";
import { useIsAtLeast } from "#web/device/me.ts";
import { ButtonLink } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";

type Meeting = Today["meetings"][number];

/** Minutes since midnight on the school's clock, a new one each half minute. */
function useMinute(timeZone: string): number {
  const [minute, setMinute] = useState(() => minuteIn(timeZone));
  useEffect(() => {
    setMinute(minuteIn(timeZone));
    const timer = setInterval(() => setMinute(minuteIn(timeZone)), 30_000);
    return () => clearInterval(timer);
  }, [timeZone]);
  return minute;
}

function minuteIn(timeZone: string): number {
  const parts = new Intl.DateTimeFormat("en-GB", { timeZone, hour: "2-digit", minute: "2-digit" }).formatToParts();
  const of = (type: string) => Number(parts.find((part) => part.type === type)?.value);
  return of("hour") * 60 + of("minute");
}

/**
 * The sessions of the day in order: whoever takes some sees those, and all when asked for. What is now, and what is next, stands
 * out; a session begins from here.
 */
export function MeetingsToday({ meetings, timeZone }: { meetings: readonly Meeting[]; timeZone: string }) {
  const minute = useMinute(timeZone);
  const teaches = useIsAtLeast("teacher");
  const mine = meetings.filter((one) => one.mine);
  const [all, setAll] = useState(false);
  if (meetings.length === 0) return null;
  const shown = all || mine.length === 0 ? meetings : mine;
  const next = shown.find(({ from, held }) => from > minute && !held);
  return (
    <Panel
      title={mine.length > 0 && !all ? "Your sessions today" : "Sessions today"}
      actions={
        mine.length > 0 &&
        mine.length < meetings.length && (
          <button
            type="button"
            className="min-h-8 text-sm underline decoration-line underline-offset-4 hover:decoration-ink"
            onClick={() => setAll(!all)}
          >
            {all ? "Yours alone" : `All ${meetings.length}`}
          </button>
        )
      }
    >
      <ul className="flex flex-col divide-y divide-line">
        {shown.map((one) => {
          const here = one.children.filter(({ absent }) => !absent);
          const absent = one.children.filter((child) => child.absent);
          const now = one.from <= minute && minute < one.to && !one.held;
          const when = now ? "now" : one === next ? "next" : "";
          return (
            <li key={one.id} className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1.5">
              <span className={`w-24 tabular-nums ${one.to <= minute ? "text-soft" : "font-semibold"}`}>
                {timeInWords(one.from)}
                {when && (
                  <span className="ml-1.5 rounded bg-leaf-pale px-1.5 py-0.5 text-xs font-semibold text-ink">
                    {when}
                  </span>
                )}
              </span>
              <span className="min-w-40 flex-1">
                <Link
                  to={`/groups/${one.groupId}`}
                  className="font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                >
                  {one.groupName}
                </Link>{" "}
                <span className="text-soft">
                  {[one.mine && !all ? "" : one.adultName, one.roomName].filter(Boolean).join(" · ")}
                </span>
                <span className="block text-sm text-soft">
                  {here.map(({ name }) => name).join(", ") || "no one is here"}
                  {absent.length > 0 && ` (absent: ${absent.map(({ name }) => name).join(", ")})`}
                </span>
              </span>
              {one.held ? (
                <span className="text-sm text-soft">held</span>
              ) : one.sessionId ? (
                <ButtonLink to={`/sessions/${one.sessionId}`} shape={now ? "main" : "plain"}>
                  {now ? "Begin" : "Open card"}
                </ButtonLink>
              ) : (
                teaches && <ButtonLink to={`/groups/${one.groupId}?plan=1`}>Plan it</ButtonLink>
              )}
            </li>
          );
        })}
      </ul>
    </Panel>
  );
}
