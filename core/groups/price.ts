import type { Block, Rules } from "./rules.ts";
import type { NeedTable } from "./score.ts";

/** A group that could be, as blocks, and what it is worth with its places. */
export interface Column {
  readonly blocks: readonly number[];
  readonly worth: number;
}

/** What is paid for a block in a group, and for having a group at all. */
export interface Prices {
  readonly blocks: Float64Array;
  readonly group: number;
}

export interface Priced {
  /** Groups worth more than their price, the most first. */
  readonly columns: readonly Column[];
  /** No group that keeps the limits is worth more than this above what its blocks cost. */
  readonly most: number;
}

const KEEP = 40;
const EPS = 1e-7;

/**
 * Finds the groups that are worth most above what their blocks cost: for every set of targets the best blocks for it, set by
 * set, leaving out sets that cannot come near the best (each child's best other targets are an upper bound).
 * @param slack sets that would add no more than this to the best are left out as well, and counted in `most`
 */
export function pricedGroups(table: NeedTable, rules: Rules, prices: Prices, slack: number): Priced {
  const found = new Map<string, Column & { readonly gain: number }>();
  let best = prices.group;
  // Where most can be gained is looked first: what is found there cuts the others short.
  const stages = windowsOf(table, rules)
    .flatMap((window) => stagesOf(window, { table, rules, prices }))
    .sort((one, other) => other.reach - one.reach);
  for (const stage of stages) {
    if (stage.reach <= best + slack) break;
    best = Math.max(best, searchStage({ stage, best, slack, keep }));
  }
  return {
    columns: [...found.values()].sort((one, other) => other.gain - one.gain).slice(0, KEEP),
    most: best + slack,
  };

  function keep(blocks: readonly number[], gain: number): void {
    const sorted = [...blocks].sort((one, other) => one - other);
    const key = sorted.join();
    if (gain <= prices.group + EPS || found.has(key)) return;
    found.set(key, { blocks: sorted, worth: worthOfBlocks(table, rules, sorted), gain });
  }
}

/** What a group of these blocks is worth, with its places. */
export function worthOfBlocks(table: NeedTable, rules: Rules, blocks: readonly number[]): number {
  const children = blocks.flatMap((block) => (rules.blocks[block] as Block).children);
  return table.worth(children) + table.placed * children.length;
}

/** Blocks that may share a group as far as classes and years go, with their needs as columns, those that most need first. */
interface Window {
  readonly members: readonly number[];
  /** A row a block: its need of each column. */
  readonly by: readonly Float64Array[];
  readonly tops: readonly (readonly Float64Array[])[];
  readonly width: number;
  /** Targets of a group, as many as there are columns at most. */
  readonly depth: number;
  readonly picker: Picker;
}

/** A window with what each block counts beside its needs. */
interface Stage {
  readonly window: Window;
  readonly base: Float64Array;
  /** No group of it gains more. */
  readonly reach: number;
}

const kept = new WeakMap<Rules, readonly Window[]>();

function windowsOf(table: NeedTable, rules: Rules): readonly Window[] {
  const made = kept.get(rules) ?? membersOfWindows(rules).map((members) => windowOf(members, table, rules));
  kept.set(rules, made);
  return made;
}

function membersOfWindows({ blocks, yearsApart }: Rules): number[][] {
  const classes = [...new Set(blocks.map(({ classNumber }) => classNumber))];
  return classes.flatMap((classNumber) => {
    const its = [...blocks.keys()].filter((at) => blocks[at]?.classNumber === classNumber);
    if (yearsApart === Number.POSITIVE_INFINITY) return [its];
    const starts = [...new Set(its.map((at) => blocks[at]?.years[0] as number).filter(Number.isFinite))];
    const within = starts.map((first) =>
      its.filter((at) => {
        const [low, high] = (blocks[at] as Block).years;
        return !Number.isFinite(low) || (low >= first && high - first <= yearsApart);
      }),
    );
    return within.length > 0 ? within : [its];
  });
}

function windowOf(members: readonly number[], table: NeedTable, rules: Rules): Window {
  const rows = members.map((at) => {
    const row = new Float64Array(table.width);
    for (const child of (rules.blocks[at] as Block).children)
      for (let column = 0; column < table.width; column++)
        row[column] = (row[column] as number) + ((table.rows[child] as Float64Array)[column] as number);
    return row;
  });
  const needed = [...Array(table.width).keys()]
    .map((column) => ({ column, sum: rows.reduce((sum, row) => sum + Math.max(0, row[column] as number), 0) }))
    .filter(({ sum }) => sum > 0)
    .sort((one, other) => other.sum - one.sum)
    .map(({ column }) => column);
  const depth = Math.min(table.mostTargets, needed.length);
  const by = rows.map((row) => Float64Array.from(needed, (column) => row[column] as number));
  return {
    members,
    by,
    depth,
    width: needed.length,
    tops: by.map((row) => topsFrom(row, depth)),
    picker: new Picker(members, rules),
  };
}

/** One stage for each present group that children may stay with, and one for none. */
function stagesOf(
  window: Window,
  { table, rules, prices }: { table: NeedTable; rules: Rules; prices: Prices },
): Stage[] {
  const { members, tops, depth, picker } = window;
  return [-1, ...Array(table.homeCount).keys()].flatMap((home): Stage[] => {
    const stays = (at: number) =>
      home < 0 ? 0 : (rules.blocks[at] as Block).children.filter((child) => table.homes[child] === home).length;
    if (home >= 0 && !members.some((at) => stays(at) > 0)) return [];
    const base = Float64Array.from(
      members,
      (at) =>
        table.placed * (rules.blocks[at] as Block).children.length +
        table.stay * stays(at) -
        (prices.blocks[at] as number),
    );
    const reach = base.map((value, at) => value + (depth > 0 ? (tops[at]?.[depth - 1]?.[0] ?? 0) : 0));
    return [{ window, base, reach: picker.most(reach) }];
  });
}

interface Staged {
  readonly stage: Stage;
  readonly best: number;
  readonly slack: number;
  readonly keep: (blocks: readonly number[], gain: number) => void;
}

/** The needs of a stage, the columns that bring most by themselves first: what is found early cuts the rest short. */
function inOrder({ window, base }: Stage): Pick<Window, "by" | "tops"> {
  const { by, width, depth, picker } = window;
  const values = new Float64Array(base.length);
  const alone = Array.from({ length: width }, (_, column) => {
    for (let at = 0; at < values.length; at++)
      values[at] = (base[at] as number) + ((by[at] as Float64Array)[column] as number);
    return { column, value: picker.most(values) };
  }).sort((one, other) => other.value - one.value);
  const sorted = by.map((row) => Float64Array.from(alone, ({ column }) => row[column] as number));
  return { by: sorted, tops: sorted.map((row) => topsFrom(row, depth)) };
}

/** First columns from which one after another is added that brings most. */
const GREEDY_STARTS = 8;

/** @returns the greatest gain of a group of this stage, or `best` where none is greater */
function searchStage({ stage, best, slack, keep }: Staged): number {
  const { window, base } = stage;
  const { width, depth: depthMost, picker } = window;
  const { by, tops } = inOrder(stage);
  const count = base.length;
  const levels = Array.from({ length: depthMost + 1 }, () => new Float64Array(count));
  const bound = new Float64Array(count);
  levels[0]?.set(base);
  let found = best;
  take(levels[0] as Float64Array);
  for (let first = 0; first < Math.min(width, GREEDY_STARTS); first++) greedy(first);
  descend(0, 0);
  return found;

  function add(values: Float64Array, column: number, to: Float64Array): void {
    for (let at = 0; at < count; at++) to[at] = (values[at] as number) + ((by[at] as Float64Array)[column] as number);
  }

  function greedy(first: number): void {
    const now = Float64Array.from(base);
    const taken = new Set([first]);
    add(now, first, now);
    for (let depth = 1; depth < depthMost; depth++) {
      let [column, value] = [-1, Number.NEGATIVE_INFINITY];
      for (let one = 0; one < width; one++) {
        if (taken.has(one)) continue;
        add(now, one, bound);
        const its = picker.most(bound);
        if (its > value) [column, value] = [one, its];
      }
      if (column < 0) break;
      taken.add(column);
      add(now, column, now);
    }
    take(now);
  }

  function take(values: Float64Array): void {
    if (picker.most(values) <= found + EPS) return;
    const chosen = picker.chosen(values);
    if (!chosen || chosen.value <= found + EPS) return;
    found = chosen.value;
    keep(chosen.blocks, chosen.value);
  }

  /** What the blocks could reach at best with so many columns more from this one on. */
  function reach(values: Float64Array, left: number, column: number): number {
    for (let at = 0; at < count; at++)
      bound[at] =
        (values[at] as number) + (((tops[at] as Float64Array[])[left - 1] as Float64Array)[column] as number);
    return picker.most(bound);
  }

  function descend(depth: number, from: number): void {
    const values = levels[depth] as Float64Array;
    const left = depthMost - depth;
    if (left === 0) return;
    const next = levels[depth + 1] as Float64Array;
    for (let column = from; column < width; column++) {
      if (reach(values, left, column) <= found + slack) return;
      add(values, column, next);
      if (left > 1 && reach(next, left - 1, column + 1) <= found + slack) continue;
      take(next);
      descend(depth + 1, column + 1);
    }
  }
}

/** For 1, 2 … `most` columns: the greatest sum of so many needs from each column on; nothing below 0 is ever taken. */
function topsFrom(row: Float64Array, most: number): Float64Array[] {
  const sums = Array.from({ length: most }, () => new Float64Array(row.length + 1));
  const best: number[] = [];
  for (let column = row.length - 1; column >= 0; column--) {
    const value = row[column] as number;
    if (value > 0) {
      best.push(value);
      best.sort((one, other) => other - one);
      best.length = Math.min(best.length, most);
    }
    let sum = 0;
    for (let count = 0; count < most; count++) {
      sum += best[count] ?? 0;
      (sums[count] as Float64Array)[column] = sum;
    }
  }
  return sums;
}

/** Takes the best blocks for given values: as many children as a group holds, and at least as many as it needs. */
class Picker {
  private readonly sizes: readonly number[];
  /** Places of those who come alone, and sets of the others that fit into one group, with their sizes. */
  private readonly singles: Int32Array;
  private readonly sets: readonly { readonly places: readonly number[]; readonly size: number }[];
  private readonly top: Float64Array;

  constructor(
    private readonly members: readonly number[],
    private readonly rules: Rules,
  ) {
    this.sizes = members.map((at) => (rules.blocks[at] as Block).children.length);
    this.singles = Int32Array.from(this.sizes.keys()).filter((place) => this.sizes[place] === 1);
    this.top = new Float64Array(rules.most + 1);
    let sets: { places: readonly number[]; size: number }[] = [{ places: [], size: 0 }];
    for (const [place, size] of this.sizes.entries()) {
      if (size === 1) continue;
      const more = sets.map((set) => ({ places: [...set.places, place], size: set.size + size }));
      sets = [...sets, ...more.filter((set) => set.size <= rules.most)];
    }
    this.sets = sets;
  }

  /** The greatest sum of values that a group of these can have; who must be kept apart does not matter here. */
  most(values: Float64Array): number {
    const { top, singles } = this;
    const { least, most } = this.rules;
    let filled = 0;
    for (let at = 0; at < singles.length; at++) {
      const value = values[singles[at] as number] as number;
      if (filled === most) {
        if (value <= (top[most - 1] as number)) continue;
        filled--;
      } else if (filled >= least && value <= 0 && value <= (top[least - 1] ?? 0)) continue;
      let place = filled;
      while (place > 0 && (top[place - 1] as number) < value) {
        top[place] = top[place - 1] as number;
        place--;
      }
      top[place] = value;
      filled++;
    }
    let best = Number.NEGATIVE_INFINITY;
    for (const { places, size } of this.sets) {
      if (filled < least - size) continue;
      let sum = 0;
      for (const place of places) sum += values[place] as number;
      for (let place = 0; place < filled && place < most - size; place++) {
        const value = top[place] as number;
        if (place >= least - size && value <= 0) break;
        sum += value;
      }
      if (sum > best) best = sum;
    }
    return best;
  }

  /** The best blocks that may be together, or undefined when none may. */
  chosen(values: Float64Array): { readonly value: number; readonly blocks: readonly number[] } | undefined {
    return this.without(values, new Set(), 0);
  }

  private without(
    values: Float64Array,
    left: ReadonlySet<number>,
    depth: number,
  ): { readonly value: number; readonly blocks: readonly number[] } | undefined {
    const table = this.sizesTable(values, left);
    let best: (typeof table)[number] | undefined;
    for (const one of table.slice(this.rules.least))
      if (one.value > (best?.value ?? Number.NEGATIVE_INFINITY)) best = one;
    if (!best || best.value === Number.NEGATIVE_INFINITY) return undefined;
    const blocks = best.places.map((place) => this.members[place] as number);
    for (const [at, block] of blocks.entries()) {
      const other = blocks.findIndex((one) => (this.rules.blocks[block] as Block).apart.has(one));
      if (other < 0) continue;
      if (depth > 12) return undefined;
      const [one, two] = [at, other].map((place) =>
        this.without(values, new Set([...left, best.places[place] as number]), depth + 1),
      );
      return (one?.value ?? Number.NEGATIVE_INFINITY) >= (two?.value ?? Number.NEGATIVE_INFINITY) ? one : two;
    }
    return { value: best.value, blocks };
  }

  /** By number of children, the best sum and the places of its blocks. */
  private sizesTable(values: Float64Array, left: ReadonlySet<number>) {
    const none = { value: Number.NEGATIVE_INFINITY, places: [] as readonly number[] };
    const table = Array.from({ length: this.rules.most + 1 }, (_, size) =>
      size === 0 ? { value: 0, places: [] as readonly number[] } : none,
    );
    for (const [place, value] of values.entries()) {
      if (left.has(place)) continue;
      const size = this.sizes[place] as number;
      for (let all = this.rules.most; all >= size; all--) {
        const before = table[all - size];
        if (before && before.value + value > (table[all]?.value ?? 0))
          table[all] = { value: before.value + value, places: [...before.places, place] };
      }
    }
    return table;
  }
}
