import { type Dice, dice, shuffled } from "#core/checks";
import type { Block, Rules } from "./rules.ts";
import type { NeedTable } from "./score.ts";

/** For each child that a group is short of its least size. */
const SHORT = 20;
const EPS = 1e-9;
/** Passes over all blocks at most; with many of them fewer, so that whoever looks sees something soon and can ask for something else. */
const ROUNDS = 40;
const [MANY, FEW_ROUNDS] = [200, 2];

interface Group {
  readonly blocks: Set<number>;
  readonly sums: Float64Array;
  readonly homes: Int32Array;
  size: number;
  value: number;
}

/** Where each block is: the number of its group, or -1. */
export type Placing = Int32Array;

/**
 * Looks for groups by local search: blocks move, change places or wait outside as long as the worth grows; then a few groups
 * are taken apart and put together anew, and the better is kept. It can be asked for more for as long as someone looks.
 */
export class GroupSearch {
  private groups: Group[] = [];
  private readonly placing: Placing;
  private readonly random: Dice;
  private best: Placing;
  private bestWorth = Number.NEGATIVE_INFINITY;
  /** Every group that was part of some local best, as sorted blocks joined by commas: what a bound begins from. */
  readonly seen = new Map<string, readonly number[]>();

  constructor(
    private readonly table: NeedTable,
    private readonly rules: Rules,
    seed: number,
  ) {
    this.random = dice(seed);
    this.placing = new Int32Array(rules.blocks.length).fill(-1);
    this.best = this.placing.slice();
    this.start(this.placing);
    this.fill();
    // Among many, changing places costs most: at first each only moves.
    this.settle(rules.blocks.length <= MANY);
  }

  /** The worth of the best that was found, with what places are worth. */
  get worth(): number {
    return this.bestWorth;
  }

  /** The blocks of each group of the best that was found; a group may be empty. */
  groupsOfBest(): readonly (readonly number[])[] {
    return Array.from({ length: this.rules.groups }, (_, number) =>
      [...this.best.keys()].filter((block) => this.best[block] === number),
    );
  }

  /** How many children have a place in the best that was found. */
  children(): number {
    return this.rules.blocks.reduce(
      (sum, { children }, block) => sum + ((this.best[block] as number) >= 0 ? children.length : 0),
      0,
    );
  }

  /** Takes some groups apart and puts them together anew. @returns whether something better was found */
  again(): boolean {
    const before = this.bestWorth;
    const open = [...Array(this.rules.groups).keys()];
    if (open.length === 0 || this.rules.blocks.length < 2) return false;
    const some = shuffled(open, this.random).slice(0, Math.min(open.length, 2 + Math.floor(this.random.share() * 2)));
    const whole = this.random.share() < 0.5;
    for (const number of some)
      for (const block of [...(this.groups[number] as Group).blocks])
        if ((this.rules.blocks[block] as Block).fixed < 0 && (whole || this.random.share() < 0.5)) this.take(block);
    this.fill();
    this.settle();
    const better = this.bestWorth > before + EPS;
    if (!better) this.start(this.best);
    return better;
  }

  /** Takes a placing that was found elsewhere, where it is better and keeps the rules. @returns whether it is taken */
  offer(groups: readonly (readonly number[])[]): boolean {
    const before = this.bestWorth;
    const placing = new Int32Array(this.rules.blocks.length).fill(-1);
    for (const [number, blocks] of groups.slice(0, this.rules.groups).entries())
      for (const block of blocks) placing[block] = number;
    this.start(placing);
    this.settle();
    const better = this.bestWorth > before + EPS;
    if (!better) this.start(this.best);
    return better;
  }

  private start(placing: Placing): void {
    const { table, rules } = this;
    this.groups = Array.from({ length: rules.groups }, () => ({
      blocks: new Set<number>(),
      sums: new Float64Array(table.width),
      homes: new Int32Array(table.homeCount),
      size: 0,
      value: 0,
    }));
    const wanted = placing.slice();
    this.placing.fill(-1);
    for (const [block, { fixed }] of rules.blocks.entries()) if (fixed >= 0) this.put(block, fixed);
    for (const [block, number] of wanted.entries())
      if (number >= 0 && this.placing[block] === -1 && this.fits(block, number)) this.put(block, number);
  }

  /** Puts those who wait where they bring most, in a new order each time; groups that are short come first. */
  private fill(): void {
    const waiting = shuffled(
      [...this.placing.keys()].filter((block) => this.placing[block] === -1),
      this.random,
    );
    for (const block of waiting) {
      let [best, gain] = [-1, Number.NEGATIVE_INFINITY];
      for (let number = 0; number < this.groups.length; number++) {
        if (!this.fits(block, number)) continue;
        const group = this.groups[number] as Group;
        // An empty group is begun before a full one grows: the first children say what the group is for.
        const more =
          this.valueWith(number, block, -1) -
          group.value +
          (group.size === 0 ? 0.3 * this.random.share() + SHORT * (this.rules.least - 1) : 0);
        if (more > gain) [best, gain] = [number, more];
      }
      if (best >= 0) this.put(block, best);
    }
  }

  /** Moves and swaps as long as one helps; then keeps what was found if it is the best. */
  private settle(swaps = true): void {
    const { blocks } = this.rules;
    const rounds = blocks.length > MANY ? FEW_ROUNDS : ROUNDS;
    for (let round = 0; round < rounds; round++) {
      let better = false;
      for (const block of shuffled([...blocks.keys()], this.random)) {
        if ((blocks[block] as Block).fixed >= 0) continue;
        if (this.move(block) || (swaps && this.swap(block))) better = true;
      }
      if (!better) break;
    }
    const worth = this.groups.reduce((sum, { value }) => sum + value, 0);
    for (const { blocks: its, size } of this.groups) {
      if (size < this.rules.least || size === 0) continue;
      const sorted = [...its].sort((one, other) => one - other);
      this.seen.set(sorted.join(), sorted);
    }
    if (worth > this.bestWorth + EPS) {
      this.bestWorth = worth;
      this.best = this.placing.slice();
    }
  }

  private move(block: number): boolean {
    const from = this.placing[block] as number;
    const left = from < 0 ? 0 : this.valueWith(from, -1, block) - (this.groups[from] as Group).value;
    let [best, gain] = [-2, EPS];
    if (from >= 0 && left > gain) [best, gain] = [-1, left];
    for (let number = 0; number < this.groups.length; number++) {
      if (number === from || !this.fits(block, number)) continue;
      const more = left + this.valueWith(number, block, -1) - (this.groups[number] as Group).value;
      if (more > gain) [best, gain] = [number, more];
    }
    if (best === -2) return false;
    if (from >= 0) this.take(block);
    if (best >= 0) this.put(block, best);
    return true;
  }

  private swap(block: number): boolean {
    const from = this.placing[block] as number;
    for (let other = 0; other < this.placing.length; other++) {
      const to = this.placing[other] as number;
      if (to < 0 || to === from || (this.rules.blocks[other] as Block).fixed >= 0) continue;
      if (!this.fits(block, to, other) || (from >= 0 && !this.fits(other, from, block))) continue;
      const there = this.valueWith(to, block, other) - (this.groups[to] as Group).value;
      const here = from < 0 ? 0 : this.valueWith(from, other, block) - (this.groups[from] as Group).value;
      if (there + here <= EPS) continue;
      this.take(other);
      if (from >= 0) this.take(block);
      this.put(block, to);
      if (from >= 0) this.put(other, from);
      return true;
    }
    return false;
  }

  /** True when a block may be in a group, `without` one that leaves it. */
  private fits(block: number, number: number, without = -1): boolean {
    const { blocks, most, yearsApart } = this.rules;
    const its = blocks[block] as Block;
    const group = this.groups[number] as Group;
    if (its.barred.includes(number)) return false;
    const leaving = without < 0 ? 0 : (blocks[without] as Block).children.length;
    if (group.size - leaving + its.children.length > most && its.fixed !== number) return false;
    if (its.classNumber < 0 && its.apart.size === 0 && yearsApart === Number.POSITIVE_INFINITY) return true;
    let [first, last] = its.years;
    for (const other of group.blocks) {
      if (other === without || other === block) continue;
      if (its.apart.has(other)) return false;
      const { classNumber, years } = blocks[other] as Block;
      if (classNumber !== its.classNumber) return false;
      first = Math.min(first, years[0]);
      last = Math.max(last, years[1]);
    }
    return !(last - first > yearsApart);
  }

  private spareSums = new Float64Array(0);
  private spareHomes = new Int32Array(0);

  /** What a group would be worth with one block more and one less; -1 is none. */
  private valueWith(number: number, more: number, less: number): number {
    const { table } = this;
    const group = this.groups[number] as Group;
    if (this.spareSums.length !== table.width) this.spareSums = new Float64Array(table.width);
    if (this.spareHomes.length !== table.homeCount) this.spareHomes = new Int32Array(table.homeCount);
    this.spareSums.set(group.sums);
    this.spareHomes.set(group.homes);
    let { size } = group;
    if (more >= 0)
      for (const at of (this.rules.blocks[more] as Block).children) {
        table.add(this.spareSums, this.spareHomes, at, 1);
        size++;
      }
    if (less >= 0)
      for (const at of (this.rules.blocks[less] as Block).children) {
        table.add(this.spareSums, this.spareHomes, at, -1);
        size--;
      }
    return this.valueOf(this.spareSums, this.spareHomes, size);
  }

  private valueOf(sums: Float64Array, homes: Int32Array, size: number): number {
    if (size === 0) return 0;
    const short = Math.max(0, this.rules.least - size);
    return this.table.met(sums) + this.table.stayed(homes) + this.table.placed * size - SHORT * short;
  }

  private put(block: number, number: number): void {
    this.change(block, number, 1);
    this.placing[block] = number;
  }

  private take(block: number): void {
    this.change(block, this.placing[block] as number, -1);
    this.placing[block] = -1;
  }

  private change(block: number, number: number, sign: 1 | -1): void {
    const group = this.groups[number] as Group;
    if (sign > 0) group.blocks.add(block);
    else group.blocks.delete(block);
    for (const at of (this.rules.blocks[block] as Block).children) {
      this.table.add(group.sums, group.homes, at, sign);
      group.size += sign;
    }
    group.value = this.valueOf(group.sums, group.homes, group.size);
  }
}
