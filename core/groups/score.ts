import { type Learner, type Target, valueTo, WASTE } from "./fit.ts";

/** What a place is worth above what it can cost. */
const PLACE = 0.6;

/**
 * The needs of a class as plain numbers, so that the worth of a group takes one pass: a row a child, a column a target;
 * a need is above 0, what the child only sits through below.
 */
export class NeedTable {
  readonly rows: readonly Float64Array[];
  readonly targets: readonly Target[];
  /** The number of the group in which each child is now, or -1. */
  readonly homes: Int32Array;
  readonly homeCount: number;
  /**
   * What a child's place in a group is worth beside its needs: more than any group can cost it, so that no one is left out to spare
   * minutes while there is room.
   */
  readonly placed: number;
  private readonly best: Float64Array;

  constructor(
    readonly learners: readonly Learner[],
    readonly mostTargets: number,
    readonly stay: number,
  ) {
    this.placed = mostTargets * WASTE + PLACE;
    this.best = new Float64Array(Math.max(1, mostTargets));
    this.targets = [...new Set(learners.flatMap((learner) => [...learner.needs.keys()]))];
    this.rows = learners.map((learner) => Float64Array.from(this.targets, (target) => valueTo(learner, target)));
    const names = [...new Set(learners.flatMap(({ group }) => (group === undefined ? [] : [group])))];
    this.homes = Int32Array.from(learners, ({ group }) => (group === undefined ? -1 : names.indexOf(group)));
    this.homeCount = stay > 0 ? names.length : 0;
  }

  get width(): number {
    return this.targets.length;
  }

  /** Need met by the best targets, from the sums of the members' columns. */
  met(sums: Float64Array): number {
    const [most, width] = [this.mostTargets, this.width];
    if (most === 1) {
      let best = 0;
      for (let column = 0; column < width; column++)
        if ((sums[column] as number) > best) best = sums[column] as number;
      return best;
    }
    this.best.fill(0);
    const { best } = this;
    let least = 0;
    for (let column = 0; column < width; column++) {
      const value = sums[column] as number;
      if (value <= least) continue;
      let place = most - 1;
      while (place > 0 && (best[place - 1] as number) < value) {
        best[place] = best[place - 1] as number;
        place--;
      }
      best[place] = value;
      least = best[most - 1] as number;
    }
    let all = 0;
    for (let place = 0; place < most; place++) all += best[place] as number;
    return all;
  }

  /** Need met by the best targets of these children, and what it is worth that they stay together. */
  worth(members: readonly number[]): number {
    const sums = new Float64Array(this.width);
    const homes = new Int32Array(this.homeCount);
    for (const at of members) this.add(sums, homes, at, 1);
    return this.met(sums) + this.stayed(homes);
  }

  /** Adds a child to sums, or takes it out with a `sign` of -1. */
  add(sums: Float64Array, homes: Int32Array, at: number, sign: 1 | -1): void {
    const row = this.rows[at] as Float64Array;
    for (let column = 0; column < row.length; column++)
      sums[column] = (sums[column] as number) + sign * (row[column] as number);
    const home = this.homes[at] as number;
    if (home >= 0 && home < homes.length) homes[home] = (homes[home] as number) + sign;
  }

  /** What it is worth that the most of one present group are here. */
  stayed(homes: Int32Array): number {
    let most = 0;
    for (const count of homes) if (count > most) most = count;
    return this.stay * most;
  }

  /** The best targets, as columns. */
  bestColumns(members: readonly number[]): number[] {
    const sums = new Float64Array(this.width);
    for (const at of members) this.add(sums, new Int32Array(0), at, 1);
    return [...sums.keys()]
      .filter((column) => (sums[column] as number) > 0)
      .sort((one, other) => (sums[other] as number) - (sums[one] as number) || one - other)
      .slice(0, this.mostTargets);
  }
}
