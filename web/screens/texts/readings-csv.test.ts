import Papa from "papaparse";
import { expect, test } from "vitest";
import type { ReadingFigures } from "#contract";
import { csvOf } from "#web/parts/csv.ts";
import { readingsRows } from "./readings-csv.ts";

const one = (change: Partial<ReadingFigures>): ReadingFigures => ({
  id: "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1001",
  childId: "7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f1002",
  name: "Ada M.",
  title: "Mud",
  day: "2026-11-20",
  how: "alone",
  correctPerMinute: 41.26,
  accuracy: 93,
  fit: 0.97,
  ...change,
});
const rows = (figures: readonly ReadingFigures[]) =>
  Papa.parse<Record<string, string>>(csvOf(readingsRows(figures)).slice(1), { header: true, skipEmptyLines: true })
    .data;

test("a line a reading, with its figures", () => {
  expect(rows([one({})])).toEqual([
    {
      child: "Ada M.",
      day: "2026-11-20",
      text: "Mud",
      how: "alone",
      correctPerMinute: "41.3",
      accuracy: "93.0",
      fit: "97.0",
    },
  ]);
});

test("what was not measured is empty, not nought", () => {
  expect(rows([one({ how: "together", correctPerMinute: null, accuracy: null, fit: null })])).toMatchObject([
    { how: "together", correctPerMinute: "", accuracy: "", fit: "" },
  ]);
});

test("a name or a title that a spreadsheet would run stays text", () => {
  expect(rows([one({ name: "=1+1", title: 'Mud, "wet"\nand cold' })])).toMatchObject([
    { child: "'=1+1", text: 'Mud, "wet"\nand cold' },
  ]);
});
