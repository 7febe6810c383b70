import fc from "fast-check";
import highs from "highs";
import { expect, test } from "vitest";
import {
  bestWeek,
  brokenBy,
  costOf,
  firstFit,
  gridOf,
  overlap,
  type Placed,
  placedOf,
  WeekFinder,
  type WeekWanted,
} from "./index.ts";
import { adult, anySchool, child, lesson, room, school, slots } from "./week-world.ts";

const RUNS = 2000;
const solver = await highs();

function found(wanted: WeekWanted, rounds = 40): readonly Placed[] {
  const grid = gridOf(wanted);
  const finder = new WeekFinder(grid, 1);
  finder.again(rounds);
  return placedOf(grid, finder.spots());
}

/** Every hard rule once more, written out plainly and knowing nothing of grids. */
function faults(wanted: WeekWanted, placed: readonly Placed[]): string[] {
  const by = <One extends { readonly id: string }>(list: readonly One[], id: string) =>
    list.find((one) => one.id === id) as One;
  const sessions = placed.map((one) => {
    const group = by(wanted.groups, one.groupId);
    const slot = by(wanted.slots, one.slotId);
    return {
      ...{ group, slot, adult: by(wanted.adults, one.adultId) },
      room: one.roomId === null ? undefined : by(wanted.rooms, one.roomId),
      time: { day: slot.day, from: slot.from, to: slot.from + group.minutes },
      children: group.members.map((id) => by(wanted.children, id)),
    };
  });
  const wrong: string[] = [];
  const mustBe = (right: boolean, says: string) => {
    if (!right) wrong.push(says);
  };
  for (const [at, one] of sessions.entries()) {
    const { time, adult: who, room: where, children } = one;
    mustBe(time.to <= one.slot.to, "longer than its slot");
    const minutes = Array.from({ length: time.to - time.from }, (_, minute) => time.from + minute);
    mustBe(
      minutes.every((minute) => who.hours.some((h) => h.day === time.day && h.from <= minute && minute < h.to)),
      "the adult is not free",
    );
    mustBe(who.classes.length === 0 || children.every((c) => who.classes.includes(c.classId)), "not their class");
    mustBe((where === undefined) === (wanted.rooms.length === 0), "a room");
    if (where) {
      mustBe(children.length <= where.fits, "too many for the room");
      mustBe(!where.closed.some((c) => overlap(c, time)), "closed");
      mustBe(who.rooms.length === 0 || who.rooms.includes(where.id), "not their room");
    }
    for (const c of children) {
      mustBe(!c.away.some((a) => overlap(a, time)), "a child is away");
      for (const l of c.lessons)
        if (overlap(l, time)) mustBe(!wanted.lessons.some((r) => r.what === l.what && r.must), "misses what must be");
    }
    for (const other of sessions.slice(at + 1)) {
      if (one.group === other.group) mustBe(one.slot.day !== other.slot.day, "twice a day");
      if (one.slot !== other.slot) continue;
      mustBe(who !== other.adult, "an adult twice");
      mustBe(!where || where !== other.room, "a room twice");
      mustBe(!one.group.members.some((id) => other.group.members.includes(id)), "a child twice");
    }
  }
  for (const who of wanted.adults) {
    const mine = sessions.filter((one) => one.adult === who);
    mustBe(mine.length <= who.mostAWeek, "too many a week");
    for (const day of [1, 2, 3, 4, 5])
      mustBe(mine.filter((one) => one.slot.day === day).length <= who.mostADay, "too many a day");
  }
  for (const { what, most, must } of wanted.lessons) {
    if (most === null || must) continue;
    for (const c of wanted.children) {
      const missed = sessions.filter(
        ({ children, time }) => children.includes(c) && c.lessons.some((l) => l.what === what && overlap(l, time)),
      );
      mustBe(missed.length <= most, "misses a lesson too often");
    }
  }
  for (const group of wanted.groups)
    mustBe(placed.filter((one) => one.groupId === group.id).length <= group.sessions, "too many sessions");
  return wrong;
}

test("no timetable breaks a hard rule, whatever the school", () => {
  let placed = 0;
  fc.assert(
    fc.property(anySchool, (wanted) => {
      const grid = gridOf(wanted);
      const searched = found(wanted, 15);
      expect(faults(wanted, searched)).toEqual([]);
      expect(faults(wanted, placedOf(grid, firstFit(grid)))).toEqual([]);
      placed += searched.length;
    }),
    { numRuns: RUNS },
  );
  // Else nothing was looked at.
  expect(placed).toBeGreaterThan(RUNS);
});

test("what is told to be the best breaks none either, costs what it says, and nothing that was found costs less", () => {
  fc.assert(
    fc.property(anySchool, (wanted) => {
      const grid = gridOf(wanted);
      const finder = new WeekFinder(grid, 3);
      finder.again(10);
      const { spots, cost, bound, proven } = bestWeek(grid, solver, { from: finder.spots(), seconds: 2 });
      expect(faults(wanted, placedOf(grid, spots))).toEqual([]);
      expect(costOf(grid, spots).all).toBeCloseTo(cost, 6);
      expect(cost).toBeLessThanOrEqual(finder.value() + 1e-9);
      if (proven) expect(cost - bound).toBeLessThan(1e-3);
      finder.again(60);
      expect(finder.value()).toBeGreaterThanOrEqual(bound - 1e-4);
    }),
    { numRuns: 150 },
  );
});

test("a fixed session stays where it is, also against a rule", () => {
  const fixed = [{ groupId: "g", slotId: "2-13", adultId: "A", roomId: null }];
  const wanted = school({ fixed, adults: [adult("A", { hours: [{ day: 1, from: 0, to: 900 }] })] });
  expect(found(wanted)).toContainEqual(fixed[0]);
  const grid = gridOf(wanted);
  expect(bestWeek(grid, solver, { from: grid.fixed, seconds: 1 }).spots).toContainEqual(grid.fixed[0]);
  expect(brokenBy(grid, grid.fixed)).toEqual(["A is free at some times only."]);
});

test("of fixed sessions that cannot both be the second is told", () => {
  const wanted = school({
    groups: ["g", "h"].map((id) => ({ id, name: id, members: [], sessions: 1, minutes: 20 })),
    fixed: ["g", "h"].map((groupId) => ({ groupId, slotId: "1-9", adultId: "A", roomId: null })),
  });
  expect(gridOf(wanted).unfixed).toEqual([wanted.fixed?.[1]]);
});

test("nothing to place, no slots and no adults are no trouble", () => {
  for (const change of [{ groups: [] }, { slots: [] }, { adults: [] }]) expect(found(school(change))).toEqual([]);
  expect(costOf(gridOf(school({ adults: [] })), []).unplaced).toBe(3);
});

const oneSlot = (ids: readonly string[]) => slots.filter(({ id }) => ids.includes(id));
const onlyRule = (what: string, wanted: WeekWanted, free: WeekWanted) =>
  test(what, () => {
    expect(found(wanted)).toHaveLength(0);
    expect(found(free)).toHaveLength(1);
  });
const once = [{ id: "g", name: "Kingfishers", members: ["k1", "k2"], sessions: 1, minutes: 20 }];
const nine = { slots: oneSlot(["1-9"]), groups: once };
onlyRule(
  "a session has room in its slot",
  school({ ...nine, groups: once.map((one) => ({ ...one, minutes: 31 })) }),
  school({ ...nine, groups: once.map((one) => ({ ...one, minutes: 30 })) }),
);
onlyRule(
  "an adult is there to the end of it",
  school({ ...nine, adults: [adult("A", { hours: [{ day: 1, from: 540, to: 559 }] })] }),
  school({
    ...nine,
    adults: [
      adult("A", {
        hours: [
          { day: 1, from: 540, to: 550 },
          { day: 1, from: 550, to: 560 },
        ],
      }),
    ],
  }),
);
onlyRule(
  "an adult takes the classes that they may",
  school({ ...nine, adults: [adult("A", { classes: ["d"] })] }),
  school({ ...nine, adults: [adult("A", { classes: ["d", "c"] })] }),
);
onlyRule(
  "an adult goes to the rooms that they may",
  school({ ...nine, rooms: [room("Hall"), room("Den", { fits: 1 })], adults: [adult("A", { rooms: ["Den"] })] }),
  school({ ...nine, rooms: [room("Hall"), room("Den", { fits: 2 })], adults: [adult("A", { rooms: ["Den"] })] }),
);
onlyRule(
  "a room that is closed holds no one",
  school({ ...nine, rooms: [room("Hall", { closed: [{ day: 1, from: 550, to: 555 }] })] }),
  school({ ...nine, rooms: [room("Hall", { closed: [{ day: 1, from: 560, to: 600 }] })] }),
);
onlyRule(
  "no child is fetched out of what must not be missed",
  school({
    ...nine,
    lessons: [{ what: "Play", must: true, most: null }],
    children: [child("k1"), child("k2", { lessons: [lesson(1, 9, "Play")] })],
  }),
  school({
    ...nine,
    lessons: [{ what: "Play", must: false, most: null }],
    children: [child("k1"), child("k2", { lessons: [lesson(1, 9, "Play")] })],
  }),
);
onlyRule(
  "a child who is not here is not waited for",
  school({ ...nine, children: [child("k1"), child("k2", { away: [{ day: 1, from: 0, to: 545 }] })] }),
  school({ ...nine, children: [child("k1"), child("k2", { away: [{ day: 2, from: 0, to: 545 }] })] }),
);

test("an adult has no more than so many a day, and so many a week", () => {
  const groups = ["g", "h", "i"].map((id) => ({ id, name: id, members: [], sessions: 2, minutes: 20 }));
  expect(found(school({ groups, adults: [adult("A", { mostADay: 1 })] }))).toHaveLength(5);
  expect(found(school({ groups, adults: [adult("A", { mostAWeek: 4 })] }))).toHaveLength(4);
  expect(found(school({ groups }))).toHaveLength(6);
});

test("a lesson is missed as often as it may be, over all groups of a child", () => {
  const children = [child("k1", { lessons: [1, 2, 3, 4, 5].map((day) => lesson(day as 1, 9, "Maths")) })];
  const groups = ["g", "h"].map((id) => ({ id, name: id, members: ["k1"], sessions: 2, minutes: 20 }));
  const nines = slots.filter(({ from }) => from === 540);
  const wanted = school({ children, groups, slots: nines, lessons: [{ what: "Maths", must: false, most: 3 }] });
  expect(found(wanted)).toHaveLength(3);
});

test("each wish is kept where it can be, and counted where it cannot", () => {
  const only = (name: string) => ({ adult: 0, time: 0, morning: 0, apart: 0, turns: 0, [name]: 1 });
  const halves = [
    adult("A", {
      hours: [
        { day: 1, from: 0, to: 900 },
        { day: 3, from: 0, to: 900 },
      ],
    }),
    adult("B", {
      hours: [
        { day: 1, from: 0, to: 900 },
        { day: 2, from: 0, to: 900 },
        { day: 5, from: 0, to: 900 },
      ],
    }),
  ];
  const whoOf = (placed: readonly Placed[]) => new Set(placed.map(({ adultId }) => adultId));
  expect(whoOf(found(school({ adults: halves, weights: only("adult") })))).toEqual(new Set(["B"]));
  const at = (id: string) => slots.find((slot) => slot.id === id);
  const timed = found(school({ weights: only("time") })).map(({ slotId }) => at(slotId)?.from);
  expect(new Set(timed).size).toBe(1);
  const early = found(school({ slots: oneSlot(["1-9", "2-10", "3-13", "4-11"]), weights: only("morning") }));
  expect(early.map(({ slotId }) => slotId).sort()).toEqual(["1-9", "2-10", "4-11"]);
  const days = found(school({ weights: only("apart") })).map(({ slotId }) => at(slotId)?.day);
  expect(days).toEqual([1, 3, 5]);
  const lessons = [lesson(1, 9, "Maths"), lesson(2, 9, "Maths"), lesson(3, 9, "Art"), lesson(4, 9, "Story")];
  const turned = school({
    slots: slots.filter(({ from }) => from === 540).slice(0, 4),
    children: [child("k1", { lessons })],
    weights: only("turns"),
  });
  const missed = found(turned).map(({ slotId }) => lessons.find(({ day }) => at(slotId)?.day === day)?.what);
  expect(new Set(missed).size).toBe(3);
  const grid = gridOf(turned);
  const all = [0, 1, 2].map((slot) => ({ group: 0, slot, adult: 0, room: -1 }));
  expect(costOf(grid, all).times).toEqual({ adult: 0, time: 0, morning: 0, apart: 2, turns: 1 });
});

test("the same school and seed give the same timetable", () => {
  fc.assert(
    fc.property(anySchool, (wanted) => {
      expect(found(wanted)).toEqual(found(wanted));
    }),
    { numRuns: 50 },
  );
});
