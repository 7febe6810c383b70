import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { alikeOrder, newMind, type State, shipped, shownSpellings } from "./index.ts";

describe("like beside like", () => {
  const g: State = "gap";
  const s: State = "secure";
  test("brings the two kinds together and loses no one", () => {
    const rows: State[][] = [
      [g, g, s, s],
      [s, s, g, g],
      [g, g, s, s],
      [s, s, g, g],
      [g, g, g, s],
    ];
    const order = alikeOrder(rows);
    expect([...order].sort()).toEqual([0, 1, 2, 3, 4]);
    const position = (row: number) => order.indexOf(row);
    expect(Math.abs(position(0) - position(2))).toBe(1);
    expect(Math.abs(position(1) - position(3))).toBe(1);
  });
  test("is as short a walk as any, from the child with most gaps, for a few children", () => {
    const states: State[] = ["gap", "unsteady", "secure", "not sure yet"];
    const depths = { gap: 6, unsteady: 4, secure: 0, "not sure yet": 1, "not checked": 1, "not taught": 0 };
    const rowOf = fc.array(fc.constantFrom(...states), { minLength: 5, maxLength: 5 });
    let [ours, best, apart] = [0, 0, 0];
    fc.assert(
      fc.property(fc.array(rowOf, { minLength: 3, maxLength: 6 }), (rows) => {
        const gap = (one: number, other: number) =>
          (rows[one] ?? []).reduce(
            (sum, state, at) => sum + Math.abs(depths[state] - depths[rows[other]?.[at] as State]),
            0,
          );
        const length = (path: readonly number[]) =>
          path.slice(1).reduce((sum, row, at) => sum + gap(path[at] ?? 0, row), 0);
        const order = alikeOrder(rows);
        expect([...order].sort()).toEqual([...rows.keys()]);
        const need = rows.map((row) => row.reduce((sum, state) => sum + depths[state], 0));
        expect(need[order[0] ?? -1]).toBe(Math.max(...need));
        // All walks from there.
        const walks = (left: readonly number[], path: readonly number[]): number =>
          left.length === 0
            ? length(path)
            : Math.min(
                ...left.map((next) =>
                  walks(
                    left.filter((one) => one !== next),
                    [...path, next],
                  ),
                ),
              );
        const shortest = walks(order.slice(1), [order[0] ?? 0]);
        ours += length(order);
        best += shortest;
        if (length(order) > shortest) apart++;
      }),
      { seed: 7, numRuns: 200 },
    );
    // Mending crossings is no proof of the shortest; it is seldom longer, and by little.
    expect(ours / best).toBeLessThan(1.01);
    expect(apart).toBeLessThan(30);
  });
  test("empty and large maps", () => {
    expect(alikeOrder([])).toEqual([]);
    const many: State[][] = Array.from({ length: 300 }, (_, row) =>
      Array.from({ length: 20 }, (_, column) => ((row * 7 + column) % 3 ? s : g)),
    );
    expect(new Set(alikeOrder(many)).size).toBe(300);
  });
});

test("on the map stands what was asked on cards, and what failed in two words", () => {
  const trace = { mean: 0, variance: 1, day: 0, halfLife: 100, days: 1 };
  const asked = { answers: 1, days: 1, lastDays: [], last: [], inCleanPass: false, inTexts: [] };
  const mind = {
    ...newMind(shipped),
    traces: {
      "say b=b": { ...trace, answers: 1, misses: 0 },
      "say d=d": { ...trace, answers: 9, misses: 1 },
      "say t=t": { ...trace, answers: 2, misses: 2 },
      "spell m=m": { ...trace, answers: 3, misses: 3 },
    },
  };
  expect(shownSpellings({ mind, shown: { "b=b": asked, "d=d": { ...asked, days: 0 } } })).toEqual(["b=b", "t=t"]);
});
