import { BEFORE_FIRST, type ReadingMark } from "#core/ledger";
import { wordsOf } from "#core/words";

export { BEFORE_FIRST, type MarkKind, type ReadingMark } from "#core/ledger";

/** The word with which a line came up on the child's face, and when on the clock. */
export interface LineTurn {
  readonly at: number;
  readonly ms: number;
}

/** One reading of a text as it was marked. */
export interface Reading {
  readonly text: string;
  readonly marks: readonly ReadingMark[];
  /** Index of the last word that was reached; null when the text was read to its end. */
  readonly stoppedAt: number | null;
  /** Milliseconds of reading, pauses of the clock taken out; null when no one measured. */
  readonly ms: number | null;
  /** When lines were turned, for a text that was shown line by line. */
  readonly turns?: readonly LineTurn[] | undefined;
}

/** How many words of a text were reached: those up to the one where reading stopped. */
export function wordsReached({ stoppedAt }: Pick<Reading, "stoppedAt">, words: number): number {
  return Math.min(words, stoppedAt === null ? words : Math.max(0, stoppedAt + 1));
}

/**
 * The marks that count: those at a word of the text that was reached. Someone who stops a reading a line back leaves
 * marks behind the stop; they are kept with the reading, and say nothing.
 */
export function marksThatCount(reading: Reading, words: number): readonly ReadingMark[] {
  const reached = wordsReached(reading, words);
  return reading.marks.filter(
    ({ at, kind }) => Number.isInteger(at) && at >= (kind === "putIn" ? BEFORE_FIRST : 0) && at < reached,
  );
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

/** A word as it is set on a page: with what opens before it, a quotation mark for example, and what stands between it and the next. */
export interface SetWord {
  readonly text: string;
  readonly opens: string;
  readonly after: string;
}

/** The words of a text as they are set: put one behind the other they are the text again. */
export function setWords(text: string): readonly SetWord[] {
  const words = textWords(text);
  const endOf = (at: number) => (words[at]?.at ?? 0) + (words[at]?.text.length ?? 0);
  const openingOf = (between: string) => /\S*$/.exec(between)?.[0] ?? "";
  return words.map((word, at) => {
    const next = words[at + 1];
    const before = text.slice(at === 0 ? 0 : endOf(at - 1), word.at);
    const between = text.slice(endOf(at), next?.at);
    const after = next ? between.slice(0, between.length - openingOf(between).length) : between;
    return { text: word.text, opens: at === 0 ? before : openingOf(before), after };
  });
}

/**
 * A text in the pieces in which it is shown: each sentence in a line of its own, paragraphs apart. Words and their
 * order stay, so that marks stay with their words.
 */
export function sentenceLines(text: string): string {
  const words = textWords(text);
  let shown = "";
  let from = 0;
  for (const [at, word] of words.entries()) {
    const next = words[at + 1];
    if (!next) break;
    if (!word.endsSentence || next.sentence === word.sentence) continue;
    // What closes a sentence stays with it; what opens the next one goes with that.
    const between = text.slice(word.at + word.text.length, next.at);
    const gap = between.search(/\s/);
    if (gap < 0 || /\n/.test(between)) continue;
    const cut = word.at + word.text.length + gap;
    shown += `${text.slice(from, cut)}\n`;
    from = cut + (/^\s+/.exec(text.slice(cut))?.[0].length ?? 0);
  }
  return shown + text.slice(from);
}

/** The lines of a text that have words, each with the index of its first word. */
export function linesOf(text: string): readonly { readonly text: string; readonly at: number }[] {
  let words = 0;
  return text.split("\n").flatMap((line) => {
    const at = words;
    words += wordsOf(line).length;
    return words > at ? [{ text: line.trim(), at }] : [];
  });
}

/**
 * The words of a text in order: numbers are words too. A sentence ends with its line, or
 * with a full stop, question or exclamation mark that no small letter follows. The same texts are read by many children: those
 * taken apart last are kept.
 */
export function textWords(text: string): readonly TextWord[] {
  const before = taken.get(text);
  if (before) return before;
  const made = takeApart(text);
  if (taken.size >= MOST_TAKEN) taken.clear();
  taken.set(text, made);
  return made;
}

const MOST_TAKEN = 300;
const taken = new Map<string, readonly TextWord[]>();

function takeApart(text: string): readonly TextWord[] {
  const words = wordsOf(text);
  let sentence = 0;
  let line = 0;
  return words.map((word, i) => {
    const here = { text: word.text, at: word.at, sentence, line };
    const between = text.slice(word.at + word.text.length, words[i + 1]?.at ?? text.length);
    const endsSentence = /[.?!…]/.test(between);
    const breaks = between.includes("\n");
    // “When?” said Cole. is one sentence.
    const goesOn = /^\p{Ll}/u.test(words[i + 1]?.text ?? "");
    if ((endsSentence && !goesOn) || breaks) sentence++;
    if (breaks) line++;
    return { ...here, endsSentence };
  });
}
