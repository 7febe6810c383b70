import type { GroupingView } from "#contract";
import type { GroupsWanted, Learner, Limits, Pair } from "#core/groups";

/** The ways in which groups are proposed, each good for something else. */
export const ways = {
  closest: { title: "Closest needs", about: "Whoever needs the same comes together." },
  calm: { title: "Fewest moves", about: "Children stay with those they are with." },
  few: { title: "Fewest adults", about: "As few groups as hold everyone." },
} as const;
export type WayName = keyof typeof ways;

/** What a child who stays is worth where moves are to be few, in whole needs. */
const STAYS = 1.5;

export interface WaysWanted {
  readonly learners: readonly Learner[];
  readonly order: readonly string[];
  readonly view: Pick<GroupingView, "grouping" | "wishes">;
  /** How many groups were asked for; null goes by their size and the adults. */
  readonly count: number | null;
  readonly locked: ReadonlyMap<string, number>;
  readonly barred: ReadonlyMap<string, readonly number[]>;
  readonly seed: number;
}

/** How many groups the adults can take between them; undefined where none are told. */
export function groupsFor({ adults, sessionsAWeek }: GroupingView["grouping"]): number | undefined {
  if (adults.length === 0) return undefined;
  return adults.reduce((sum, { sessions }) => sum + Math.floor(sessions / sessionsAWeek), 0);
}

/** What is looked for in each way that makes a difference here: who is in a group may stay in it, adults may be spared. */
export function waysFor({
  learners,
  order,
  view,
  count,
  locked,
  barred,
  seed,
}: WaysWanted): Partial<Record<WayName, GroupsWanted>> {
  const { grouping, wishes } = view;
  const pairs = (kind: "apart" | "together") =>
    wishes.flatMap((wish): Pair[] => (wish.kind === kind && wish.otherId ? [[wish.childId, wish.otherId]] : []));
  const mostGroups = groupsFor(grouping);
  const limits: Limits = {
    apart: pairs("apart"),
    together: pairs("together"),
    alone: wishes.flatMap(({ kind, childId }) => (kind === "alone" ? [childId] : [])),
    locked,
    barred,
    withinClasses: grouping.withinClasses,
    ...(grouping.yearsApart === null ? {} : { yearsApart: grouping.yearsApart }),
    ...(mostGroups === undefined ? {} : { mostGroups }),
  };
  const closest: GroupsWanted = {
    ...{ learners, order, seed, limits, mostTargets: grouping.targets, stay: grouping.stay },
    shape: count === null ? { by: "size", least: grouping.least, most: grouping.most } : { by: "count", count },
  };
  const running = learners.some(({ group }) => group !== undefined);
  const needy = learners.filter(({ needs }) => needs.size > 0).length;
  const fewest = Math.max(1, Math.ceil(needy / grouping.most)) + (limits.alone?.length ?? 0);
  const spares = count === null && mostGroups !== undefined && fewest < mostGroups;
  return {
    closest,
    ...(running ? { calm: { ...closest, stay: Math.max(STAYS, grouping.stay) } } : {}),
    ...(spares ? { few: { ...closest, limits: { ...limits, mostGroups: fewest } } } : {}),
  };
}
