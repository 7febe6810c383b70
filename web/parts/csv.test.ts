import Papa from "papaparse";
import { expect, test } from "vitest";
import { unguarded } from "#core/roster";
import { csvOf } from "./csv.ts";

test("no cell is a formula, and what was written is read back as it was", () => {
  const cells = ["=1+1", "+44", "-2", "@sum", "\tx", "'=1", "''-x", "plain", "it's", "a,b", 'say "no"', "two\nlines"];
  const text = csvOf([["name"], ...cells.map((cell) => [cell])]);
  expect(text.startsWith("\uFEFF")).toBe(true);
  const read = Papa.parse<string[]>(text.slice(1), { skipEmptyLines: true }).data.map(([cell = ""]) => cell);
  expect(read.slice(1).every((cell) => !/^[=+\-@\t\r]/.test(cell))).toBe(true);
  expect(read.slice(1).map(unguarded)).toEqual(cells);
});

test("records have their keys as the first line", () => {
  expect(csvOf([{ child: "Ada M.", day: "2026-11-20" }])).toBe("\uFEFFchild,day\r\nAda M.,2026-11-20\r\n");
});
