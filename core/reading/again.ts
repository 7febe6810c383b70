import { keyOf } from "#core/words";
import { type Reading, textWords } from "./marks.ts";
import { type ReadingScore, scoreReading } from "./score.ts";

/** What a later reading of a text won over an earlier one. */
export interface Won {
  /** Words correct per minute more than before; null where one of them has no time. */
  readonly perMinute: number | null;
  /** Points of accuracy more than before; null where one of them has no word. */
  readonly accuracy: number | null;
  /** Words that stopped before and come right now, and those that stop still; each once, in small letters. */
  readonly mended: readonly string[];
  readonly still: readonly string[];
}

/**
 * Lays two readings of a text side by side. Words are compared by what they are, not by where they stand, so that a
 * text that was changed in between can be compared too; a word that comes right in one place and stops in another stops.
 */
export function wonSince(before: Reading, now: Reading): Won {
  const [earlier, later] = [scoreReading(before), scoreReading(now)];
  const stopped = stoppedWords(before, earlier);
  const stops = new Set(stoppedWords(now, later));
  const reached = new Set(
    textWords(now.text).flatMap((word, at) => (later.words[at] === "notReached" ? [] : [keyOf(word.text)])),
  );
  const more = (one: number | null, other: number | null) => (one === null || other === null ? null : other - one);
  return {
    perMinute: more(earlier.correctPerMinute, later.correctPerMinute),
    accuracy: more(earlier.accuracy, later.accuracy),
    mended: stopped.filter((word) => reached.has(word) && !stops.has(word)),
    still: stopped.filter((word) => stops.has(word)),
  };
}

/** Words that did not come out right, each once, in small letters, in the order of the text. */
export function stoppedWords(
  { text }: Pick<Reading, "text">,
  { words }: Pick<ReadingScore, "words">,
): readonly string[] {
  const all = textWords(text);
  const stopped = words.flatMap((result, at) =>
    result === "right" || result === "notReached" ? [] : [keyOf(all[at]?.text ?? "")],
  );
  return [...new Set(stopped)];
}
