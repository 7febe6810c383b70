import type { Standing, State } from "./standing.ts";

/**
 * A standing in one letter, as maps are sent: `.` not taught, `n` not checked, `g` gap, `s` secure, and
 * unsteady as `m` missed last time, `l` slow, `t` right and since then misread in texts, `u` misread in texts and never
 * asked alone, `f` faded, `r` right last time; `o` not sure yet, right once.
 */
export type CellCode = "." | "n" | "g" | "s" | "o" | "m" | "l" | "t" | "u" | "f" | "r";

interface Cell {
  readonly state: State;
  /** 0 to 1, as `needFor`. */
  readonly need: number;
  readonly canRead: boolean;
}

const cells: Record<CellCode, Cell> = {
  ".": { state: "not taught", need: 0, canRead: false },
  n: { state: "not checked", need: 0, canRead: false },
  g: { state: "gap", need: 1, canRead: false },
  s: { state: "secure", need: 0, canRead: true },
  o: { state: "not sure yet", need: 0, canRead: true },
  m: { state: "unsteady", need: 0.7, canRead: false },
  l: { state: "unsteady", need: 0.4, canRead: true },
  t: { state: "unsteady", need: 0.4, canRead: true },
  u: { state: "unsteady", need: 0.4, canRead: false },
  f: { state: "unsteady", need: 0.2, canRead: true },
  r: { state: "unsteady", need: 0, canRead: true },
};

/** The letter of a standing. */
export function codeOf(standing: Standing): CellCode {
  if (standing.state !== "unsteady") return plain[standing.state];
  return unsteady[standing.reason];
}

const plain: Readonly<Record<Exclude<State, "unsteady">, CellCode>> = {
  "not taught": ".",
  "not checked": "n",
  gap: "g",
  secure: "s",
  "not sure yet": "o",
};
const unsteady: Readonly<Record<Extract<Standing, { state: "unsteady" }>["reason"], CellCode>> = {
  "missed after right": "m",
  slow: "l",
  "misread since": "t",
  "misread, never asked": "u",
  "not asked for long": "f",
  "right after missed": "r",
};

/** What a letter says; an unknown letter reads as not taught. */
export function cellOf(code: string): Cell {
  return cells[code as CellCode] ?? cells["."];
}
