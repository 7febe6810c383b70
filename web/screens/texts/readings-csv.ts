import Papa from "papaparse";
import type { ReadingFigures } from "#contract";

/** One line a reading, the newest first; empty where nothing was measured. */
export function readingsCsv(figures: readonly ReadingFigures[]): string {
  const figure = (value: number | null) => (value === null ? "" : value.toFixed(1));
  return Papa.unparse(
    figures.map((one) => ({
      child: one.name,
      day: one.day,
      text: one.title,
      how: one.how,
      correctPerMinute: figure(one.correctPerMinute),
      accuracy: figure(one.accuracy),
      fit: figure(one.fit === null ? null : one.fit * 100),
    })),
    { escapeFormulae: true },
  );
}
