import type { ReadingSource } from "./source.ts";

/**
 * What was heard at one word of a text. A word can have several marks: misread, then put right; left out, then put right;
 * sounded out, and then misread; misread, and then told.
 * - `misread`: another word was said, `heard` when it was noted
 * - `leftOut`: the word was not said; `skipped`: its whole line was
 * - `told`: the adult said it after a wait
 * - `putIn`: a word that the text does not have was said after this one, or before the first (`BEFORE_FIRST`)
 * - `putRight`: the child mended it by itself
 * - `sounded`: sounded out, then right; `again`: said again; `waited`: a long stop before it
 * - `ownWay`: said in the child's own way, which is right
 * - `endMark`: the mark that ends the sentence after it was read over
 */
export const readingMarkKinds = [
  "misread",
  "leftOut",
  "skipped",
  "told",
  "putIn",
  "putRight",
  "sounded",
  "again",
  "waited",
  "ownWay",
  "endMark",
] as const;
export type MarkKind = (typeof readingMarkKinds)[number];

/** Where a word stands that was put in before the first one. */
export const BEFORE_FIRST = -1;

export interface ReadingMark {
  /** Index of the word in the text, from 0; `BEFORE_FIRST` for a word put in there. */
  readonly at: number;
  readonly kind: MarkKind;
  /** What was said, with `misread` and `putIn`; null when no one noted it. */
  readonly heard: string | null;
  /** Milliseconds on the clock when it was marked; missing when the clock stood still. */
  readonly ms?: number | undefined;
}

/** A text as one child read it. */
export interface TextRead {
  readonly text: string;
  readonly marks: readonly ReadingMark[];
  /** Index of the last word that was reached; null when the text was read to its end. */
  readonly stoppedAt: number | null;
}

/**
 * A reading is one entry of the log. What it says of each word is worked out from its marks when it is asked
 * (`answersInText` of core/reading), with the splits and the accent of the school as they are then.
 */
export interface TextEntry {
  readonly id: string;
  readonly childId: string;
  readonly markedAt: string;
  readonly day: string;
  readonly markedBy: string;
  readonly outcome: "reading";
  readonly source: ReadingSource;
  readonly reading: TextRead;
}
