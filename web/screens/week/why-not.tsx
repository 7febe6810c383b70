import type { Conflict } from "#core/groups";
import { plural } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import { Panel } from "#web/parts/page.tsx";

/** Why not every session has a place: the rules that stand against each other, and what giving up each would allow. */
export function WhyNot({
  conflict,
  onAsk,
}: {
  conflict: Conflict | "looking" | "unknown" | undefined;
  onAsk: () => unknown;
}) {
  if (conflict === undefined)
    return (
      <p>
        <Button onClick={onAsk}>Why do they have no place?</Button>
      </p>
    );
  if (conflict === "looking") return <p role="status">Looking for the rules that stand against each other …</p>;
  if (conflict === "unknown")
    return (
      <p role="status">
        All sessions could have a place. Make the timetable anew, or give those without one a place by hand.
      </p>
    );
  const { rules, smallest } = conflict;
  return (
    <Panel title="What stands against each other">
      <p className="mb-2 text-soft">
        These cannot all be kept.{" "}
        {smallest
          ? "No fewer rules are in each other's way."
          : "Fewer may be in each other's way; there was no time to be sure."}
      </p>
      <ul className="flex flex-col divide-y divide-line">
        {rules.map(({ key, says, kind, allows, all }) => (
          <li key={key} className="flex flex-wrap items-baseline justify-between gap-x-4 py-1.5">
            <span>{says}</span>
            <span className="text-sm text-soft">
              {allows === 0
                ? "giving it up alone is not enough"
                : `${kind === "sessions" ? "with one fewer" : "without it"} ${all ? "all others have a place" : `${plural(allows, "session")} more`}`}
            </span>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
