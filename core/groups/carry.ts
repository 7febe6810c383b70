import type { Target } from "./fit.ts";
import type { RunningGroup } from "./moves.ts";

/** A group as it is to be: by its own id where it goes on, else new. */
export interface Carried {
  /** The place of the group among those wanted. */
  readonly at: number;
  /** The running group that it goes on from, or undefined when it is new. */
  readonly from: string | undefined;
}

/** What saving wanted groups does to the groups that run. */
export interface CarriedOver {
  readonly carried: readonly Carried[];
  /** Running groups that lose children to the wanted ones and keep others. */
  readonly thinned: readonly {
    readonly id: string;
    readonly members: readonly string[];
    readonly targets: readonly Target[];
  }[];
  /** Running groups of which no child is left. */
  readonly emptied: readonly string[];
}

/**
 * Which of the wanted groups go on from which running one: each from the one with which it shares most children, at least half
 * of either, each running one once. A child that is wanted in one group leaves the others.
 */
export function carryOver(
  wanted: readonly { readonly members: readonly string[] }[],
  running: readonly RunningGroup[],
): CarriedOver {
  const pairs = wanted
    .flatMap(({ members }, at) =>
      running.map((group) => ({
        at,
        group,
        shared: members.filter((id) => group.members.includes(id)).length,
        of: members.length,
      })),
    )
    .filter(({ shared, group, of }) => shared > 0 && 2 * shared >= Math.min(group.members.length, of))
    .sort((one, other) => other.shared - one.shared || one.at - other.at);
  const from = new Map<number, string>();
  const taken = new Set<string>();
  for (const { at, group } of pairs) {
    if (from.has(at) || taken.has(group.id)) continue;
    from.set(at, group.id);
    taken.add(group.id);
  }
  const placed = new Set(wanted.flatMap(({ members }) => members));
  const others = running.filter(({ id, members }) => !taken.has(id) && members.some((child) => placed.has(child)));
  const left = others.map(({ id, members, targets }) => ({
    id,
    targets,
    members: members.filter((child) => !placed.has(child)),
  }));
  return {
    carried: wanted.map((_, at) => ({ at, from: from.get(at) })),
    thinned: left.filter(({ members }) => members.length > 0),
    emptied: left.filter(({ members }) => members.length === 0).map(({ id }) => id),
  };
}
