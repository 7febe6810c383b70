import { dayNumber } from "./days.ts";
import type { OtherNeed } from "./other-needs.ts";

/** A text that a child read alone against the clock. */
export interface TimedReading {
  readonly day: string;
  readonly title: string;
  /** Words correct in a minute. */
  readonly perMinute: number;
  /** Share of words read that came out right, 0 to 100. */
  readonly accuracy: number;
  /** What the school wants of the child's year group on that day, in words correct a minute. */
  readonly aim: number;
}

/** Texts are read less often than cards: a reading speaks of the child for eight weeks. */
const LATELY_DAYS = 56;
/** One slow text can be a bad day, and a few words below the aim are none of it. */
const [LEAST_SLOW, LEAST_MISSING] = [2, 0.1];

/**
 * Whether a child needs to read faster: texts of the last eight weeks that came right and too slowly, the newest among them. A text
 * that did not come right says what is to be learned, and nothing of the rate.
 * @param accuracy from which on a text came right, 0 to 100
 * @returns what is missing of the aim as the need; undefined where there is none, or no one can tell
 */
export function rateNeed(
  readings: readonly TimedReading[],
  { today, accuracy }: { readonly today: string; readonly accuracy: number },
): OtherNeed | undefined {
  const from = dayNumber(today) - LATELY_DAYS;
  const told = readings
    .filter((one) => dayNumber(one.day) > from && one.accuracy >= accuracy && one.aim > 0)
    .sort((one, other) => (one.day < other.day ? 1 : one.day > other.day ? -1 : 0));
  const missing = ({ perMinute, aim }: TimedReading) => 1 - perMinute / aim;
  const slow = told.filter((one) => missing(one) >= LEAST_MISSING);
  const [newest] = told;
  if (!newest || slow.length < LEAST_SLOW || missing(newest) < LEAST_MISSING) return undefined;
  return {
    ...{ id: RATE, kind: "rate", need: Math.round(100 * missing(newest)) / 100 },
    ...{ misses: slow.length, answers: told.length, lastDay: newest.day, lostFirst: 0 },
    items: [`“${newest.title}”: ${Math.round(newest.perMinute)} words a minute, ${newest.aim} are the aim`],
  };
}

/** Its id, as there is only one of its kind. */
export const RATE = "rate texts";
