import type { Gaps } from "#contract";
import { alikeOrder, cellAt, type State } from "#core/mastery";
import { ipa, showGrapheme, splitGpc } from "#core/phonics";

export type SortBy = "name" | "alike" | "gaps" | "doubt";

export interface GapFilter {
  /** A step, or a teaching point as `point:` and its first spelling; empty shows all. */
  readonly step: string;
  readonly state: State | "";
  readonly sort: SortBy;
  /** Leave out columns that no one has been taught and no one was asked. */
  readonly onlyTaught: boolean;
  /** For a screen that others see: children are numbered. */
  readonly hideNames: boolean;
}

export interface GapRow {
  readonly id: string;
  readonly name: string;
  readonly classId: string;
  /** One state a shown column, and the chance that it is laid over, 0 to 1. */
  readonly states: readonly State[];
  readonly chances: readonly number[];
  /** Shown columns that are a gap for this child. */
  readonly gaps: number;
}

export interface GapView {
  readonly columns: Gaps["columns"];
  readonly rows: readonly GapRow[];
  /** A column: children for whom it is a gap, and for whom it is secure. */
  readonly sums: readonly { readonly gap: number; readonly secure: number }[];
}

/** The part of the map that the filter asks for, sorted, with its sums. */
export function viewOf(map: Gaps, filter: GapFilter): GapView {
  const stateAt = (cells: string, at: number): State => cellAt(cells, at).state;
  const point = map.points.find(({ gpcs }) => `point:${gpcs[0]}` === filter.step);
  const keep = map.columns.map((column, at) => {
    if (filter.step && !(point ? point.gpcs.includes(column.gpc) : column.stepId === filter.step)) return false;
    if (filter.onlyTaught && map.rows.every((row) => stateAt(row.cells, at) === "not taught")) return false;
    return !filter.state || map.rows.some((row) => stateAt(row.cells, at) === filter.state);
  });
  const at = map.columns.flatMap((_, index) => (keep[index] ? [index] : []));
  const rows = map.rows
    .map((row) => {
      const cells = at.map((index) => cellAt(row.cells, index));
      const states = cells.map((cell) => cell.state);
      return {
        id: row.id,
        name: row.name,
        classId: row.classId,
        states,
        chances: cells.map((cell) => cell.chance),
        gaps: states.filter((state) => state === "gap").length,
      };
    })
    .filter((row) => !filter.state || row.states.includes(filter.state));
  return {
    columns: at.flatMap((index) => map.columns[index] ?? []),
    rows: named(sorted(rows, filter.sort), filter.hideNames),
    sums: at.map((_, column) => ({
      gap: rows.filter((row) => row.states[column] === "gap").length,
      secure: rows.filter((row) => row.states[column] === "secure").length,
    })),
  };
}

/** A column as it is named: a spelling with its sound, or a shape of words. */
export function columnName(gpc: string): { readonly top: string; readonly below: string; readonly name: string } {
  if (!gpc.includes("=")) return { top: gpc, below: "", name: `words as ${gpc}` };
  const { grapheme, sound } = splitGpc(gpc);
  return {
    top: showGrapheme(grapheme),
    below: ipa(sound).replaceAll("/", ""),
    name: `${showGrapheme(grapheme)} ${ipa(sound)}`,
  };
}

function named(rows: readonly GapRow[], hide: boolean): readonly GapRow[] {
  return hide ? rows.map((row, at) => ({ ...row, name: `Child ${at + 1}` })) : rows;
}

function sorted(rows: GapRow[], by: SortBy): readonly GapRow[] {
  if (by === "gaps")
    return [...rows].sort((one, other) => other.gaps - one.gaps || one.name.localeCompare(other.name));
  if (by === "doubt") {
    const doubts = (row: GapRow) => row.states.filter((state) => state === "not sure yet").length;
    return [...rows].sort((one, other) => doubts(other) - doubts(one) || one.name.localeCompare(other.name));
  }
  if (by === "name") return rows;
  return alikeOrder(rows.map((row) => row.states)).flatMap((at) => rows[at] ?? []);
}
