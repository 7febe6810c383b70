import { memo, useEffect, useState } from "react";
import { fitTime, kindsOfPart, type SessionPart, spentBy, type TeachState } from "#core/plans";
import { clockNow } from "#web/device/clock.ts";
import { keepKeys } from "#web/device/keys.tsx";

const TICK_MS = 5000;

interface LineWanted {
  readonly state: TeachState;
  readonly parts: readonly SessionPart[];
  readonly onPart: (part: number) => void;
}

/** Whether the line looks the same: a mark changes nothing of it. */
function isSame(one: LineWanted, other: LineWanted): boolean {
  const [a, b] = [one.state, other.state];
  return (
    one.parts === other.parts &&
    a.part === b.part &&
    a.begun === b.begun &&
    a.ended === b.ended &&
    a.since === b.since &&
    a.spent.join() === b.spent.join()
  );
}

/** Where the session is and how the time goes: a stroke a part as long as its minutes, quiet, with what gives way when it runs late. */
export const TimeLine = memo(function TimeLine({ state, parts, onPart }: LineWanted) {
  const [now, setNow] = useState(() => clockNow().getTime());
  const runs = state.since !== null;
  useEffect(() => {
    setNow(clockNow().getTime());
    if (!runs) return;
    const timer = setInterval(() => setNow(clockNow().getTime()), TICK_MS);
    return () => clearInterval(timer);
  }, [runs]);
  const spent = spentBy(state, now);
  const { minutes, says } = fitTime({ parts, part: state.part, spent });
  return (
    <div>
      <ol aria-label="Parts" className="flex gap-1">
        {parts.map(({ kind, minutes: planned }, at) => {
          const { title } = kindsOfPart[kind];
          const isNow = at === state.part && state.begun;
          const part = Math.min(1, (spent[at] ?? 0) / 60_000 / Math.max(1, planned));
          const gone = minutes[at] === 0 && planned > 0;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a kind may come twice, and parts keep their order
            <li key={`${kind} ${at}`} className="min-w-0" style={{ flexGrow: Math.max(1, planned), flexBasis: 0 }}>
              <button
                type="button"
                aria-current={isNow ? "step" : undefined}
                onMouseDown={keepKeys}
                onClick={() => onPart(at)}
                className={`block min-h-10 w-full rounded px-1 text-left text-xs hover:bg-leaf-pale ${isNow ? "font-semibold" : "text-soft"}`}
              >
                <span className={`block truncate ${gone ? "line-through" : ""}`}>{title}</span>
                <span className="mt-0.5 block h-1.5 overflow-hidden rounded-full bg-line">
                  <span className="block h-full bg-leaf-mid" style={{ width: `${Math.round(part * 100)}%` }} />
                </span>
                <span className="sr-only">
                  {`, ${Math.round((spent[at] ?? 0) / 60_000)} of ${minutes[at]} minutes`}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      {/* Its place is kept, so that nothing moves under a finger. */}
      <p role="status" className="min-h-5 px-1 text-sm text-soft">
        {state.ended ? "" : (says ?? "")}
      </p>
    </div>
  );
}, isSame);
