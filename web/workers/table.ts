import Papa from "papaparse";
import type { RosterRow } from "#core/roster";

const MOST_CHARACTERS = 4_000_000;

/**
 * Text of a table, with commas, semicolons or tabs, quoted fields, any line end, with or without BOM. The
 * separator is the one that the first line has most of. `trouble` says what hangs wrong as a whole.
 */
export function readTable(text: string): { rows: RosterRow[]; trouble: string | null } {
  const clean = text.replace(/^\uFEFF/, "");
  if (clean.length > MOST_CHARACTERS)
    return {
      rows: [],
      trouble: "This is longer than any class list. Nothing was read; paste the list of children alone.",
    };
  const first = clean.slice(0, clean.search(/[\r\n]|$/));
  const delimiter =
    [...["\t", ";", ","]].sort((one, other) => first.split(other).length - first.split(one).length)[0] ?? ",";
  const { data, errors } = Papa.parse<string[]>(clean, { delimiter, skipEmptyLines: false });
  const open = errors.find((error) => error.code === "MissingQuotes");
  const rows = data.map((cells, at) => ({ line: at + 1, cells }));
  return {
    rows,
    trouble: open
      ? `A quotation mark that opens on line ${(open.row ?? 0) + 1} is not closed, so the lines after it hang together.`
      : null,
  };
}
