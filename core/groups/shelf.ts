import type { Gpc } from "#core/phonics";
import { asTaught, keyOf, type Lexicon, wordsOf } from "#core/words";
import { chanceOf, gain } from "./worth.ts";

/** A text as worth looks at it: each word once, with how often it stands there and its units as numbers of `gpcs`. */
export interface ShelfText {
  readonly id: string;
  readonly words: readonly { readonly key: string; readonly units: Uint16Array; readonly times: number }[];
  readonly gpcs: readonly Gpc[];
  /** Running words. */
  readonly length: number;
}

/** So large a share of the running words has to come right for a text to be read alone. */
const READABLE = 0.9;
/** A word that is known as a whole. */
const AS_A_WHOLE = 0.95;

/** Takes a text apart; a word that the lexicon does not know counts for no spelling, and as read. */
export function shelfText(id: string, text: string, lexicon: Lexicon): ShelfText {
  const counts = new Map<string, number>();
  for (const { text: word } of wordsOf(text)) counts.set(keyOf(word), (counts.get(keyOf(word)) ?? 0) + 1);
  const numbers = new Map<Gpc, number>();
  const words = [...counts].map(([key, times]) => {
    const units = (lexicon.find(key)[0]?.units ?? []).flatMap(({ gpc, sound }) => (sound === "" ? [] : [gpc]));
    const gpcs = asTaught(units, lexicon.ownUnits);
    for (const gpc of gpcs) if (!numbers.has(gpc)) numbers.set(gpc, numbers.size);
    return { key, times, units: Uint16Array.from(gpcs, (gpc) => numbers.get(gpc) as number) };
  });
  return { id, words, gpcs: [...numbers.keys()], length: words.reduce((sum, { times }) => sum + times, 0) };
}

/** What a child has to read with. */
export interface ShelfReader {
  readonly chances: ReadonlyMap<Gpc, number>;
  /** Exception words that the child was taught, as keys. */
  readonly wholes: ReadonlySet<string>;
}

/**
 * The texts that become readable with one spelling more: those of whose running words nine in ten would come right in the mean
 * if it were sure, and fewer do now.
 * @returns by spelling, ids in the order of the shelf
 */
export function textsOpened(
  shelf: readonly ShelfText[],
  { chances, wholes }: ShelfReader,
): ReadonlyMap<Gpc, readonly string[]> {
  const known = chanceOf(chances);
  const opened = new Map<Gpc, string[]>();
  for (const { id, words, gpcs, length } of shelf) {
    const chance = Float64Array.from(gpcs, known);
    const gains = new Float64Array(gpcs.length);
    let right = 0;
    for (const { key, units, times } of words)
      right += wholes.has(key) ? AS_A_WHOLE * times : gain(units, chance, times, gains);
    if (right >= READABLE * length) continue;
    for (const [at, gpc] of gpcs.entries())
      if (right + (gains[at] as number) >= READABLE * length) opened.set(gpc, [...(opened.get(gpc) ?? []), id]);
  }
  return opened;
}
