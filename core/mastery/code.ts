import { isRight } from "#core/ledger";
import type { Standing, State } from "./state.ts";

/**
 * A standing in one letter, as maps are sent: `.` not taught, `n` not checked, `g` gap, `s` secure, and
 * unsteady as `m` missed last time, `l` slow, `t` right and since then misread in texts, `u` misread in texts and never
 * asked alone, `f` faded, `r` right last time.
 */
export type CellCode = "." | "n" | "g" | "s" | "m" | "l" | "t" | "u" | "f" | "r";

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
  m: { state: "unsteady", need: 0.7, canRead: false },
  l: { state: "unsteady", need: 0.4, canRead: true },
  t: { state: "unsteady", need: 0.4, canRead: true },
  u: { state: "unsteady", need: 0.4, canRead: false },
  f: { state: "unsteady", need: 0.2, canRead: true },
  r: { state: "unsteady", need: 0, canRead: true },
};

export function codeOf(standing: Standing): CellCode {
  switch (standing.state) {
    case "not taught":
      return ".";
    case "not checked":
      return "n";
    case "gap":
      return "g";
    case "secure":
      return "s";
    case "unsteady":
      if (standing.last !== null && !isRight(standing.last)) return "m";
      if (standing.last === "slow") return "l";
      if (standing.inTexts.length > 0) return standing.last === null ? "u" : "t";
      return standing.fading ? "f" : "r";
  }
}

/** What a letter says; an unknown letter reads as not taught. */
export function cellOf(code: string): Cell {
  return cells[code as CellCode] ?? cells["."];
}
