import fc from "fast-check";
import highs from "highs";
import { expect, test } from "vitest";
import { bestWeek, conflictOf, firstFit, gridOf, type WeekWanted } from "./index.ts";
import { adult, anySchool, child, lesson, room, school, slots } from "./week-world.ts";

const solver = await highs();
let clock = 0;
const conflict = (wanted: WeekWanted, seconds = 1000) =>
  conflictOf(gridOf(wanted), solver, { now: () => clock, seconds });
const told = (wanted: WeekWanted) => conflict(wanted)?.rules.map(({ says }) => says);

test("where every session has a place nothing stands against anything", () => {
  expect(conflict(school())).toBeUndefined();
});

test("too many sessions for the days of an adult", () => {
  const wanted = school({
    adults: [
      adult("A", {
        hours: [
          { day: 1, from: 0, to: 900 },
          { day: 2, from: 0, to: 900 },
        ],
      }),
    ],
  });
  expect(conflict(wanted)).toEqual({
    smallest: true,
    rules: [
      expect.objectContaining({
        says: "Kingfishers has 3 sessions a week, on days of its own.",
        allows: 1,
        all: true,
      }),
      expect.objectContaining({ says: "A is free at some times only.", allows: 1, all: true }),
    ],
  });
});

test("of many rules only those that matter are told", () => {
  const maths = [1, 2, 3, 4, 5].map((day) => lesson(day as 1, 9, "Maths"));
  const wanted = school({
    slots: slots.filter(({ from }) => from === 540),
    children: [child("Una", { lessons: maths }), child("Kit", { away: [{ day: 4, from: 0, to: 30 }] })],
    adults: [adult("A", { mostADay: 4 }), adult("B", { hours: [] })],
    rooms: [room("Den", { fits: 1 }), room("Hall")],
    lessons: [{ what: "Maths", must: false, most: 2 }],
  });
  expect(told(wanted)).toEqual([
    "Kingfishers has 3 sessions a week, on days of its own.",
    "A child misses Maths at most twice a week.",
  ]);
});

test("a room for all of them, and each way out is told", () => {
  const wanted = school({ rooms: [room("Den", { fits: 1 }), room("Nook", { fits: 1 })] });
  expect(conflict(wanted)?.rules).toEqual([
    expect.objectContaining({ kind: "sessions", allows: 1, all: false }),
    expect.objectContaining({ says: "Den fits 1.", allows: 3, all: true }),
    expect.objectContaining({ says: "Nook fits 1.", allows: 3, all: true }),
  ]);
});

test("without slots or adults it is the sessions themselves that cannot be", () => {
  expect(told(school({ adults: [] }))).toEqual(["Kingfishers has 3 sessions a week, on days of its own."]);
});

test("what is told cannot all be kept, each without the others could, and no smaller set stands against each other", () => {
  fc.assert(
    fc.property(anySchool, (wanted) => {
      const grid = gridOf(wanted);
      const { spots } = bestWeek(grid, solver, { from: firstFit(grid), seconds: 5 });
      const missing = wanted.groups.reduce((sum, { sessions }) => sum + sessions, 0) - spots.length;
      const found = conflict(wanted);
      expect(found === undefined).toBe(missing === 0);
      if (!found) return;
      expect(found.smallest).toBe(true);
      expect(found.rules.some(({ kind }) => kind === "sessions")).toBe(true);
      for (const { allows, all } of found.rules)
        expect(all ? allows <= missing && allows > 0 : allows <= missing).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test("when there is no time to be sure that none is smaller, a set of which none can be left out is told", () => {
  const wanted = school({ adults: [adult("A", { mostADay: 0 }), adult("B", { hours: [] })], rooms: [room("Den")] });
  const grid = gridOf(wanted);
  let looks = 0;
  // Time is over after the first look, and stands still from then on.
  const found = conflictOf(grid, solver, { now: () => (looks++ === 1 ? 5 : 0), seconds: 0.001 });
  expect(found?.smallest).toBe(false);
  expect(found?.rules.map(({ says }) => says).sort()).toEqual([
    "A takes 0 a day at most.",
    "B is free at no time.",
    "Kingfishers has 3 sessions a week, on days of its own.",
  ]);
  clock = 0;
});
