import { uniformInt } from "pure-rand/distribution/uniformInt";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";

/** A source of whole numbers: `pick(n)` gives 0 to n − 1. The same seed gives the same numbers. */
export interface Dice {
  pick(below: number): number;
  /** A number from 0 (included) to 1 (excluded). */
  share(): number;
}

/**
 * Chance that is the same each time for the same seed.
 * @example dice(7).pick(6) // a whole number from 0 to 5, always the same first one
 */
export function dice(seed: number): Dice {
  const source = xoroshiro128plus(seed | 0);
  return {
    pick: (below) => uniformInt(source, 0, below - 1),
    share: () => uniformInt(source, 0, 2 ** 31 - 1) / 2 ** 31,
  };
}

/** A new list with the same entries in an order that only the dice decide (Fisher–Yates). */
export function shuffled<T>(list: readonly T[], from: Dice): T[] {
  const copy = [...list];
  for (let at = copy.length - 1; at > 0; at--) {
    const other = from.pick(at + 1);
    [copy[at], copy[other]] = [copy[other] as T, copy[at] as T];
  }
  return copy;
}
