import { isNeedFamily, type NeedFamily } from "#core/mastery";
import type { Gpc } from "#core/phonics";

/** What a group works on: a correspondence, or needs of another kind that are taught together. */
export type Target = Gpc | NeedFamily;

/** Targets as they are kept: spellings, and what is none. */
export interface TargetsApart {
  readonly targets: readonly Gpc[];
  readonly besides: readonly NeedFamily[];
}

/** All that a group works on, spellings first. */
export function targetsIn({ targets, besides }: TargetsApart): readonly Target[] {
  return [...targets, ...besides];
}

/** The other way round. */
export function targetsApart(targets: readonly Target[]): TargetsApart {
  return {
    targets: targets.filter((one) => !isNeedFamily(one)),
    besides: targets.filter(isNeedFamily),
  };
}

/** What one child needs: 0 (nothing to do, or unknown) to 1 (a gap) per target. */
export interface Learner {
  readonly id: string;
  readonly needs: ReadonlyMap<Target, number>;
  /** Correspondences that are secure: time spent on these is wasted for this child. */
  readonly secure: ReadonlySet<Gpc>;
  readonly classId?: string;
  /** The number of the year group. */
  readonly year?: number;
  /** The group in which the child is now. */
  readonly group?: string;
  /** How many spellings the child was taught. */
  readonly taught?: number;
}

export interface MemberFit {
  readonly id: string;
  /** Targets this child needs. */
  readonly fits: readonly Target[];
  /** Targets this child already has secure. */
  readonly has: readonly Target[];
  /** Targets of which nothing calls for teaching now: not checked, or right the last time. */
  readonly unsure: readonly Target[];
  /** Needs of this child that the group does not serve. */
  readonly unserved: readonly Target[];
  /** Share of the targets that this child needs, 0 to 1. */
  readonly share: number;
}

export interface GroupFit {
  readonly targets: readonly Target[];
  readonly members: readonly MemberFit[];
  /** Mean of the members' shares, 0 to 1. */
  readonly share: number;
}

/** Wasted time counts a little less than need. */
export const WASTE = 0.35;

/**
 * What a session on a target is to a child, in whole needs: what it needs of it, or time lost where it has it secure. Of what is no
 * spelling a child has no such state: where nothing calls for it, the child sits through it.
 */
export function valueTo(learner: Learner, target: Target): number {
  const need = learner.needs.get(target);
  if (need !== undefined) return need;
  return learner.secure.has(target) || isNeedFamily(target) ? -WASTE : 0;
}

/**
 * What a group would best work on: at most `most` targets with the greatest shared need, less the time wasted on members who do not
 * need them; earlier in the teaching order wins a tie. The targets come back in teaching order, those that are no spellings last.
 */
export function chooseTargets(members: readonly Learner[], order: readonly Gpc[], most: number): readonly Target[] {
  const place = new Map(order.map((gpc, at) => [gpc, at]));
  const needed = new Set(members.flatMap((member) => [...member.needs.keys()]));
  const scored = [...needed].map((gpc) => ({
    gpc,
    worth: members.reduce((sum, member) => sum + valueTo(member, gpc), 0),
    at: place.get(gpc) ?? order.length,
  }));
  return scored
    .filter(({ worth }) => worth > 0)
    .sort((one, other) => other.worth - one.worth || one.at - other.at)
    .slice(0, most)
    .sort((one, other) => one.at - other.at)
    .map(({ gpc }) => gpc);
}

/** How each member fits the targets. */
export function groupFitOf(members: readonly Learner[], targets: readonly Target[]): GroupFit {
  const fits = members.map((member) => {
    const needed = targets.filter((gpc) => (member.needs.get(gpc) ?? 0) > 0);
    const has = targets.filter((gpc) => member.secure.has(gpc));
    return {
      id: member.id,
      fits: needed,
      has,
      unsure: targets.filter((gpc) => !needed.includes(gpc) && !has.includes(gpc)),
      unserved: [...member.needs.keys()].filter((gpc) => !targets.includes(gpc)),
      share: targets.length === 0 ? 0 : needed.length / targets.length,
    };
  });
  const share = fits.length === 0 ? 0 : fits.reduce((sum, fit) => sum + fit.share, 0) / fits.length;
  return { targets, members: fits, share };
}

/** How a screen writes what a sentence speaks of. */
export interface Shown {
  /** Targets that belong together, as they are taught as one thing: a name, and which of its spellings are meant. */
  readonly points: (
    targets: readonly Target[],
  ) => readonly { readonly name: string; readonly gpcs: readonly Target[]; readonly partOf?: string }[];
  readonly name: (id: string) => string;
}

/** One sentence that says why these children are together, by teaching point, with the numbers behind it. */
export function whyGroup(fit: GroupFit, { points, name }: Shown): string {
  const size = fit.members.length;
  if (size === 0) return "No one is in this group yet.";
  if (fit.targets.length === 0) return "Nothing that these children were asked calls for teaching now.";
  const counts = points(fit.targets).map((point) => ({
    name: point.name,
    count: fit.members.filter((member) => point.gpcs.some((gpc) => member.fits.includes(gpc))).length,
  }));
  const parts = [...new Set(counts.map(({ count }) => count))]
    .sort((one, other) => other - one)
    .map((count) => {
      const same = counts.filter((one) => one.count === count).map((one) => one.name);
      const who =
        count === 0
          ? "None is known to need"
          : count < size
            ? `${count} of ${size} ${count === 1 ? "needs" : "need"}`
            : size === 1
              ? "This child needs"
              : `All ${size} need`;
      return `${who} ${list(same)}`;
    });
  const least = [...fit.members].sort((one, other) => one.share - other.share)[0];
  const tail =
    least && size > 1 && least.share < 0.5
      ? ` ${name(least.id)} fits least: ${least.fits.length} of ${fit.targets.length}.`
      : "";
  return `${parts.join("; ")}.${tail}`;
}

function list(entries: readonly string[]): string {
  if (entries.length < 2) return entries.join("");
  // A name that has a comma or an "and" of its own is kept apart from the next by a stop.
  const mark = entries.some((entry) => /,| and /.test(entry)) ? "; " : ", ";
  return `${entries.slice(0, -1).join(mark)}${mark === "; " ? "; and " : " and "}${entries.at(-1)}`;
}
