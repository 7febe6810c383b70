import { addDays, formatISO, parseISO } from "date-fns";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type BlockChild,
  type BlockDay,
  type BlockWanted,
  Forecast,
  minutesOfRoutine,
  planBlock,
  roomFor,
  routineIn,
  shippedRoutines,
  targetsOf,
  ways,
} from "./index.ts";

const today = "2026-11-23";
const later = (days: number) => formatISO(addDays(parseISO(today), days), { representation: "date" });
/** Mondays, Tuesdays and Thursdays of so many weeks. */
const daysOf = (weeks: number, minutes = 15): BlockDay[] =>
  Array.from({ length: weeks }, (_, week) =>
    [0, 1, 3].map((day) => ({ on: later(week * 7 + day), minutes, room: minutes >= 20 ? 2 : 1 })),
  ).flat();
const child = (id: string, chances: Record<string, number>, fades: Record<string, number> = {}): BlockChild => {
  const needs = Object.entries(chances).flatMap(([gpc, chance]) =>
    chance < 0.7 ? [[gpc, 1 - chance] as const] : [],
  );
  return {
    ...{ id, chances: new Map(Object.entries(chances)), fades: new Map(Object.entries(fades)) },
    ...{ needs: new Map(needs), worth: new Map(needs) },
  };
};
const block = (wanted: Partial<BlockWanted> & Pick<BlockWanted, "children">) =>
  planBlock({ today, days: daysOf(4), past: [], ...wanted });
const taught = (sessions: ReturnType<typeof block>) => sessions.map(({ points }) => points.map(({ gpc }) => gpc));

describe("a block of weeks", () => {
  const children = [
    child("ada", { "ai=ai": 0.1, "oa=oa": 0.2, "s=s": 0.98 }),
    child("ben", { "ai=ai": 0.2, "oa=oa": 0.9, "s=s": 0.97 }),
    child("cy", { "ai=ai": 0.15, "oa=oa": 0.3, "ee=ee": 0.4, "s=s": 0.99 }),
  ];

  test("begins with what most need, goes on with it, and comes back to it", () => {
    const [first, second, ...rest] = block({ children });
    expect(first?.points).toEqual([{ gpc: "ai=ai", step: "new", way: null, for: ["ada", "ben", "cy"] }]);
    expect(second?.points).toMatchObject([{ gpc: "oa=oa", step: "new", for: ["ada", "cy"] }]);
    const again = rest.flatMap(({ points }) => points).find(({ gpc }) => gpc === "ai=ai");
    expect(again?.step).toMatch(/practise|again/);
    // What no one needs is no point.
    expect(taught(block({ children })).flat()).not.toContain("s=s");
  });

  test("has two points where the minutes allow, one where they do not", () => {
    expect(block({ children, days: daysOf(1, 20) })[0]?.points).toHaveLength(2);
    expect(block({ children, days: daysOf(1, 19) })[0]?.points).toHaveLength(1);
  });

  test("whoever says at sight all that a session teaches comes for the cards alone; never all of them", () => {
    const firm = child("dot", { "ai=ai": 0.95, "oa=oa": 0.4, "s=s": 0.99 });
    const [first, second] = block({ children: [...children, firm] });
    expect(first?.points.map(({ gpc }) => gpc)).toEqual(["ai=ai"]);
    expect(first?.cardsOnly).toEqual(["dot"]);
    expect(first?.cards.find(({ childId }) => childId === "dot")?.gpcs).toContain("oa=oa");
    // Of two points one is enough to be there for.
    expect(second?.points.map(({ gpc }) => gpc)).toEqual(["oa=oa"]);
    expect(second?.cardsOnly).toEqual(["ben"]);
    expect(block({ children: [...children, firm], days: daysOf(1, 20) })[0]?.cardsOnly).toEqual([]);
    // What a teacher wants is taught to all who come, also when all have it.
    const wish = block({ children: [firm], fixed: [{ on: today, gpcs: ["ai=ai"] }] })[0];
    expect([wish?.points.map(({ gpc }) => gpc), wish?.cardsOnly]).toEqual([["ai=ai"], []]);
    // Review alone is for everyone.
    for (const one of block({ children: [firm, firm] }))
      if (one.points.length === 0) expect(one.cardsOnly).toEqual([]);
  });

  test("takes what is pinned first, keeps what a teacher fixed, and plans around it", () => {
    expect(taught(block({ children, first: [new Set(["ee=ee"])] }))[0]).toEqual(["ee=ee"]);
    const fixed = [
      { on: later(0), gpcs: ["s=s"] },
      { on: later(1), gpcs: [] },
    ];
    expect(taught(block({ children, fixed: [{ on: later(1), gpcs: ["ai=ai"] }] }))[0]).toEqual(["oa=oa"]);
    const sessions = block({ children, fixed });
    expect(taught(sessions).slice(0, 3)).toEqual([["s=s"], [], ["ai=ai"]]);
    expect(sessions.map((one) => one.fixed).slice(0, 3)).toEqual([true, true, false]);
  });

  test("leaves out what cannot be practised, and has no point where there is time for none", () => {
    expect(taught(block({ children, fits: (gpc) => gpc !== "ai=ai" }))[0]).toEqual(["oa=oa"]);
    expect(taught(block({ children, days: daysOf(2).map((day) => ({ ...day, room: 0 })) })).flat()).toEqual([]);
    const { usual, mixed, review } = shippedRoutines;
    expect([roomFor(usual, 30), roomFor(mixed, 30), roomFor(mixed, 15), roomFor(review, 30)]).toEqual([1, 2, 1, 0]);
  });

  test("is review alone where no one needs anything, with the cards of what fades", () => {
    const [now, ...rest] = block({
      children: [child("ada", { "s=s": 0.99, "ai=ai": 0.95 }, { "ai=ai": 60 })],
      days: daysOf(6),
    });
    expect(now?.points).toEqual([]);
    expect(now?.cards).toEqual([]);
    const card = rest.find(({ cards }) => cards.length > 0);
    expect(card?.cards).toEqual([{ childId: "ada", gpcs: ["ai=ai"] }]);
    expect(rest.every(({ points }) => points.length === 0)).toBe(true);
  });

  test("teaches differently what was taught twice and is not there, one way after the other", () => {
    const stuck = [child("ada", { "ai=ai": 0.1 }), child("ben", { "ai=ai": 0.1 })];
    const past = (times: number) =>
      Array.from({ length: times }, (_, at) => [
        { on: later(-60 + at * 9), taught: ["ai=ai"] },
        { on: later(-59 + at * 9), taught: ["s=s"] },
        { on: later(-58 + at * 9), taught: ["t=t"] },
      ]).flat();
    const first = (times: number) => block({ children: stuck, past: past(times) })[0]?.points[0];
    expect(first(1)).toMatchObject({ step: "again", way: null });
    expect([2, 3, 4, 5].map((times) => first(times)?.way)).toEqual([...ways, ways.at(-1)]);
    // One child alone is no reason to teach all of them differently.
    const [only] = block({ children: [stuck[0] as BlockChild, child("ben", { "ai=ai": 0.9 })], past: past(2) });
    expect(only?.points.map(({ step }) => step)).not.toContain("differently");
  });

  test("moves on when they have it: what a check has shown is seen when it is worked out anew", () => {
    const has = children.map((one) => ({
      ...one,
      chances: new Map([...one.chances, ["ai=ai", 0.95]]),
      needs: new Map(one.needs),
    }));
    for (const one of has) one.needs.delete("ai=ai");
    expect(taught(block({ children: has })).flat()).not.toContain("ai=ai");
  });

  test("a session that is lost loses no point: it comes on a later day", () => {
    const all = new Set(taught(block({ children })).flat());
    const lost = new Set(taught(block({ children, days: daysOf(4).slice(1) })).flat());
    expect(lost).toEqual(all);
    expect(block({ children, days: [] })).toEqual([]);
  });

  test("the last session of a week looks at what the week taught", () => {
    const sessions = block({ children });
    const [one, two, three, next] = sessions;
    expect([one?.look, two?.look]).toEqual([[], []]);
    expect(three?.look).toEqual([
      ...new Set([one, two, three].flatMap((each) => each?.points.map(({ gpc }) => gpc))),
    ]);
    expect(next?.look).toEqual([]);
  });

  test("holds for any group: the same block each time, no point twice within a rest, cards few, in doubt, and no point of the day", () => {
    const gpcs = ["s=s", "t=t", "ai=ai", "oa=oa", "ee=ee", "ch=ch", "sh=sh", "igh=igh"];
    const chances = fc.dictionary(fc.constantFrom(...gpcs), fc.double({ min: 0, max: 1, noNaN: true }));
    const fades = fc.dictionary(fc.constantFrom(...gpcs), fc.integer({ min: 0, max: 100 }));
    const some = fc.array(fc.tuple(chances, fades), { maxLength: 12 });
    fc.assert(
      fc.property(some, fc.integer({ min: 2, max: 8 }), fc.integer({ min: 5, max: 30 }), (all, weeks, minutes) => {
        const group = all.map(([its, fade], at) => child(`c${at}`, its, fade));
        const wanted = { children: group, days: daysOf(weeks, minutes) };
        const sessions = block(wanted);
        expect(block(wanted)).toEqual(sessions);
        expect(sessions).toHaveLength(weeks * 3);
        for (const [at, { points, cards }] of sessions.entries()) {
          const here = points.map(({ gpc }) => gpc);
          expect(here.length).toBeLessThanOrEqual(minutes >= 20 ? 2 : 1);
          const before = sessions.slice(Math.max(0, at - 2), at).flatMap((one) => one.points.map(({ gpc }) => gpc));
          for (const gpc of here) expect(before).not.toContain(gpc);
          for (const one of cards) {
            expect(one.gpcs.length).toBeLessThanOrEqual(4);
            expect(new Set(one.gpcs).size).toBe(one.gpcs.length);
            for (const gpc of one.gpcs) expect(here).not.toContain(gpc);
          }
        }
      }),
      { numRuns: 150 },
    );
  });
});

test("a forecast fades with the days, more slowly after each meeting, and stays a chance", () => {
  const seen = new Forecast(child("ada", { "ai=ai": 0.8 }, { "ai=ai": 40 }), today);
  expect(seen.chance("ai=ai", today)).toBe(0.8);
  expect(seen.chance("ai=ai", later(28))).toBeCloseTo(0.4);
  expect(seen.chance("oa=oa", today)).toBe(0);
  const before = seen.chance("ai=ai", later(14));
  seen.teach("ai=ai", later(14), 1);
  const then = seen.chance("ai=ai", later(14));
  expect(then).toBeGreaterThan(before);
  const lost = then - seen.chance("ai=ai", later(42));
  expect(lost / then).toBeCloseTo(0.35);
  for (let day = 15; day < 30; day++) seen.meet("ai=ai", later(day));
  expect(seen.chance("ai=ai", later(30))).toBeLessThanOrEqual(1);
  expect(seen.gain("ai=ai", later(30), 2)).toBeLessThan(seen.gain("ai=ai", later(30), 1) + 1e-9);
});

test("each way changes a routine and leaves it as long; what has its parts already stays", () => {
  for (const [id, routine] of Object.entries(shippedRoutines))
    for (const way of ways) {
      const changed = routineIn(routine, way);
      expect(minutesOfRoutine(changed), `${id}, ${way}`).toBe(minutesOfRoutine(routine));
      expect(routineIn(changed, way)).toEqual(changed);
      expect(changed.parts.some(({ kind }) => ["chain", "pairs", "blend"].includes(kind))).toBe(true);
    }
  expect(routineIn(shippedRoutines.usual, null)).toBe(shippedRoutines.usual);
  expect(routineIn(shippedRoutines.usual, "a contrast").parts.map(({ kind }) => kind)).toContain("pairs");
});

test("a session teaches one spelling, or two that differ", () => {
  expect(targetsOf({ target: "ai=ai" })).toEqual(["ai=ai"]);
  expect(targetsOf({ target: "ai=ai", second: "oa=oa" })).toEqual(["ai=ai", "oa=oa"]);
  expect(targetsOf({ target: "ai=ai", second: "ai=ai" })).toEqual(["ai=ai"]);
});
