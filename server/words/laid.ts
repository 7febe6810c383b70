import { LRUCache } from "lru-cache";
import type { OwnSplit } from "#contract";
import type { Gpc } from "#core/phonics";
import { type Lexicon, type OwnAge, ownEntry, withOwnAges, withOwnSplits, withOwnUnits } from "#core/words";

/** A word as a school splits it. */
type OwnWord = Pick<OwnSplit, "text" | "units">;

/** What a school says of words, beside those that ship. */
interface Own {
  readonly own: readonly OwnWord[];
  readonly ages: readonly OwnAge[];
  /** Letters that it teaches as one. */
  readonly units: readonly Gpc[];
}

/** The lexicon that ships with a school's own splits and ages laid over it, and over these what it teaches as one. */
export function laidOver(shipped: Lexicon, { own, ages, units }: Own): Lexicon {
  const entries = own.map(({ text, units: its }) => ownEntry(text, its));
  return withOwnUnits(withOwnAges(withOwnSplits(shipped, entries), ages), units);
}

/** A school's words as they are sent to another thread, which has those that ship. */
export interface SentWords extends Own {
  /** Another for each state of each school's words. */
  readonly version: string;
}

/** Of so many schools a thread keeps the words. */
const MOST_SCHOOLS = 10;
const laid = new LRUCache<string, Lexicon>({ max: MOST_SCHOOLS });

/** The lexicon of a school on the thread that was sent its words; laid once and kept. */
export function lexiconOf(shipped: Lexicon, sent: SentWords): Lexicon {
  const lexicon = laid.get(sent.version) ?? laidOver(shipped, sent);
  laid.set(sent.version, lexicon);
  return lexicon;
}
