import {
  type MarkKind,
  marksThatCount,
  type Reading,
  type ReadingMark,
  type TextWord,
  textWords,
  wordsReached,
} from "./marks.ts";

/** How one word of the text came out. `right` holds what was put right and what was said in the child's own way. */
export type WordResult = "right" | "misread" | "leftOut" | "told" | "notReached";

export interface SentencePace {
  readonly words: number;
  readonly correct: number;
  /** Marks in it that slowed the reading down: told, sounded out, said again, waited, put right. */
  readonly hesitations: number;
}

export interface ReadingScore {
  /** Words of the text that were reached; words put in are not among them, those left out are. */
  readonly wordsRead: number;
  /** Words read that came out right, put right ones among them. */
  readonly wordsCorrect: number;
  /** Misread, left out and told words, and words put in. */
  readonly errors: number;
  /** Share of words read that came out right, 0 to 100; null when no word was read. */
  readonly accuracy: number | null;
  /** Words correct in a minute; null without a time above zero. */
  readonly correctPerMinute: number | null;
  /** Errors in a hundred words read; null when no word was read. */
  readonly errorsPerHundred: number | null;
  /** Words that went wrong at first and that the child mended by itself. */
  readonly mended: number;
  /** Share of mistakes at words that the child mended by itself, 0 to 100; null when there was none. */
  readonly selfCorrection: number | null;
  readonly kinds: Readonly<Record<MarkKind, number>>;
  /** By word of the text. */
  readonly words: readonly WordResult[];
  /** By sentence, for all that were begun. */
  readonly sentences: readonly SentencePace[];
  /** Words that were waited for, sounded out, said again or told. */
  readonly hesitations: number;
}

const MINUTE = 60_000;

/**
 * Counts one reading. All figures follow from four: words read, words correct, errors and time.
 * - words read: from the first word to the one where reading stopped, whichever way they came out
 * - a word is wrong when it was skipped or told, or misread or left out and not put right; it is wrong once
 * - errors = wrong words + words put in
 * - accuracy = words correct / words read; words correct per minute = words correct / minutes
 * - errors per hundred = errors × 100 / words read; self-correction = put right / (put right + wrong words)
 *
 * Marks behind the stop, and marks at no word of the text, do not count. Figures are not rounded.
 */
export function scoreReading(reading: Reading): ReadingScore {
  const { text, ms } = reading;
  const all = textWords(text);
  const reached = wordsReached(reading, all.length);
  const counted = marksThatCount(reading, all.length);
  const byWord = new Map<number, MarkKind[]>();
  for (const { at, kind } of counted) byWord.set(at, [...(byWord.get(at) ?? []), kind]);
  const words = all.map((_, at): WordResult => (at < reached ? resultOf(byWord.get(at) ?? []) : "notReached"));
  const wordsRead = reached;
  const wordsCorrect = words.filter((word) => word === "right").length;
  const wrong = wordsRead - wordsCorrect;
  const kinds = countKinds(counted);
  const errors = wrong + kinds.putIn;
  const mended = [...byWord.values()].filter(
    (list) => list.includes("putRight") && resultOf(list) === "right",
  ).length;
  const minutes = ms === null || !(ms > 0) ? null : ms / MINUTE;
  const share = (part: number, of: number) => (of === 0 ? null : (part * 100) / of);
  return {
    wordsRead,
    wordsCorrect,
    errors,
    accuracy: share(wordsCorrect, wordsRead),
    correctPerMinute: minutes === null ? null : wordsCorrect / minutes,
    errorsPerHundred: share(errors, wordsRead),
    mended,
    selfCorrection: share(mended, mended + wrong),
    kinds,
    words,
    sentences: bySentence(all.slice(0, reached), words, byWord),
    hesitations: [...byWord.values()].filter((list) => list.some(slows)).length,
  };
}

function resultOf(kinds: readonly MarkKind[]): WordResult {
  if (kinds.includes("told")) return "told";
  if (kinds.includes("skipped") || (kinds.includes("leftOut") && !kinds.includes("putRight"))) return "leftOut";
  if (kinds.includes("misread") && !kinds.includes("putRight")) return "misread";
  return "right";
}

function slows(kind: MarkKind): boolean {
  return ["told", "sounded", "again", "waited"].includes(kind);
}

const none: Readonly<Record<MarkKind, number>> = {
  misread: 0,
  leftOut: 0,
  skipped: 0,
  told: 0,
  putIn: 0,
  putRight: 0,
  sounded: 0,
  again: 0,
  waited: 0,
  ownWay: 0,
  endMark: 0,
};

/** How often each mark was given; the same mark twice at a word counts once, but for words put in. */
function countKinds(marks: readonly ReadingMark[]): Readonly<Record<MarkKind, number>> {
  const seen = new Set<string>();
  const counts = { ...none };
  for (const { at, kind } of marks) {
    if (kind !== "putIn" && seen.has(`${at} ${kind}`)) continue;
    seen.add(`${at} ${kind}`);
    counts[kind]++;
  }
  return counts;
}

function bySentence(
  reached: readonly TextWord[],
  results: readonly WordResult[],
  byWord: ReadonlyMap<number, readonly MarkKind[]>,
): readonly SentencePace[] {
  const found: SentencePace[] = [];
  for (const [at, { sentence }] of reached.entries()) {
    const { words, correct, hesitations } = found[sentence] ?? { words: 0, correct: 0, hesitations: 0 };
    const slow = byWord.get(at)?.some((kind) => slows(kind) || kind === "putRight") ? 1 : 0;
    found[sentence] = {
      words: words + 1,
      correct: correct + (results[at] === "right" ? 1 : 0),
      hesitations: hesitations + slow,
    };
  }
  return found;
}
