import type { Gpc } from "#core/phonics";
import { keyOf, type Lexicon, wordsOf } from "#core/words";
import { chanceOf } from "./worth.ts";

/** A text with the units of its words, each word once with how often it stands there. */
export interface ShelfText {
  readonly id: string;
  readonly words: readonly { readonly key: string; readonly gpcs: readonly Gpc[]; readonly times: number }[];
  readonly length: number;
}

/** So large a share of the running words has to come right for a text to be read alone. */
const READABLE = 0.9;
/** A word that is known as a whole. */
const AS_A_WHOLE = 0.95;

/** A text as worth looks at it; a word that the lexicon does not know counts for no spelling. */
export function shelfText(id: string, text: string, lexicon: Lexicon): ShelfText {
  const counts = new Map<string, number>();
  for (const { text: word } of wordsOf(text)) counts.set(keyOf(word), (counts.get(keyOf(word)) ?? 0) + 1);
  const words = [...counts].map(([key, times]) => ({
    ...{ key, times },
    gpcs: (lexicon.find(key)[0]?.units ?? []).filter(({ sound }) => sound !== "").map(({ gpc }) => gpc),
  }));
  return { id, words, length: words.reduce((sum, { times }) => sum + times, 0) };
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
  for (const { id, words, length } of shelf) {
    if (length === 0) continue;
    let right = 0;
    const gains = new Map<Gpc, number>();
    for (const { key, gpcs, times } of words) {
      if (wholes.has(key)) {
        right += AS_A_WHOLE * times;
        continue;
      }
      const all = gpcs.reduce((product, gpc) => product * known(gpc), 1);
      right += all * times;
      for (const gpc of new Set(gpcs)) {
        const its = known(gpc) ** gpcs.filter((one) => one === gpc).length;
        gains.set(gpc, (gains.get(gpc) ?? 0) + times * (all / its) * (1 - its));
      }
    }
    if (right >= READABLE * length) continue;
    for (const [gpc, gain] of gains)
      if (right + gain >= READABLE * length) opened.set(gpc, [...(opened.get(gpc) ?? []), id]);
  }
  return opened;
}
