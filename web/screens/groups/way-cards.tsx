import type { Learner, Proposal } from "#core/groups";
import { servedBy } from "#core/groups";
import { plural } from "#core/saying";
import { Button } from "#web/parts/button.tsx";
import type { Distance, Proposals } from "./use-desk.ts";
import { type WayName, ways } from "./ways.ts";

interface CardsWanted {
  readonly proposals: Proposals;
  readonly learners: readonly Learner[];
  readonly targets: number;
  readonly chosen: WayName;
  /** The groups on the page are no longer those of the chosen way. */
  readonly changed: boolean;
  /** A better one of the chosen way was found since. */
  readonly better: boolean;
  readonly distance: Distance | null;
  readonly name: (id: string) => string;
  readonly onChoose: (way: WayName) => void;
  readonly onBound: (way: WayName) => unknown;
}

const percent = (share: number) => `${Math.round(share * 100)}%`;

/** What each way of grouping gains, who is worst served by it, and who moves. */
export function WayCards({ proposals, chosen, changed, better, distance, onChoose, onBound, ...by }: CardsWanted) {
  const shown = Object.entries(proposals) as [WayName, Proposal][];
  return (
    <ul className="mb-3 grid gap-3 md:grid-cols-3" aria-label="Proposals">
      {shown.map(([way, proposal]) => (
        <li
          key={way}
          className={`rounded-lg border bg-sheet px-3 py-2 ${way === chosen ? "border-leaf" : "border-line"}`}
        >
          <div className="flex items-baseline justify-between gap-2">
            <h2>{ways[way].title}</h2>
            {way === chosen && !changed && !better ? (
              <span className="text-sm text-leaf">shown below</span>
            ) : (
              <button type="button" className="text-sm underline underline-offset-4" onClick={() => onChoose(way)}>
                {way !== chosen ? "Show it" : changed ? "Show it again" : "Show the better one"}
              </button>
            )}
          </div>
          <Summary proposal={proposal} {...by} />
          {way === chosen && <HowFar way={way} distance={distance} onBound={onBound} />}
        </li>
      ))}
    </ul>
  );
}

function Summary({
  proposal,
  learners,
  targets,
  name,
}: {
  proposal: Proposal;
  learners: readonly Learner[];
  targets: number;
  name: (id: string) => string;
}) {
  const served = servedBy(proposal.groups, learners, targets);
  const running = learners.some(({ group }) => group !== undefined);
  const size = proposal.groups.filter(({ members }) => members.length > 0).length;
  const worst = served.worst === undefined ? undefined : (served.of.get(served.worst) ?? 0);
  return (
    <p className="text-sm text-soft">
      <span className="text-ink">{percent(served.share)}</span> of what lessons of their own would give, in{" "}
      {plural(size, "group")}
      {running && `; ${plural(served.moved.length, "child moves", "children move")}`}
      {worst !== undefined && served.worst !== undefined && `; least for ${name(served.worst)} (${percent(worst)})`}.
    </p>
  );
}

/** On demand: how far from the best there is. */
function HowFar({
  way,
  distance,
  onBound,
}: {
  way: WayName;
  distance: Distance | null;
  onBound: (way: WayName) => unknown;
}) {
  if (distance?.way !== way)
    return (
      <Button shape="quiet" className="-ml-3 min-h-7 text-sm" onClick={() => void onBound(way)}>
        How far from the best there is?
      </Button>
    );
  const { bound, working } = distance;
  return (
    <p className="text-sm" role="status">
      {bound === undefined
        ? "Working out what the best could be …"
        : bound.gap < 0.0005
          ? "No other grouping within these limits meets more need."
          : `No grouping within these limits meets more than ${(100 * bound.gap).toFixed(1)}% more need${working ? "; looking on …" : "."}`}
    </p>
  );
}
