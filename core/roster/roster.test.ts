import { describe, expect, test } from "vitest";
import { checkRoster, type RosterWanted, readHeading, unguarded } from "./index.ts";

const check = (table: string[][], more: Partial<RosterWanted> = {}) =>
  checkRoster({
    rows: table.map((cells, at) => ({ line: at + 1, cells })),
    classNames: ["Kiln", "Towpath"],
    fallbackClass: undefined,
    present: [{ name: "Ada M.", className: "Kiln" }],
    ...more,
  });
const problems = (table: string[][], more?: Partial<RosterWanted>) =>
  check(table, more).map((row) => row.problems.map((problem) => `${problem.column}: ${problem.says}`).join("; "));

describe("heading", () => {
  test("is found by its words, in any order", () => {
    expect(readHeading(["Class", "Pupil", "x"])).toEqual({ isHeading: true, columns: ["class", "name", null] });
    expect(readHeading(["Ada M.", "Kiln"]).isHeading).toBe(false);
    expect(readHeading(undefined).isHeading).toBe(false);
  });
});

describe("rows", () => {
  test("good ones carry name, class as the school writes it, note", () => {
    expect(
      check([
        ["Name", "Class", "Note"],
        [" Ben  T. ", "kiln", "glasses due"],
      ]),
    ).toEqual([
      {
        line: 2,
        cells: [" Ben  T. ", "kiln", "glasses due"],
        name: "Ben T.",
        className: "Kiln",
        note: "glasses due",
        problems: [],
      },
    ]);
  });
  test("each problem stands at its cell", () => {
    expect(
      problems([
        ["", "Kiln"],
        ["Cy", "Moon"],
        ["Di", ""],
        ["x".repeat(61), "Kiln"],
        ["Eve", "Kiln", "n", "more", "most"],
        ["Ada M.", "Kiln"],
        ["Fay", "Kiln"],
        ["fay ", "kiln"],
      ]),
    ).toEqual([
      "name: no name",
      "class: no class is called “Moon”",
      "class: no class",
      "name: 61 characters, 60 at most",
      "line: 2 more fields than columns",
      "name: already in this class",
      "",
      "name: same child as line 7",
    ]);
  });
  test("the same name in another class is another child; blank rows pass", () => {
    expect(
      problems([
        ["Ada M.", "Towpath"],
        ["", " "],
        ["Ada M.", "Kiln"],
      ]),
    ).toEqual(["", "name: already in this class"]);
  });
  test("a class chosen on the screen serves rows without one", () => {
    expect(check([["Ben"]], { fallbackClass: "Kiln" })[0]).toMatchObject({ className: "Kiln", problems: [] });
  });
});

test("an apostrophe that guards a formula is taken off, any other stays", () => {
  expect(unguarded("'=1+1")).toBe("=1+1");
  expect(unguarded("''-x")).toBe("'-x");
  expect(unguarded("'Ada'")).toBe("'Ada'");
  expect(unguarded("Ada")).toBe("Ada");
});
