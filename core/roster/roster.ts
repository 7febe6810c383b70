import { plural } from "#core/saying";
/** A class list as rows of text, before any of it is a child. */
export interface RosterRow {
  /** Line in what was pasted, from 1, the heading included. */
  readonly line: number;
  readonly cells: readonly string[];
}

/** Letters of a child's name at most. */
export const MOST_NAME = 60;
/** Letters of a child's note at most. */
export const MOST_NOTE = 200;
export const rosterColumns = ["name", "class", "note"] as const;
export type RosterColumn = (typeof rosterColumns)[number];

export interface RosterProblem {
  readonly column: RosterColumn | "line";
  readonly says: string;
}

export interface CheckedRow {
  readonly line: number;
  readonly cells: readonly string[];
  readonly name: string;
  readonly className: string;
  readonly note: string;
  readonly problems: readonly RosterProblem[];
}

export interface RosterWanted {
  readonly rows: readonly RosterRow[];
  readonly classNames: readonly string[];
  /** Class for rows that name none; undefined when such rows are refused. */
  readonly fallbackClass: string | undefined;
  /** Children already here, `name` and `className`. */
  readonly present: readonly { readonly name: string; readonly className: string }[];
}

const headings: Record<string, RosterColumn> = {
  name: "name",
  child: "name",
  children: "name",
  pupil: "name",
  student: "name",
  "first name": "name",
  "child name": "name",
  class: "class",
  group: "class",
  form: "class",
  "class name": "class",
  note: "note",
  notes: "note",
  remark: "note",
};

/**
 * Which column stands where. The first row is a heading when one of its cells is a word for *name*;
 * without a heading the columns are name, class, note.
 */
export function readHeading(first: readonly string[] | undefined): {
  isHeading: boolean;
  columns: readonly (RosterColumn | null)[];
} {
  const named = (first ?? []).map((cell) => headings[cell.trim().toLowerCase()] ?? null);
  return named.includes("name") ? { isHeading: true, columns: named } : { isHeading: false, columns: rosterColumns };
}

/** How two names are compared: case, accents' form and runs of spaces make no difference. */
export function sameName(name: string): string {
  return name.normalize("NFC").trim().replace(/\s+/g, " ").toLocaleLowerCase("en");
}

/**
 * Says per row what will happen. Rows without problems can be taken; the others come back with the reason
 * at the cell. Blank rows are passed over.
 */
export function checkRoster(wanted: RosterWanted): readonly CheckedRow[] {
  const classes = new Map(wanted.classNames.map((name) => [sameName(name), name]));
  const present = new Set(wanted.present.map((child) => `${sameName(child.name)}|${sameName(child.className)}`));
  const { isHeading, columns } = readHeading(wanted.rows[0]?.cells);
  const seen = new Map<string, number>();
  const checked: CheckedRow[] = [];
  for (const row of isHeading ? wanted.rows.slice(1) : wanted.rows) {
    if (row.cells.every((cell) => cell.trim() === "")) continue;
    const cell = (column: RosterColumn) => unguarded((row.cells[columns.indexOf(column)] ?? "").trim());
    const name = cell("name").normalize("NFC").replace(/\s+/g, " ");
    const typedClass = cell("class") || wanted.fallbackClass || "";
    const className = classes.get(sameName(typedClass)) ?? typedClass;
    const note = cell("note");
    const problems: RosterProblem[] = [];
    const extra = row.cells.slice(columns.length).filter((text) => text.trim() !== "").length;
    if (extra > 0)
      problems.push({ column: "line", says: `${plural(extra, "more field", "more fields")} than columns` });
    if (name === "") problems.push({ column: "name", says: "no name" });
    else if (name.length > MOST_NAME)
      problems.push({ column: "name", says: `${name.length} characters, ${MOST_NAME} at most` });
    else if (/[\u0000-\u001f\u007f\ufffd]/.test(name))
      problems.push({ column: "name", says: "has characters that cannot be read" });
    if (typedClass === "") problems.push({ column: "class", says: "no class" });
    else if (!classes.has(sameName(typedClass)))
      problems.push({ column: "class", says: `no class is called “${typedClass.slice(0, 40)}”` });
    if (note.length > MOST_NOTE)
      problems.push({ column: "note", says: `${note.length} characters, ${MOST_NOTE} at most` });
    if (name !== "") {
      const key = `${sameName(name)}|${sameName(typedClass)}`;
      const before = seen.get(key);
      if (before !== undefined) problems.push({ column: "name", says: `same child as line ${before}` });
      else if (present.has(key)) problems.push({ column: "name", says: "already in this class" });
      else seen.set(key, row.line);
    }
    checked.push({ line: row.line, cells: row.cells, name, className, note, problems });
  }
  return checked;
}

/** A cell without the apostrophe that guards it in a spreadsheet from being taken for a formula. */
export function unguarded(cell: string): string {
  return /^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell;
}
