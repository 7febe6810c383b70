import type { Learner, Target } from "./fit.ts";
import { bestGain, gainOf } from "./moves.ts";

/** How well groups serve their children: what each gains beside what lessons of its own would give it. */
export interface Served {
  /** Of all children who need something, 0 to 1; who has no place gains nothing. */
  readonly share: number;
  /** By child, 0 to 1 (less than nothing counts as nothing); of who needs nothing there is none. */
  readonly of: ReadonlyMap<string, number>;
  /** Who gains least for its needs, of those who have a place. */
  readonly worst: string | undefined;
  /** Children whose most companions of now are in another group, or who have a group and lose it. */
  readonly moved: readonly string[];
}

/**
 * Looks over groups that are proposed, or that someone put together.
 * @param targets of each child's own lessons, as many as a group has
 */
export function servedBy(
  groups: readonly { readonly members: readonly string[]; readonly targets: readonly Target[] }[],
  learners: readonly Learner[],
  targets: number,
): Served {
  const groupOf = new Map(groups.flatMap((group) => group.members.map((id) => [id, group] as const)));
  const of = new Map<string, number>();
  let [gained, best] = [0, 0];
  for (const learner of learners) {
    const most = bestGain(learner, targets);
    if (most <= 0) continue;
    const group = groupOf.get(learner.id);
    const gain = group ? Math.max(0, gainOf(learner, group.targets)) : 0;
    gained += gain;
    best += most;
    of.set(learner.id, Math.min(1, gain / most));
  }
  const placed = [...of].filter(([id]) => groupOf.has(id)).sort(([, one], [, other]) => one - other);
  return { share: best > 0 ? gained / best : 0, of, worst: placed[0]?.[0], moved: movedIn(groups, learners) };
}

/** Children who leave those they are with: each group goes on from the one that most of it comes from. */
function movedIn(groups: readonly { readonly members: readonly string[] }[], learners: readonly Learner[]): string[] {
  const now = new Map(learners.map(({ id, group }) => [id, group]));
  const stays = new Set<string>();
  for (const { members } of groups) {
    const counts = new Map<string, number>();
    for (const id of members) {
      const home = now.get(id);
      if (home !== undefined) counts.set(home, (counts.get(home) ?? 0) + 1);
    }
    const [home] = [...counts].sort(([, one], [, other]) => other - one)[0] ?? [];
    for (const id of members) if (home !== undefined && now.get(id) === home) stays.add(id);
  }
  return learners.filter(({ id, group }) => group !== undefined && !stays.has(id)).map(({ id }) => id);
}
