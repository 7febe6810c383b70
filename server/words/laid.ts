import { LRUCache } from "lru-cache";
import type { OwnSplit } from "#contract";
import { type Lexicon, ownEntry, withOwnSplits } from "#core/words";

/** A word as a school splits it. */
type OwnWord = Pick<OwnSplit, "text" | "units">;

/** The lexicon that ships with a school's own splits laid over it. */
export function laidOver(shipped: Lexicon, own: readonly OwnWord[]): Lexicon {
  return own.length === 0
    ? shipped
    : withOwnSplits(
        shipped,
        own.map(({ text, units }) => ownEntry(text, units)),
      );
}

/** A school's words as they are sent to another thread, which has those that ship. */
export interface SentWords {
  /** Another for each state of each school's words. */
  readonly version: string;
  readonly own: readonly OwnWord[];
}

/** Of so many schools a thread keeps the words. */
const MOST_SCHOOLS = 10;
const laid = new LRUCache<string, Lexicon>({ max: MOST_SCHOOLS });

/** The lexicon of a school on the thread that was sent its words; laid once and kept. */
export function lexiconOf(shipped: Lexicon, { version, own }: SentWords): Lexicon {
  const lexicon = laid.get(version) ?? laidOver(shipped, own);
  laid.set(version, lexicon);
  return lexicon;
}
