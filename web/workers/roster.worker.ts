import { expose } from "comlink";
import Papa from "papaparse";
import { type CheckedRow, checkRoster, type RosterRow, type RosterWanted } from "#core/roster";

export interface RosterRead {
  readonly rows: readonly CheckedRow[];
  /** What was wrong with the file as a whole, if anything. */
  readonly trouble: string | null;
}

const MOST_CHARACTERS = 4_000_000;

/** Text of a table, with commas, semicolons or tabs, quoted fields, any line end, with or without BOM. */
function readTable(text: string): { rows: RosterRow[]; trouble: string | null } {
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

const worker = {
  read(text: string, wanted: Omit<RosterWanted, "rows">): RosterRead {
    const { rows, trouble } = readTable(text);
    return { rows: checkRoster({ ...wanted, rows }), trouble };
  },
};
export type RosterWorker = typeof worker;
expose(worker);
