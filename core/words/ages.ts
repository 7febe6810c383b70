import { type KnownBy, type Lexicon, sliceOf } from "./lexicon.ts";

const narrowed = new WeakMap<Lexicon, Map<KnownBy, Lexicon>>();

/**
 * The lexicon with only such words on offer as children of an age know when they hear them; any word can still be found in it. The
 * same lexicon and age give the same object.
 * @param age 12 offers every word
 */
export function withinAge(lexicon: Lexicon, age: KnownBy): Lexicon {
  if (age === 12) return lexicon;
  const known = narrowed.get(lexicon) ?? new Map<KnownBy, Lexicon>();
  narrowed.set(lexicon, known);
  const before = known.get(age);
  if (before) return before;
  const made = sliceOf(lexicon, ({ knownBy }) => knownBy <= age);
  known.set(age, made);
  return made;
}

/** The age of the youngest of some readers; every word where there is none. */
export function youngestOf(ages: readonly KnownBy[]): KnownBy {
  return Math.min(12, ...ages) as KnownBy;
}
