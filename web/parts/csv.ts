import Papa from "papaparse";

/** What a spreadsheet would take for a formula, also behind apostrophes that guard one already. */
const FORMULA = /^'*[=+\-@\t\r]/;

type Cell = string | number;

/**
 * The one way to CSV: with the mark that makes spreadsheets read it as UTF-8, and an apostrophe before every cell that
 * they would take for a formula. Rows are lists, or records whose keys are the first line.
 */
export function csvOf(rows: readonly (readonly Cell[])[] | readonly Readonly<Record<string, Cell>>[]): string {
  return `\uFEFF${Papa.unparse([...rows] as unknown[], { escapeFormulae: FORMULA })}\r\n`;
}
