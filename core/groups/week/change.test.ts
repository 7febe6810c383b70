import fc from "fast-check";
import highs from "highs";
import { expect, test } from "vitest";
import {
  allDay,
  brokenBy,
  changeFor,
  costOf,
  gridOf,
  type Placed,
  placedOf,
  placesFor,
  type Spot,
  spotOf,
  WeekFinder,
  wantedWithout,
} from "./index.ts";
import { adult, anySchool, child, lesson, room, school } from "./week-world.ts";

const solver = await highs();
const by = { solver, seconds: 2 };

test("a session can go where no rule is broken, and elsewhere it is told why", () => {
  const wanted = school({
    groups: [
      { id: "g", name: "Kingfishers", members: ["k1"], sessions: 1, minutes: 20 },
      { id: "h", name: "Herons", members: ["k2"], sessions: 2, minutes: 20 },
    ],
    children: [child("k1", { lessons: [lesson(2, 9, "Play")] }), child("k2")],
    adults: [adult("Jo", { hours: [1, 2, 3].map((day) => ({ day: day as 1, from: 0, to: 900 })) })],
    lessons: [{ what: "Play", must: true, most: null }],
  });
  const grid = gridOf(wanted);
  const spots = [
    ["g", "1-9"],
    ["h", "1-10"],
    ["h", "3-9"],
  ].map(([groupId = "", slotId = ""]) => spotOf(grid, { groupId, slotId, adultId: "Jo", roomId: null }) as Spot);
  const places = placesFor(grid, spots, { at: 0, group: 0 });
  const at = (id: string) => places[grid.slots.findIndex((slot) => slot.id === id)];
  expect(at("1-9")).toMatchObject({ costs: 0, why: [] });
  expect(at("2-10")?.spot).toMatchObject({ group: 0, adult: 0 });
  expect(at("2-13")?.costs).toBe(1);
  expect(at("1-10")).toMatchObject({ spot: undefined, why: ["Jo takes Herons then."] });
  expect(at("2-9")).toMatchObject({ spot: undefined, why: ["No child misses Play."] });
  expect(at("5-9")).toMatchObject({ spot: undefined, why: ["Jo is free at some times only."] });
  const second = placesFor(grid, spots, { at: 2, group: 1 });
  expect(second[0]?.why).toEqual(["Herons has a session that day already."]);
});

test("every place that lights up breaks no rule, and every other one breaks one", () => {
  fc.assert(
    fc.property(anySchool, fc.nat(20), (wanted, which) => {
      const grid = gridOf(wanted);
      const finder = new WeekFinder(grid, 1);
      const spots = finder.spots();
      if (spots.length === 0) return;
      const at = which % spots.length;
      const one = spots[at] as Spot;
      const others = spots.filter((_, place) => place !== at);
      for (const place of placesFor(grid, spots, { at, group: one.group })) {
        if (place.spot) {
          expect(brokenBy(grid, [...others, place.spot])).toEqual([]);
          expect(costOf(grid, [...others, place.spot]).all - costOf(grid, spots).all).toBeCloseTo(place.costs, 6);
        } else expect(place.why.length).toBeGreaterThan(0);
      }
      expect(placesFor(grid, spots, { at, group: one.group })[one.slot]?.spot).toBeDefined();
    }),
    { numRuns: 300 },
  );
});

test("an adult who is away is stood in for at the same time where someone can, and that touches no child", () => {
  const wanted = school({ adults: [adult("Jo"), adult("Wyn")] });
  const placed = ["1-9", "3-9", "5-9"].map((slotId) => ({ groupId: "g", slotId, adultId: "Jo", roomId: null }));
  const away = changeFor(wanted, placed, [{ kind: "adult", id: "Jo", when: [allDay(3)] }], by);
  expect(away).toEqual({
    children: 0,
    fewest: true,
    changes: [{ before: placed[1], after: { ...placed[1], adultId: "Wyn" } }],
  });
});

test("without a stand-in the session moves, and all others stay", () => {
  const wanted = school();
  const placed = ["1-9", "3-9", "5-9"].map((slotId) => ({ groupId: "g", slotId, adultId: "A", roomId: null }));
  const away = changeFor(wanted, placed, [{ kind: "adult", id: "A", when: [allDay(3)] }], by);
  expect(away.children).toBe(2);
  expect(away.changes).toHaveLength(1);
  expect(away.changes[0]?.before).toEqual(placed[1]);
  expect(away.changes[0]?.after?.slotId).toMatch(/^[24]-/);
});

test("what has nowhere to go falls out, and is told", () => {
  const wanted = school({ rooms: [room("Den")] });
  const placed = ["1-9", "3-9", "5-9"].map((slotId) => ({ groupId: "g", slotId, adultId: "A", roomId: "Den" }));
  const closed = [3, 4, 5, 2].map((day) => allDay(day as 3));
  const away = changeFor(wanted, placed, [{ kind: "room", id: "Den", when: closed }], by);
  expect(away.changes).toEqual(placed.slice(1).map((before) => ({ before, after: null })));
  const trip = changeFor(wanted, placed, [{ kind: "class", id: "c", when: [allDay(1)] }], by);
  expect(trip.changes.map(({ before }) => before.slotId)).toEqual(["1-9"]);
  const all = [1, 2, 3, 4, 5].map((day) => allDay(day as 1));
  expect(changeFor(wanted, placed, [{ kind: "everyone", when: all }], by).changes).toHaveLength(3);
});

test("a session that is where it is against a rule stays there when that has nothing to do with what is missing", () => {
  const wanted = school({ adults: [adult("Jo", { hours: [{ day: 1, from: 0, to: 900 }] }), adult("Wyn")] });
  const placed = [
    { groupId: "g", slotId: "2-9", adultId: "Jo", roomId: null },
    { groupId: "g", slotId: "4-9", adultId: "Wyn", roomId: null },
  ];
  const away = changeFor(wanted, placed, [{ kind: "adult", id: "Wyn", when: [allDay(4)] }], by);
  expect(away.changes.map(({ before }) => before)).toEqual([placed[1]]);
});

test("no change breaks a rule of the week as it is then, and none touches more children than losing what is hit", () => {
  fc.assert(
    fc.property(anySchool, fc.constantFrom(1, 2, 3, 4, 5), (wanted, day) => {
      const grid = gridOf(wanted);
      const placed = placedOf(grid, new WeekFinder(grid, 1).spots());
      const [first] = wanted.adults;
      const missing = [{ kind: "adult" as const, id: first?.id ?? "", when: [allDay(day as 1)] }];
      const proposed = changeFor(wanted, placed, missing, by);
      const after = placed.flatMap((one) => {
        const change = proposed.changes.find(({ before }) => before === one);
        return change ? (change.after ?? []) : one;
      });
      const then = gridOf(wantedWithout(wanted, missing));
      expect(
        brokenBy(
          then,
          after.flatMap((one) => spotOf(then, one) ?? []),
        ),
      ).toEqual([]);
      const hit = placed.filter(({ adultId, slotId }) => adultId === first?.id && slotId.startsWith(`${day}-`));
      if (hit.length === 0) expect(proposed.changes).toEqual([]);
      // A group is moved for another's sake only where no more children are touched so than by losing what is hit.
      const childrenOf = (sessions: readonly Placed[]) =>
        sessions.reduce(
          (sum, { groupId }) =>
            sum + Math.max(1, wanted.groups.find((one) => one.id === groupId)?.members.length ?? 0),
          0,
        );
      const moved = proposed.changes.filter(({ before, after }) => before.slotId !== after?.slotId);
      expect(childrenOf(moved.map(({ before }) => before))).toBeLessThanOrEqual(childrenOf(hit));
    }),
    { numRuns: 150 },
  );
});
