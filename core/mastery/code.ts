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
/** The same where it never came right, and the chance is over a half all the same. */
const neverRight: Partial<Record<State, string>> = { unsteady: "v", "not sure yet": "x" };
const statesOf = (byState: Partial<Record<State, string>>) =>
  new Map(Object.entries(byState).map(([state, letter]) => [letter, state as State]));
const [states, statesNeverRight] = [statesOf(letters), statesOf(neverRight)];

/** Characters of a cell: the letter of its state, and the chance in a hundred as two digits. */
const WIDTH = 3;

/**
 * A standing in three characters: `g08`, `s97`; the chance is at most 99 in a hundred, and 00 where nothing was asked. What was
 * asked before it was taught has a capital: `G08`. Under `x` and `v` stands what is not sure yet or unsteady and never came right.
 */
export function codeOf({
  state,
  chance,
  answers,
  misses,
  taught,
}: Pick<Standing, "state" | "chance" | "answers" | "misses" | "taught">): string {
  const percent = answers === 0 ? 0 : Math.min(99, Math.round(chance * 100));
  const small = (answers > 0 && answers === misses && neverRight[state]) || letters[state];
  const letter = taught ? small : small.toUpperCase();
  return `${letter}${String(percent).padStart(2, "0")}`;
}

/** What a map says of one child and one spelling. */
export interface Cell {
  readonly state: State;
  /** That it is said at sight today, 0 to 0.99; 0 where nothing was asked. */
  readonly chance: number;
  /** 0 to 1, as `needFor`. */
  readonly need: number;
  readonly canRead: boolean;
  readonly taught: boolean;
}

const known = new Map<string, Cell>();

/** The cell of a row of codes at a place; past its end, or where no one can read it, nothing is taught. */
export function cellAt(cells: string, at: number): Cell {
  const code = cells.slice(at * WIDTH, (at + 1) * WIDTH);
  const before = known.get(code);
  if (before) return before;
  const letter = code.charAt(0);
  const never = statesNeverRight.get(letter.toLowerCase());
  const state = never ?? states.get(letter.toLowerCase()) ?? "not taught";
  const taught = state !== "not taught" && letter === letter.toLowerCase();
  const chance = Number(code.slice(1)) / 100 || 0;
  const answers = state === "not taught" || state === "not checked" ? 0 : 1;
  const cell = {
    ...{ state, chance, taught },
    need: needFor({ state, chance, answers, taught }),
    canRead: canRead({ chance, answers, misses: never ? answers : 0 }),
  };
  known.set(code, cell);
  return cell;
}
