import type { Gpc } from "#core/phonics";
import type { Known } from "./known.ts";
import { readSkill } from "./skills.ts";
import { type SaidBy, type Standing, type State, standingOn } from "./standing.ts";

/** The standing of one child for every column. What was found before teaching still shows. */
export function childRow(known: Known, columns: readonly Gpc[], today: string, by: SaidBy): readonly Standing[] {
  return columns.map((gpc) => standingOn(known, gpc, today, by));
}

/** The shapes of words that a child was asked to blend, short ones first. */
export function shownShapes({ mind }: Pick<Known, "mind">): readonly string[] {
  const shapes = Object.keys(mind.traces).flatMap((skill) => {
    const { verb, thing } = readSkill(skill);
    return verb === "blend" ? [thing] : [];
  });
  return shapes.sort((one, other) => one.length - other.length || (one < other ? -1 : 1));
}

/** The spellings that a child was asked on cards, and those that failed in words or texts more than once. */
export function shownSpellings({ mind, shown }: Pick<Known, "mind" | "shown">): readonly Gpc[] {
  const asked = Object.entries(shown).flatMap(([gpc, { days }]) => (days > 0 ? [gpc] : []));
  const failed = Object.entries(mind.traces).flatMap(([skill, { misses }]) => {
    const { verb, thing } = readSkill(skill);
    return verb === "say" && misses > 1 ? [thing] : [];
  });
  return [...new Set([...asked, ...failed])];
}

/** How far a state is from having nothing to teach; whole numbers, so that rows compare fast. */
const depth: Record<State, number> = {
  "not taught": 0,
  "not checked": 1,
  secure: 0,
  "not sure yet": 1,
  unsteady: 4,
  gap: 6,
};

/** City-block distances between all rows, as one square table. */
function distances(rows: readonly (readonly State[])[]): Int32Array {
  const depths = rows.map((row) => Uint8Array.from(row, (state) => depth[state]));
  const table = new Int32Array(rows.length * rows.length);
  for (const [at, one] of depths.entries()) {
    for (let to = at + 1; to < depths.length; to++) {
      const other = depths[to] as Uint8Array;
      let sum = 0;
      for (let column = 0; column < one.length; column++)
        sum += Math.abs((one[column] as number) - (other[column] as number));
      table[at * rows.length + to] = sum;
      table[to * rows.length + at] = sum;
    }
  }
  return table;
}

/**
 * An order of the rows in which like stands beside like: starts at the child with most gaps and goes on to
 * the nearest child left (city-block distance of states), then mends crossings (2-opt) for up to 200 rows.
 * Gives row numbers. O(rows² · columns).
 */
export function alikeOrder(rows: readonly (readonly State[])[]): readonly number[] {
  if (rows.length === 0) return [];
  const need = rows.map((row) => row.reduce((sum, state) => sum + depth[state], 0));
  const between = distances(rows);
  const gap = (from: number, to: number) => between[from * rows.length + to] ?? 0;
  const left = new Set(rows.keys());
  let current = need.indexOf(Math.max(...need));
  const path: number[] = [];
  while (left.size > 0) {
    left.delete(current);
    path.push(current);
    let next = -1;
    for (const candidate of left) if (next < 0 || gap(current, candidate) < gap(current, next)) next = candidate;
    current = next;
  }
  return rows.length <= 200 ? uncrossed(path, gap) : path;
}

function uncrossed(path: number[], gap: (from: number, to: number) => number): number[] {
  const at = (index: number) => path[index] ?? 0;
  const cost = (from: number, to: number) => (to < path.length ? gap(at(from), at(to)) : 0);
  for (let round = 0; round < 20; round++) {
    let better = false;
    for (let from = 0; from < path.length - 2; from++) {
      for (let to = from + 1; to < path.length; to++) {
        const now = cost(from, from + 1) + cost(to, to + 1);
        const then = gap(at(from), at(to)) + (to + 1 < path.length ? gap(at(from + 1), at(to + 1)) : 0);
        if (then < now - 1e-9) {
          path.splice(from + 1, to - from, ...path.slice(from + 1, to + 1).reverse());
          better = true;
        }
      }
    }
    if (!better) break;
  }
  return path;
}
