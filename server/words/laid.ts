import { LRUCache } from "lru-cache";
import type { OwnSplit } from "#contract";
import { type Lexicon, type OwnAge, ownEntry, withOwnAges, withOwnSplits } from "#core/words";

/** A word as a school splits it. */
type OwnWord = Pick<OwnSplit, "text" | "units">;

/** The lexicon that ships with a school's own splits and ages laid over it. */
export function laidOver(shipped: Lexicon, own: readonly OwnWord[], ages: readonly OwnAge[]): Lexicon {
  const entries = own.map(({ text, units }) => ownEntry(text, units));
  return withOwnAges(withOwnSplits(shipped, entries), ages);
}

/** A school's words as they are sent to another thread, which has those that ship. */
export interface SentWords {
  /** Another for each state of each school's words. */
  readonly version: string;
  readonly own: readonly OwnWord[];
  readonly ages: readonly OwnAge[];
}

/** Of so many schools a thread keeps the words. */
const MOST_SCHOOLS = 10;
const laid = new LRUCache<string, Lexicon>({ max: MOST_SCHOOLS });

/** The lexicon of a school on the thread that was sent its words; laid once and kept. */
export function lexiconOf(shipped: Lexicon, { version, own, ages }: SentWords): Lexicon {
  const lexicon = laid.get(version) ?? laidOver(shipped, own, ages);
  laid.set(version, lexicon);
  return lexicon;
}
