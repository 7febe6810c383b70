import { cellAt } from "./code.ts";

/** What a child counts for among numbers without names. */
export interface CountsFor {
  /** Half or more of what it was taught is secure. */
  readonly mostSecure: boolean;
  readonly manyGaps: boolean;
}

/** From which share of what was taught on it is most of it, and how many gaps are many. */
const MOST = 0.5;
const MANY = 5;

/** What a child counts for, from its row of a map of so many columns. A child that was taught nothing has most of it neither way. */
export function countsFor(cells: string, columns: number): CountsFor {
  let [taught, secure, gaps] = [0, 0, 0];
  for (let at = 0; at < columns; at++) {
    const cell = cellAt(cells, at);
    if (!cell.taught) continue;
    taught++;
    if (cell.state === "secure") secure++;
    if (cell.state === "gap") gaps++;
  }
  return { mostSecure: taught > 0 && secure >= MOST * taught, manyGaps: gaps >= MANY };
}
