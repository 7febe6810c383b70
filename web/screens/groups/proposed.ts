import type { ClassView, Gaps, Grouping, GroupView, NextView, OtherNeedsView, WorthView } from "#contract";
import { carryOver, type Learner, type Proposal, targetsIn } from "#core/groups";
import { newId } from "#web/device/settings.ts";
import { learnersOf } from "#web/parts/learners.ts";
import type { BoardGroup } from "./board.tsx";

const names = "Heron Otter Swift Barge Willow Lantern Paddle Quay Reed Tiller Anchor Ferry".split(" ");

/** All from which groups are proposed. */
export interface ProposeFrom {
  readonly map: Gaps;
  readonly worth: WorthView | undefined;
  readonly said: NextView | undefined;
  /** What children need that is no spelling; undefined where no one could say. */
  readonly others: OtherNeedsView | undefined;
  readonly running: readonly GroupView[];
  readonly classes: readonly ClassView[];
}

/** Children as groups see them: with their class, year and present group. */
export function placedLearners({
  map,
  worth,
  said,
  others,
  grouping: { weights },
  running,
  classes,
}: ProposeFrom & { readonly grouping: Pick<Grouping, "weights"> }): readonly Learner[] {
  const home = new Map(
    running.flatMap(({ id, closed, members }) =>
      closed ? [] : members.map(({ childId }) => [childId, id] as const),
    ),
  );
  const years = new Map(
    classes.flatMap(({ id, yearGroup }) => {
      const number = /\d+/.exec(yearGroup)?.[0];
      return number === undefined ? [] : [[id, Number(number)] as const];
    }),
  );
  return learnersOf(map, { worth, weights, said, others }).map((one) => {
    const [group, year] = [home.get(one.id), years.get(one.classId ?? "")];
    return { ...one, ...(group === undefined ? {} : { group }), ...(year === undefined ? {} : { year }) };
  });
}

/** Where children are kept on a board: in which group each is locked, and out of which it is kept, by the groups' numbers. */
export function keptOn(board: readonly BoardGroup[]) {
  const locked = new Map(
    board.flatMap(({ members }, at) => members.flatMap((one) => (one.locked ? [[one.id, at] as const] : []))),
  );
  const barred = new Map<string, readonly number[]>();
  for (const [at, group] of board.entries())
    for (const id of group.barred) barred.set(id, [...(barred.get(id) ?? []), at]);
  return { locked, barred };
}

/**
 * A board with a proposal on it. Where children are kept in or out of its groups these keep their places; else groups go on from
 * running ones, and what is new gets a name that is free.
 */
export function boardFrom(
  proposal: Proposal,
  before: readonly BoardGroup[],
  running: readonly GroupView[],
): readonly BoardGroup[] {
  const { locked, barred } = keptOn(before);
  const open = running.filter(({ closed }) => !closed);
  const { carried } = carryOver(
    proposal.groups,
    open.map((group) => ({
      ...{ id: group.id, targets: targetsIn(group) },
      members: group.members.map(({ childId }) => childId),
    })),
  );
  const kept = locked.size + barred.size > 0 ? before : [];
  const taken = new Set([...kept.map(({ name }) => name), ...open.map(({ name }) => name)]);
  const free = names.filter((name) => !taken.has(name));
  return proposal.groups.map(({ members, targets }, at) => {
    const from = open.find(({ id }) => id === carried[at]?.from && !kept.some((one) => one.id === id));
    const { id, name } = kept[at] ?? from ?? { id: newId(), name: free.shift() ?? `Group ${at + 1}` };
    return {
      ...{ id, name, targets, chosenTargets: false, barred: kept[at]?.barred ?? [] },
      members: members.map((one) => ({ id: one, locked: locked.has(one) })),
    };
  });
}
