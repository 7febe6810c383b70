import Papa from "papaparse";
import { choicesOnSheet, type SetupOf, type SheetChoice } from "#core/checks";
import { unguarded } from "#core/roster";

/** What was ringed in one place of the grid: a choice by its number from 1, nothing, or two at once. */
export type Ringed = number | "blank" | "doubled";

/** A sheet as the grid needs it: who, and what stands where on this child's paper. */
export interface GridRow {
  readonly childId: string;
  readonly name: string;
  readonly items: readonly string[];
  readonly setup: Pick<SetupOf<"paper">, "sheet" | "version">;
}

export interface GridRead {
  readonly cells: readonly { readonly childId: string; readonly item: string; readonly ringed: Ringed }[];
  /** What could not be taken, each with its line. */
  readonly problems: readonly string[];
}

const BLANK = new Set(["", "-", "0", "blank"]);
const DOUBLED = new Set(["x", "2x", "doubled", "two"]);

/** The grid as rows of CSV: a line a child, a column an item, the ringed word in it; `blank` and `doubled` as such. */
export function writeGrid(
  rows: readonly GridRow[],
  show: (item: string) => string,
  ringedIn: (childId: string, item: string) => Ringed | undefined,
): readonly (readonly string[])[] {
  const items = rows[0]?.items ?? [];
  const table = rows.map((row) => [
    row.name,
    ...items.map((item) => {
      const ringed = ringedIn(row.childId, item);
      if (ringed === undefined) return "";
      return typeof ringed === "number" ? (choicesOnSheet(item, row.setup)[ringed - 1]?.text ?? "") : ringed;
    }),
  ]);
  return [["child", ...items.map(show)], ...table];
}

/**
 * Reads a grid back: columns by their heading in any order, children by name, what was ringed as the word, as its
 * number on that child's sheet, `blank` or `doubled`. An empty place is left as it is. Bad places are told and left out.
 */
export function readGrid(text: string, rows: readonly GridRow[], show: (item: string) => string): GridRead {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, "").trim(), { skipEmptyLines: true });
  const [head = [], ...lines] = data;
  const problems: string[] = [];
  const same = (one: string, other: string) => one.trim().toLowerCase() === other.trim().toLowerCase();
  const columns = head.slice(1).map((title) => (rows[0]?.items ?? []).find((item) => same(show(item), title)));
  for (const [at, item] of columns.entries())
    if (item === undefined) problems.push(`Column “${head[at + 1]}” is no item of this sheet.`);
  const cells = lines.flatMap((line, lineAt) => {
    const row = rows.find((one) => same(one.name, unguarded(line[0] ?? "")));
    if (!row) {
      problems.push(`Line ${lineAt + 2}: “${line[0] ?? ""}” is not in this check.`);
      return [];
    }
    return columns.flatMap((item, at) => {
      const typed = unguarded((line[at + 1] ?? "").trim());
      if (item === undefined || typed === "") return [];
      const ringed = readCell(typed, choicesOnSheet(item, row.setup));
      if (ringed !== undefined) return [{ childId: row.childId, item, ringed }];
      problems.push(`Line ${lineAt + 2}: “${typed}” is no choice for ${show(item)}.`);
      return [];
    });
  });
  return { cells, problems };
}

function readCell(typed: string, choices: readonly SheetChoice[]): Ringed | undefined {
  const text = typed.toLowerCase();
  if (BLANK.has(text)) return "blank";
  if (DOUBLED.has(text)) return "doubled";
  const number = Number(text);
  if (Number.isInteger(number) && number >= 1 && number <= choices.length) return number;
  const at = choices.findIndex((choice) => choice.text.toLowerCase() === text);
  return at < 0 ? undefined : at + 1;
}
