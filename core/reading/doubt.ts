import { plural } from "#core/saying";
import type { Reading } from "./marks.ts";
import { scoreReading } from "./score.ts";

/** Starting values, without a study behind them: what a person with a stopwatch would look at twice. */
export const doubtAt = {
  /** A clock that ran for less, in milliseconds, was most likely stopped by mistake. */
  shorterThan: 3_000,
  /** Words a minute, whichever way they came out: people who talk fast say about 200 aloud. */
  fasterThan: 300,
} as const;

/**
 * Why the time of a reading can hardly be right, in a sentence for the person who is about to keep it; null when it can,
 * or when there is no time.
 */
export function doubtfulTime(reading: Reading): string | null {
  const { ms } = reading;
  if (ms === null) return null;
  const { wordsRead } = scoreReading(reading);
  const seconds = Math.max(0.1, ms / 1000);
  const took = `${plural(wordsRead, "word")} in ${seconds < 10 ? seconds.toFixed(1) : Math.round(seconds)} seconds`;
  const rate = Math.round((wordsRead * 60) / seconds);
  if (rate > doubtAt.fasterThan)
    return `${took} is ${rate.toLocaleString("en-GB")} words a minute, faster than anyone reads aloud.`;
  if (ms < doubtAt.shorterThan) return `The clock ran for ${seconds.toFixed(1)} seconds only: ${took}.`;
  return null;
}
