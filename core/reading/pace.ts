import { type Reading, textWords } from "./marks.ts";

/** How fast one sentence was read. */
export interface SentenceTime {
  /** The sentence, counted from 0, and its first words. */
  readonly sentence: number;
  readonly begins: string;
  /** Words of it that were reached. */
  readonly words: number;
  readonly ms: number;
  readonly perMinute: number;
}

interface Point {
  /** Words read by then. */
  readonly words: number;
  readonly ms: number;
}

/**
 * Pace along the text, sentence by sentence, from the times that a marked reading has: its start and end, each turn of
 * a line, and each mark that was given while the clock ran (given when its word had been read). Between two such times
 * words are taken to come evenly. Empty without a time, or when nothing between start and end was timed, since then
 * every sentence would only be given the pace of the whole.
 */
export function paceAlong(reading: Reading): readonly SentenceTime[] {
  const words = textWords(reading.text);
  const reached = Math.min(words.length, reading.stoppedAt === null ? words.length : reading.stoppedAt + 1);
  const points = timesOf(reading, reached);
  if (points.length < 3) return [];
  const found: SentenceTime[] = [];
  for (let from = 0; from < reached; ) {
    const sentence = words[from]?.sentence ?? 0;
    let to = from;
    while (to < reached && words[to]?.sentence === sentence) to++;
    const ms = timeAt(points, to) - timeAt(points, from);
    found.push({
      sentence,
      begins: words
        .slice(from, Math.min(to, from + 3))
        .map((word) => word.text)
        .join(" "),
      words: to - from,
      ms,
      perMinute: ms > 0 ? ((to - from) * 60_000) / ms : 0,
    });
    from = to;
  }
  return found;
}

/** Times in order, each later than the one before and with more words read; a mark given late for an earlier word falls out. */
function timesOf({ marks, turns = [], ms: total }: Reading, reached: number): readonly Point[] {
  if (total === null || !(total > 0) || reached === 0) return [];
  const timed = [
    ...turns.map((turn): Point => ({ words: turn.at, ms: turn.ms })),
    ...marks.flatMap((mark): Point[] => (mark.ms === undefined ? [] : [{ words: mark.at + 1, ms: mark.ms }])),
  ].sort((one, other) => one.ms - other.ms || one.words - other.words);
  const points: Point[] = [{ words: 0, ms: 0 }];
  for (const point of timed) {
    const before = points.at(-1) as Point;
    if (point.words > before.words && point.ms > before.ms && point.words < reached && point.ms < total)
      points.push(point);
  }
  points.push({ words: reached, ms: total });
  return points;
}

/** When so many words had been read. */
function timeAt(points: readonly Point[], words: number): number {
  const after = points.findIndex((point) => point.words >= words);
  const [before, next] = [points[Math.max(0, after - 1)], points[after]];
  if (!before || !next || next.words === before.words) return next?.ms ?? 0;
  return before.ms + ((next.ms - before.ms) * (words - before.words)) / (next.words - before.words);
}
