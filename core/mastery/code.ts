import { canRead, needFor, type Standing, type State } from "./standing.ts";

/** A state in one letter, as maps are sent. */
const letters: Readonly<Record<State, string>> = {
  "not taught": ".",
  "not checked": "n",
  gap: "g",
  unsteady: "u",
  "not sure yet": "o",
  secure: "s",
};
const states = new Map(Object.entries(letters).map(([state, letter]) => [letter, state as State]));

/** Characters of a cell: the letter of its state, and the chance in a hundred as two digits. */
const WIDTH = 3;

/** A standing in three characters: `g08`, `s97`; the chance is at most 99 in a hundred, and 00 where nothing was asked. */
export function codeOf({ state, chance, answers }: Pick<Standing, "state" | "chance" | "answers">): string {
  const percent = answers === 0 ? 0 : Math.min(99, Math.round(chance * 100));
  return `${letters[state]}${String(percent).padStart(2, "0")}`;
}

/** What a map says of one child and one spelling. */
export interface Cell {
  readonly state: State;
  /** That it is said at sight today, 0 to 0.99; 0 where nothing was asked. */
  readonly chance: number;
  /** 0 to 1, as `needFor`. */
  readonly need: number;
  readonly canRead: boolean;
}

const known = new Map<string, Cell>();

/** The cell of a row of codes at a place; past its end, or where no one can read it, nothing is taught. */
export function cellAt(cells: string, at: number): Cell {
  const code = cells.slice(at * WIDTH, (at + 1) * WIDTH);
  const before = known.get(code);
  if (before) return before;
  const state = states.get(code.charAt(0)) ?? "not taught";
  const chance = Number(code.slice(1)) / 100 || 0;
  const answers = state === "not taught" || state === "not checked" ? 0 : 1;
  const cell = { state, chance, need: needFor({ state, chance, answers }), canRead: canRead({ chance, answers }) };
  known.set(code, cell);
  return cell;
}
