import { describe, expect, test } from "vitest";
import type { Gaps } from "#contract";
import { type GapFilter, viewOf } from "./view.ts";

const column = (gpc: string, step: number) => ({ gpc, step, stepId: `s${step}`, title: `Step ${step}` });
const map: Gaps = {
  today: "2026-11-20",
  points: [{ name: "a and sh", gpcs: ["a=a", "sh=sh"] }],
  columns: [column("m=m", 1), column("a=a", 1), column("t=t", 2), column("sh=sh", 3)],
  rows: [
    { id: "1", name: "Ada", classId: "k", cells: "s95g10g12.00" },
    { id: "2", name: "Ben", classId: "k", cells: "s95s92s90.00" },
    { id: "3", name: "Cy", classId: "k", cells: "s95g20u60.00" },
  ],
};
const all: GapFilter = { step: "", state: "", sort: "name", onlyTaught: false, hideNames: false };
const names = (filter: Partial<GapFilter>) => viewOf(map, { ...all, ...filter }).rows.map((row) => row.name);
const spellings = (filter: Partial<GapFilter>) => viewOf(map, { ...all, ...filter }).columns.map((one) => one.gpc);

describe("the view of a map", () => {
  test("of a teaching point shows its spellings alone, in the order of the map", () => {
    expect(spellings({ step: "point:a=a" })).toEqual(["a=a", "sh=sh"]);
    expect(spellings({ step: "point:m=m" })).toEqual([]);
  });
  test("sums columns and rows", () => {
    const view = viewOf(map, all);
    expect(view.sums).toEqual([
      { gap: 0, secure: 3 },
      { gap: 2, secure: 1 },
      { gap: 1, secure: 1 },
      { gap: 0, secure: 0 },
    ]);
    expect(view.rows.map((row) => row.gaps)).toEqual([2, 0, 1]);
  });
  test("filters by step, state and what is taught", () => {
    expect(spellings({ step: "s1" })).toEqual(["m=m", "a=a"]);
    expect(spellings({ onlyTaught: true })).toEqual(["m=m", "a=a", "t=t"]);
    expect(spellings({ state: "gap" })).toEqual(["a=a", "t=t"]);
    expect(names({ state: "gap" })).toEqual(["Ada", "Cy"]);
    expect(names({ state: "unsteady" })).toEqual(["Cy"]);
  });
  test("numbers the children where their names are hidden, and keeps their chances", () => {
    const view = viewOf(map, { ...all, sort: "gaps", hideNames: true });
    expect(view.rows.map((row) => row.name)).toEqual(["Child 1", "Child 2", "Child 3"]);
    expect(view.rows[0]?.chances).toEqual([0.95, 0.1, 0.12, 0]);
  });
  test("sorts by gaps, and puts like beside like", () => {
    expect(names({ sort: "gaps" })).toEqual(["Ada", "Cy", "Ben"]);
    expect(names({ sort: "alike" })).toEqual(["Ada", "Cy", "Ben"]);
  });
});
