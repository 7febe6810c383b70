import { wordsOf } from "#core/words";

/**
 * What was heard at one word of a text. A word can have several marks: misread, then put right.
 * - `misread`: another word was said, `heard` when it was noted
 * - `leftOut`: the word was not said; `skipped`: its whole line was
 * - `told`: the adult said it after a wait
 * - `putIn`: a word that the text does not have was said after this one
 * - `putRight`: the child mended it by itself
 * - `sounded`: sounded out, then right; `again`: said again; `waited`: a long stop before it
 * - `ownWay`: said in the child's own way, which is right
 * - `endMark`: the mark that ends the sentence after it was read over
 */
export type MarkKind =
  | "misread"
  | "leftOut"
  | "skipped"
  | "told"
  | "putIn"
  | "putRight"
  | "sounded"
  | "again"
  | "waited"
  | "ownWay"
  | "endMark";

export interface ReadingMark {
  /** Index of the word in the text, from 0. */
  readonly at: number;
  readonly kind: MarkKind;
  /** What was said, with `misread` and `putIn`; null when no one noted it. */
  readonly heard: string | null;
}

/** One reading of a text as it was marked. */
export interface Reading {
  readonly text: string;
  readonly marks: readonly ReadingMark[];
  /** Index of the last word that was reached; null when the text was read to its end. */
  readonly stoppedAt: number | null;
  /** Milliseconds of reading, pauses of the clock taken out; null when no one measured. */
  readonly ms: number | null;
}

/** A word of a text with the sentence and the line that it stands in, both from 0. */
export interface TextWord {
  readonly text: string;
  /** Position of its first letter in the text. */
  readonly at: number;
  readonly sentence: number;
  readonly line: number;
  /** A mark that ends a sentence follows it. */
  readonly endsSentence: boolean;
}

/** The words of a text in order: numbers are words too. A sentence ends with a full stop, question or exclamation mark, or with its line. */
export function textWords(text: string): readonly TextWord[] {
  const words = wordsOf(text);
  let sentence = 0;
  let line = 0;
  return words.map((word, i) => {
    const here = { text: word.text, at: word.at, sentence, line };
    const between = text.slice(word.at + word.text.length, words[i + 1]?.at ?? text.length);
    const endsSentence = /[.?!…]/.test(between);
    const breaks = between.includes("\n");
    if (endsSentence || breaks) sentence++;
    if (breaks) line++;
    return { ...here, endsSentence };
  });
}
