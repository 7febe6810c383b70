import { type Gpc, isOwnUnit, partsOf, plainLetters, splitGpc } from "#core/phonics";
import { type Lexicon, lexiconOf, type Word } from "./lexicon.ts";

/** Where a unit of a school's own lies over a word: the first of its parts, and how many they are. */
export interface LaidUnit {
  readonly gpc: Gpc;
  readonly at: number;
  readonly size: number;
}

/** First places at which a spelling stands in a word, given as its correspondences; a unit of a school's own where all its parts follow one another. */
export function placesIn(gpcs: readonly Gpc[], gpc: Gpc): readonly number[] {
  const parts = partsOf(gpc);
  const found: number[] = [];
  for (let at = 0; at + parts.length <= gpcs.length; at++)
    if (parts.every((part, place) => gpcs[at + place] === part)) found.push(at);
  return found;
}

/** Whether a word has a spelling, or a unit of a school's own. @example holds(units of *pink*, "n+k=ng+k") // true */
export function holds(units: readonly { readonly gpc: Gpc }[], gpc: Gpc): boolean {
  if (!isOwnUnit(gpc)) return units.some((unit) => unit.gpc === gpc);
  return placesIn(gpcsOf(units), gpc).length > 0;
}

/** Whether a word has one of these, each a spelling or a unit of a school's own. */
export function holdsAny(units: readonly { readonly gpc: Gpc }[], wished: ReadonlySet<Gpc>): boolean {
  return units.some((unit) => wished.has(unit.gpc)) || ownUnitsIn(wished).some((gpc) => holds(units, gpc));
}

const gpcsOf = (units: readonly { readonly gpc: Gpc }[]) => units.map(({ gpc }) => gpc);

/** The units of a school's own that lie over a word, from its start; they may overlap. */
export function laidOn(gpcs: readonly Gpc[], own: readonly Gpc[]): readonly LaidUnit[] {
  if (own.length === 0) return [];
  return own
    .flatMap((gpc) => {
      const size = partsOf(gpc).length;
      return placesIn(gpcs, gpc).map((at) => ({ gpc, at, size }));
    })
    .sort((one, other) => one.at - other.at || other.size - one.size);
}

/**
 * A word by its correspondences with each unit of a school's own in the place of its parts, the longer before the shorter.
 * @example asTaught(["p=p", "i=i", "n=ng", "k=k"], ["n+k=ng+k"]) // ["p=p", "i=i", "n+k=ng+k"]
 */
export function asTaught(gpcs: readonly Gpc[], own: readonly Gpc[]): readonly Gpc[] {
  const laid = laidOn(gpcs, own);
  if (laid.length === 0) return gpcs;
  const found: Gpc[] = [];
  for (let at = 0; at < gpcs.length; ) {
    const unit = laid.find((one) => one.at === at);
    found.push(unit?.gpc ?? (gpcs[at] as Gpc));
    at += unit?.size ?? 1;
  }
  return found;
}

const known = new WeakMap<ReadonlySet<Gpc>, readonly Gpc[]>();

/** The units of a school's own in a set of spellings, looked for once. */
export function ownUnitsIn(set: ReadonlySet<Gpc>): readonly Gpc[] {
  const before = known.get(set);
  if (before) return before;
  const found = [...set].filter(isOwnUnit);
  known.set(set, found);
  return found;
}

/**
 * The places of a word that stand in the way of whoever reads `readable`: those that are not in it, and lie under no unit of a
 * school's own that is.
 */
export function unread(gpcs: readonly Gpc[], readable: ReadonlySet<Gpc>): readonly number[] {
  const missing = gpcs.flatMap((gpc, at) => (readable.has(gpc) ? [] : [at]));
  const units = missing.length > 0 ? laidOn(gpcs, ownUnitsIn(readable)) : [];
  return units.length === 0
    ? missing
    : missing.filter((place) => !units.some(({ at, size }) => place >= at && place < at + size));
}

/** The lexicon with the units of a school's own laid over the splits of its words, which stay as they are. */
export function withOwnUnits(lexicon: Lexicon, own: readonly Gpc[]): Lexicon {
  if (own.length === 0) return lexicon;
  return lexiconOf(lexicon.each, lexicon.find, [...new Set(own)].sort());
}

/** What a unit of a school's own finds in words. */
export interface UnitInWords {
  /** Plain words on offer that have it, the commonest first. */
  readonly having: readonly Word[];
  /** Those that have its letters, split otherwise: there it does not lie. */
  readonly otherwise: readonly Word[];
}

const PLAIN = /^[a-z]+$/;

/** The words that have a unit of a school's own, and those in which its letters are split otherwise: *st* in *castle*. */
export function wordsOfUnit(gpc: Gpc, lexicon: Lexicon): UnitInWords {
  const letters = plainLetters(splitGpc(gpc).grapheme);
  const all = lexicon.words.filter(({ text }) => PLAIN.test(text) && text.includes(letters));
  const byBand = all.toSorted((one, other) => one.band - other.band || (one.rank ?? 1e6) - (other.rank ?? 1e6));
  const has = (word: Word) => lexicon.find(word.text).some(({ units: its }) => holds(its, gpc));
  return { having: byBand.filter(has), otherwise: byBand.filter((word) => !has(word)) };
}

/** The units of a school's own whose letters a split of a word cuts otherwise. */
export function cutBy(text: string, gpcs: readonly Gpc[], its: readonly Gpc[]): readonly Gpc[] {
  return its.filter(
    (gpc) => text.toLowerCase().includes(plainLetters(splitGpc(gpc).grapheme)) && placesIn(gpcs, gpc).length === 0,
  );
}
