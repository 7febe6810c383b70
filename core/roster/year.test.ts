import { describe, expect, test } from "vitest";
import {
  afterYear,
  dueOn,
  movedUp,
  nextYear,
  outOfBackupsOn,
  saysYear,
  type YearPlan,
  yearProblems,
} from "./index.ts";

const classes = [
  { id: "k", name: "Kiln", yearGroup: "Year 1" },
  { id: "t", name: "2 Towpath", yearGroup: "Year 2" },
];
const children = [
  { id: "ada", name: "Ada M.", classId: "k" },
  { id: "ben", name: "Ben T.", classId: "k" },
  { id: "cy", name: "Cy", classId: "t" },
];
const plan = (more: Partial<YearPlan> = {}): YearPlan => ({
  classes: movedUp(classes),
  added: [],
  children: [],
  ...more,
});
const leaving = (id: string) => movedUp(classes).map((one) => ({ ...one, leaves: one.id === id }));

describe("a new school year", () => {
  test("goes up by one where a number says which it is", () => {
    expect(["Year 1", "P3/4", "Years 1 and 2", "Reception", "Year 9", ""].map(nextYear)).toEqual([
      "Year 2",
      "P4/5",
      "Years 2 and 3",
      "Reception",
      "Year 10",
      "",
    ]);
    expect(nextYear("2026")).toBe("2026");
  });

  test("a class called by its year is called by the next; another keeps its name", () => {
    expect(movedUp([...classes, { id: "r", name: "Room 12", yearGroup: "Year 2" }])).toEqual([
      { id: "k", name: "Kiln", yearGroup: "Year 2", leaves: false },
      { id: "t", name: "3 Towpath", yearGroup: "Year 3", leaves: false },
      { id: "r", name: "Room 12", yearGroup: "Year 3", leaves: false },
    ]);
  });

  test("children go where their class goes, but those who change", () => {
    expect(afterYear(plan(), children)).toEqual(new Map(children.map((one) => [one.id, one.classId])));
    const moved = plan({
      classes: leaving("t"),
      children: [
        { id: "ada", from: "k", to: "n" },
        { id: "ben", from: "k", to: null },
      ],
    });
    expect([...afterYear(moved, children).values()]).toEqual(["n", null, null]);
    // Out of a class that leaves, a child can stay.
    const kept = plan({ classes: leaving("t"), children: [{ id: "cy", from: "t", to: "k" }] });
    expect(afterYear(kept, children).get("cy")).toBe("k");
  });

  test("is said in a sentence", () => {
    expect(saysYear(plan(), children)).toBe("2 classes go on and no child leaves the school.");
    const added = [{ id: "n", name: "Loom", yearGroup: "Year 1" }];
    const moved = { classes: leaving("t"), added, children: [{ id: "ada", from: "k", to: "n" }] };
    expect(saysYear(moved, children)).toBe(
      "1 class goes on, 1 class is new, 1 child changes class and 1 child leaves the school.",
    );
  });

  test("cannot end with two classes or two children of one name, or in a class that is gone", () => {
    expect(yearProblems(plan(), { classes, children })).toEqual([]);
    const same = plan({ added: [{ id: "n", name: "kiln ", yearGroup: "" }] });
    expect(yearProblems(same, { classes, children })).toEqual([
      { id: "n", says: "Two classes would be called “kiln ”." },
    ]);
    // A class that leaves gives its name free.
    expect(yearProblems({ ...same, classes: leaving("k") }, { classes, children })).toEqual([]);
    const unnamed = plan({ classes: movedUp(classes).map((one) => ({ ...one, name: " " })) });
    expect(yearProblems(unnamed, { classes, children })).toHaveLength(2);
    const gone = plan({ classes: leaving("t"), children: [{ id: "ada", from: "k", to: "t" }] });
    expect(yearProblems(gone, { classes, children })).toEqual([
      { id: "ada", says: "Ada M. would go into a class that leaves. Choose another." },
    ]);
    const twice = plan({ children: [{ id: "cy", from: "t", to: "k" }] });
    const two = [...children.slice(0, 2), { id: "cy", name: "ada m.", classId: "t" }];
    expect(yearProblems(twice, { classes, children: two })[0]?.says).toContain("would be in Kiln");
  });
});

test("who left is due after the school's months, and gone from backups after its weeks and the day itself", () => {
  expect(dueOn("2026-11-20", 12)).toBe("2027-11-20");
  expect(dueOn("2026-08-31", 6)).toBe("2027-02-28");
  expect(outOfBackupsOn("2026-11-20", 8)).toBe("2027-01-16");
});
