import { Kept } from "./kept.ts";
import { readEntry, type Word, writeEntry } from "./lexicon.ts";
import { spellOut, type Unit } from "./units.ts";

/** A word as it is asked, taken from its item. */
export interface ReadWord {
  readonly text: string;
  readonly units: readonly Unit[];
  readonly joints: readonly number[];
  readonly stressed: number;
  readonly madeUp: boolean;
}

/** A word as an item: its entry in the lexicon's notation, `s t o p`; a made-up one begins with `?`. */
export function wordItem(word: Pick<Word, "text" | "units"> & Partial<Word>, madeUp = false): string {
  const { text, units, joints = [], stressed = -1 } = word;
  const unmarked = { band: 5, corrected: false, knownBy: 12, drawn: false } as const;
  const entry = writeEntry({ text, units, joints, stressed, ...unmarked });
  const shown = text === spellOut(units) ? entry.split("|")[0] : entry;
  return `${madeUp ? "?" : ""}${shown}`;
}

const MOST_READ = 20_000;
const read = new Kept<string, ReadWord>(MOST_READ);

/** The inverse of `wordItem`. Throws when a unit is no correspondence. */
export function readWordItem(item: string): ReadWord {
  return read.of(item, () => {
    const madeUp = item.startsWith("?");
    const { text, units, joints, stressed } = readEntry(madeUp ? item.slice(1) : item);
    return { text, units, joints, stressed, madeUp };
  });
}

/** True for a word in its units, as a check keeps it. */
export function isWordItem(item: string): boolean {
  try {
    return readWordItem(item).units.length > 0;
  } catch {
    return false;
  }
}
