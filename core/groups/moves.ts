import { addWeeks, formatISO, parseISO } from "date-fns";
import { isNeedFamily } from "#core/mastery";
import type { Gpc } from "#core/phonics";
import { chooseTargets, type Learner, type Target, valueTo } from "./fit.ts";
import type { Pair } from "./wanted.ts";

/** When a child leaves a group, as the school has it. */
export type LeavingRule =
  /** Every target of the group is secure. */
  | { readonly by: "targets" }
  /** None of the targets is needed, and so many in a hundred of what was taught are secure. */
  | { readonly by: "share"; readonly percent: number };

/** A group as it runs today. */
export interface RunningGroup {
  readonly id: string;
  readonly members: readonly string[];
  readonly targets: readonly Target[];
}

/** A change of groups that the evidence speaks for; a teacher decides. */
export type Move =
  /** Needs this group no longer: so many of its targets are secure. */
  | {
      readonly kind: "leave";
      readonly childId: string;
      readonly groupId: string;
      readonly secure: number;
      readonly of: number;
    }
  /** Would gain more in another group, which has room: needs so many targets here and there. */
  | {
      readonly kind: "move";
      readonly childId: string;
      readonly groupId: string;
      readonly toId: string;
      readonly here: number;
      readonly there: readonly Target[];
    }
  /** Is in no group, and one with room works on what it needs. */
  | { readonly kind: "join"; readonly childId: string; readonly toId: string; readonly there: readonly Target[] }
  /** Left a group, and what it worked on is going again. */
  | { readonly kind: "again"; readonly childId: string; readonly groupId: string; readonly gpcs: readonly Target[] };

/** A child who left a group and is not back in it. */
export interface Left {
  readonly childId: string;
  readonly groupId: string;
  /** The day on which it left, and what the group worked on then. */
  readonly on: string;
  readonly targets: readonly Target[];
}

export interface MovesWanted {
  readonly groups: readonly RunningGroup[];
  readonly learners: readonly Learner[];
  /** Children that a group holds. */
  readonly most: number;
  readonly rule: LeavingRule;
  readonly left: readonly Left[];
  /** All correspondences in teaching order. */
  readonly order: readonly Gpc[];
  readonly apart?: readonly Pair[];
}

/** A move has to bring so much more than staying, in whole needs, to be worth the change. */
const WORTH_MOVING = 0.75;

/** What a child gains from each session of a group: its needs that the targets meet, less those that it sits through. */
export function gainOf(learner: Learner, targets: readonly Target[]): number {
  return targets.reduce((sum, target) => sum + valueTo(learner, target), 0);
}

/** The most that a child could gain from so many targets of its own: what its gain in a group is measured by. */
export function bestGain(learner: Learner, targets: number): number {
  return [...learner.needs.values()]
    .sort((one, other) => other - one)
    .slice(0, targets)
    .reduce((sum, need) => sum + need, 0);
}

/** Keeps what was worked out for each group. */
function renewing(targetsOf: (group: RunningGroup) => readonly Target[]): (group: RunningGroup) => readonly Target[] {
  const kept = new Map<RunningGroup, readonly Target[]>();
  return (group) => {
    const made = kept.get(group) ?? targetsOf(group);
    kept.set(group, made);
    return made;
  };
}

/**
 * Changes that the evidence of today speaks for, those who may leave first. A child has one at most. Where a group would do better
 * with other targets, it is they that are to be changed: no one moves for that.
 */
export function movesFor({ groups, learners, most, rule, left, order, apart = [] }: MovesWanted): readonly Move[] {
  const found: Move[] = [];
  const groupOf = new Map(groups.flatMap((group) => group.members.map((id) => [id, group] as const)));
  const may = (childId: string, group: RunningGroup) =>
    group.members.length > 0 &&
    group.members.length < most &&
    !apart.some((pair) => pair.includes(childId) && group.members.some((id) => id !== childId && pair.includes(id)));
  const byId = new Map(learners.map((one) => [one.id, one]));
  const renewed = renewing((group) => {
    const members = group.members.flatMap((id) => byId.get(id) ?? []);
    return chooseTargets(members, order, Math.max(1, group.targets.length));
  });
  for (const learner of learners) {
    const { id } = learner;
    const here = groupOf.get(id);
    if (here && mayLeave(learner, here, rule)) {
      const secure = here.targets.filter((target) => isDone(learner, target)).length;
      found.push({ kind: "leave", childId: id, groupId: here.id, secure, of: here.targets.length });
      continue;
    }
    const now = here ? Math.max(gainOf(learner, here.targets), gainOf(learner, renewed(here))) : 0;
    const best = groups
      .filter((group) => group !== here && may(id, group))
      .map((group) => ({ group, gain: gainOf(learner, group.targets) }))
      .sort((one, other) => other.gain - one.gain)[0];
    const there = best?.group.targets.filter((gpc) => learner.needs.has(gpc)) ?? [];
    if (best && there.length > 0 && best.gain >= now + WORTH_MOVING) {
      const needed = here?.targets.filter((gpc) => learner.needs.has(gpc)).length ?? 0;
      found.push(
        here
          ? { kind: "move", childId: id, groupId: here.id, toId: best.group.id, here: needed, there }
          : { kind: "join", childId: id, toId: best.group.id, there },
      );
      continue;
    }
    const gone = here ? undefined : left.find(({ childId }) => childId === id);
    const gpcs = gone?.targets.filter((gpc) => learner.needs.has(gpc)) ?? [];
    if (gone && gpcs.length > 0) found.push({ kind: "again", childId: id, groupId: gone.groupId, gpcs });
  }
  const place = { leave: 0, again: 1, move: 2, join: 3 };
  return found.sort((one, other) => place[one.kind] - place[other.kind]);
}

/** A spelling is done with when it is secure, what is no spelling when nothing calls for it any more. */
function isDone(learner: Learner, target: Target): boolean {
  return learner.secure.has(target) || (isNeedFamily(target) && !learner.needs.has(target));
}

function mayLeave(learner: Learner, { targets }: RunningGroup, rule: LeavingRule): boolean {
  if (targets.length === 0 || targets.some((gpc) => learner.needs.has(gpc))) return false;
  if (rule.by === "targets") return targets.every((target) => isDone(learner, target));
  return (learner.taught ?? 0) > 0 && learner.secure.size * 100 >= rule.percent * (learner.taught ?? 0);
}

/** A saved state of a group, as its history has it. */
export interface GroupState {
  readonly groupId: string;
  /** The day on which it was saved. */
  readonly on: string;
  readonly members: readonly string[];
  readonly targets: readonly Target[];
}

/**
 * Who left which group, and when, by the states of all groups in the order in which they were saved. Who is in some group now,
 * or was moved to another on the same day, did not leave; of several leavings the last counts.
 * @param closed groups that are closed: their children have left on no day of their own
 */
export function leavingsIn(states: readonly GroupState[], closed: ReadonlySet<string> = new Set()): readonly Left[] {
  const now = new Map<string, GroupState>();
  const left = new Map<string, Left>();
  for (const state of states) {
    const before = now.get(state.groupId);
    for (const childId of before?.members ?? [])
      if (!state.members.includes(childId))
        left.set(childId, { childId, groupId: state.groupId, on: state.on, targets: before?.targets ?? [] });
    now.set(state.groupId, state);
  }
  const inOne = new Set(
    [...now.values()].flatMap(({ groupId, members }) => (closed.has(groupId) ? [] : [...members])),
  );
  return [...left.values()].filter(({ childId }) => !inOne.has(childId));
}

/** Weeks after which a child who left is looked at again. */
export const LOOKS_AFTER = [2, 4, 8] as const;

/** A look that is due at a child who left. */
export interface LookDue extends Left {
  /** Weeks since the child left for which the look stands. */
  readonly weeks: number;
  /** The day from which on it is due. */
  readonly due: string;
  /** What the group worked on and the child was not asked since that day. */
  readonly gpcs: readonly Gpc[];
}

/**
 * The looks that are due today: for each child who left, the last of 2, 4 and 8 weeks that has come, as long as some spelling was
 * not asked since. A look that was missed gives way to the next. What is no spelling comes back by what is heard of it.
 * @param askedOn the last day on which a child was asked a spelling
 */
export function looksDue(
  left: readonly Left[],
  today: string,
  askedOn: (childId: string, gpc: Gpc) => string | undefined,
): readonly LookDue[] {
  return left.flatMap((one) => {
    const come = LOOKS_AFTER.map((weeks) => ({
      weeks,
      due: formatISO(addWeeks(parseISO(one.on), weeks), { representation: "date" }),
    })).filter(({ due }) => due <= today);
    const last = come.at(-1);
    if (!last) return [];
    const gpcs = one.targets.filter((gpc) => !isNeedFamily(gpc) && (askedOn(one.childId, gpc) ?? "") < last.due);
    return gpcs.length > 0 ? [{ ...one, ...last, gpcs }] : [];
  });
}
