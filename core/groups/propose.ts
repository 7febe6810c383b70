import { type Dice, dice, shuffled } from "#core/checks";
import type { Gpc } from "#core/phonics";
import { chooseTargets, type Learner, WASTE } from "./fit.ts";

export interface GroupsWanted {
  readonly learners: readonly Learner[];
  /** All correspondences in teaching order. */
  readonly order: readonly Gpc[];
  readonly shape:
    | { readonly by: "count"; readonly count: number }
    | { readonly by: "size"; readonly least: number; readonly most: number };
  /** Targets a group, 1 or more. Default 4. */
  readonly mostTargets?: number;
  /** Child id → number of the group (from 0) in which the child must stay. */
  readonly locked?: ReadonlyMap<string, number>;
  readonly seed: number;
}

export interface ProposedGroup {
  readonly members: readonly string[];
  readonly targets: readonly Gpc[];
}

export interface Proposal {
  readonly groups: readonly ProposedGroup[];
  /** Children who need nothing that was taught and asked: they stay out unless locked in. */
  readonly withoutNeed: readonly string[];
  /** The whole need met, for comparing proposals; higher is better. */
  readonly worth: number;
}

const STARTS = 8;

/**
 * Puts children who need the same few things together. Local search from several seeded starts: children
 * change places or move as long as the need met by the groups' targets (less time wasted on members who
 * have them secure) grows. Group sizes differ by one at most when a count is asked for, and stay between
 * `least` and `most` where the number of children allows when a size is. Locked children do not move.
 */
export function proposeGroups(wanted: GroupsWanted): Proposal {
  const { learners, order, shape, mostTargets = 4, locked = new Map<string, number>(), seed } = wanted;
  const inPlay = learners.filter((learner) => learner.needs.size > 0 || locked.has(learner.id));
  const withoutNeed = learners.filter((learner) => !inPlay.includes(learner)).map((learner) => learner.id);
  if (inPlay.length === 0) return { groups: [], withoutNeed, worth: 0 };

  const sizes = groupSizes(inPlay.length, shape, locked);
  const table = new NeedTable(inPlay, mostTargets);
  const fixed = inPlay.map((learner) => locked.get(learner.id) ?? -1);
  const random = dice(seed);
  let best: { groups: number[][]; worth: number } | undefined;
  for (let start = 0; start < STARTS; start++) {
    const groups = improve(
      firstGroups(inPlay.length, sizes, fixed, random, start === 0 ? table : undefined),
      table,
      fixed,
      sizes,
    );
    const worth = groups.reduce((sum, group) => sum + table.worth(group), 0);
    if (!best || worth > best.worth + 1e-9) best = { groups, worth };
  }
  const groups = (best?.groups ?? [])
    .map((group) => group.map((at) => inPlay[at] as Learner))
    .map((members) => ({
      members: members.map((member) => member.id),
      targets: chooseTargets(members, order, mostTargets),
    }));
  return { groups: locked.size > 0 ? groups : byFirstTarget(groups, order), withoutNeed, worth: best?.worth ?? 0 };
}

function byFirstTarget(groups: ProposedGroup[], order: readonly Gpc[]): ProposedGroup[] {
  const place = (group: ProposedGroup) =>
    group.targets[0] === undefined ? order.length : order.indexOf(group.targets[0]);
  return [...groups].filter((group) => group.members.length > 0).sort((one, other) => place(one) - place(other));
}

interface Sizes {
  readonly aims: readonly number[];
  readonly least: number;
  readonly most: number;
}

function groupSizes(children: number, shape: GroupsWanted["shape"], locked: ReadonlyMap<string, number>): Sizes {
  const lockedGroups = Math.max(0, ...[...locked.values()].map((group) => group + 1));
  const wanted = shape.by === "count" ? shape.count : Math.ceil(children / Math.max(1, shape.most));
  const count = Math.max(1, Math.min(Math.max(wanted, lockedGroups), Math.max(children, lockedGroups)));
  const small = Math.floor(children / count);
  const aims = Array.from({ length: count }, (_, at) => small + (at < children % count ? 1 : 0));
  if (shape.by === "count") return { aims, least: small, most: small + (children % count ? 1 : 0) };
  return { aims, least: Math.min(shape.least, small), most: shape.most };
}

/** Needs as plain numbers, so that the worth of a group takes one pass. */
class NeedTable {
  private readonly rows: Float64Array[];
  private readonly width: number;
  private readonly sums: Float64Array;

  constructor(
    learners: readonly Learner[],
    private readonly mostTargets: number,
  ) {
    const gpcs = [...new Set(learners.flatMap((learner) => [...learner.needs.keys()]))];
    this.width = gpcs.length;
    this.sums = new Float64Array(this.width);
    this.rows = learners.map((learner) =>
      Float64Array.from(gpcs, (gpc) => learner.needs.get(gpc) ?? (learner.secure.has(gpc) ? -WASTE : 0)),
    );
  }

  /** Need met by the best targets of these children. */
  worth(group: readonly number[]): number {
    const { sums, width, rows } = this;
    sums.fill(0);
    for (const at of group) {
      const row = rows[at] as Float64Array;
      for (let column = 0; column < width; column++)
        sums[column] = (sums[column] as number) + (row[column] as number);
    }
    const best = new Array<number>(this.mostTargets).fill(0);
    for (let column = 0; column < width; column++) {
      let value = sums[column] as number;
      for (let rank = 0; rank < best.length && value > 0; rank++) {
        const held = best[rank] as number;
        if (value > held) {
          best[rank] = value;
          value = held;
        }
      }
    }
    return best.reduce((sum, value) => sum + value, 0);
  }

  /** Need that two children share, for the first start. */
  shared(one: number, other: number): number {
    const left = this.rows[one] as Float64Array;
    const right = this.rows[other] as Float64Array;
    let sum = 0;
    for (let column = 0; column < this.width; column++) {
      sum += Math.max(0, Math.min(left[column] as number, right[column] as number));
    }
    return sum;
  }
}

/** A start: locked children first, then either the child most alike to the group (greedy) or any child. */
function firstGroups(
  children: number,
  sizes: Sizes,
  fixed: readonly number[],
  random: Dice,
  greedy?: NeedTable,
): number[][] {
  const groups: number[][] = sizes.aims.map(() => []);
  for (const [at, group] of fixed.entries()) if (group >= 0) groups[group]?.push(at);
  const open = shuffled(
    [...Array(children).keys()].filter((at) => (fixed[at] ?? -1) < 0),
    random,
  );
  for (const [number, group] of groups.entries()) {
    while (group.length < (sizes.aims[number] ?? 0) && open.length > 0) {
      let pick = 0;
      if (greedy && group.length > 0) {
        const like = open.map((candidate) =>
          group.reduce((sum, member) => sum + greedy.shared(candidate, member), 0),
        );
        pick = like.indexOf(Math.max(...like));
      }
      group.push(...open.splice(pick, 1));
    }
  }
  for (const rest of open) [...groups].sort((one, other) => one.length - other.length)[0]?.push(rest);
  return groups;
}

/** Swaps and moves as long as one helps. */
function improve(groups: number[][], table: NeedTable, fixed: readonly number[], sizes: Sizes): number[][] {
  const worth = groups.map((group) => table.worth(group));
  const free = (at: number | undefined) => at !== undefined && (fixed[at] ?? -1) < 0;
  for (let round = 0; round < 60; round++) {
    let better = false;
    for (let left = 0; left < groups.length; left++) {
      for (let right = 0; right < groups.length; right++) {
        if (left !== right && exchange(groups, left, right, worth, table, free, sizes)) better = true;
      }
    }
    if (!better) break;
  }
  return groups;
}

function exchange(
  groups: number[][],
  left: number,
  right: number,
  worth: number[],
  table: NeedTable,
  free: (at: number | undefined) => boolean,
  sizes: Sizes,
): boolean {
  const one = groups[left] as number[];
  const other = groups[right] as number[];
  const now = (worth[left] as number) + (worth[right] as number);
  for (let from = 0; from < one.length; from++) {
    if (!free(one[from])) continue;
    const without = one.filter((_, at) => at !== from);
    const mover = one[from] as number;
    const choices: [number[], number[]][] = [];
    if (one.length > sizes.least && other.length < sizes.most) choices.push([without, [...other, mover]]);
    if (left < right) {
      for (let to = 0; to < other.length; to++) {
        if (free(other[to])) {
          choices.push([
            [...without, other[to] as number],
            [...other.filter((_, at) => at !== to), mover],
          ]);
        }
      }
    }
    for (const [newOne, newOther] of choices) {
      const worthOne = table.worth(newOne);
      const worthOther = table.worth(newOther);
      if (worthOne + worthOther > now + 1e-9) {
        groups[left] = newOne;
        groups[right] = newOther;
        worth[left] = worthOne;
        worth[right] = worthOther;
        return true;
      }
    }
  }
  return false;
}
