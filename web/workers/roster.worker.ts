import { expose } from "comlink";
import { type CheckedRow, checkRoster, type RosterWanted } from "#core/roster";
import { readTable } from "./table.ts";

export interface RosterRead {
  readonly rows: readonly CheckedRow[];
  /** What was wrong with the file as a whole, if anything. */
  readonly trouble: string | null;
}

const worker = {
  read(text: string, wanted: Omit<RosterWanted, "rows">): RosterRead {
    const { rows, trouble } = readTable(text);
    return { rows: checkRoster({ ...wanted, rows }), trouble };
  },
};
export type RosterWorker = typeof worker;
expose(worker);
