import { keyOf, type Lexicon } from "./lexicon.ts";
import { split } from "./split.ts";

/** What a word means, said of the word itself or of the one that it is a form of. */
export interface Meaning {
  /** The word of which it is said: *bough* for *boughs*. */
  readonly word: string;
  readonly means: string;
}

/**
 * What a word means, in words that a child can be told; of a form what its base means.
 * @param meanings by word, in small letters
 * @returns undefined where no one has said it
 */
export function meaningFor(
  text: string,
  { meanings, lexicon }: { readonly meanings: Readonly<Record<string, string>>; readonly lexicon: Lexicon },
): Meaning | undefined {
  const said = (word: string): Meaning | undefined =>
    Object.hasOwn(meanings, keyOf(word)) ? { word, means: meanings[keyOf(word)] ?? "" } : undefined;
  const own = said(text);
  if (own) return own;
  const parts = split(text, { lexicon })[0]?.morphemes;
  return parts && parts.parts.length === 1 && keyOf(parts.base) !== keyOf(text) ? said(parts.base) : undefined;
}

/** A meaning as it is said after the word: *to soak up*; of a form *bough: a big branch*. */
export function showMeaning(text: string, { word, means }: Meaning): string {
  return keyOf(word) === keyOf(text) ? means : `${word}: ${means}`;
}
