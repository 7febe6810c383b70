import type { ReadingFigures } from "#contract";

/** One line a reading, the newest first; empty where nothing was measured. */
export function readingsRows(figures: readonly ReadingFigures[]): readonly Readonly<Record<string, string>>[] {
  const figure = (value: number | null) => (value === null ? "" : value.toFixed(1));
  return figures.map((one) => ({
    child: one.name,
    day: one.day,
    text: one.title,
    how: one.how,
    correctPerMinute: figure(one.correctPerMinute),
    accuracy: figure(one.accuracy),
    fit: figure(one.fit === null ? null : one.fit * 100),
  }));
}
