import { expect, test } from "vitest";
import type { Gaps } from "#contract";
import { proposeGroups } from "#core/groups";
import { familiesFor, learnersOf, nextBest, openedFor, tooLittleKnown } from "./learners.ts";

const gpcs = ["m=m", "a=a", "t=t", "sh=sh", "ee=ee", "oa=oa", "igh=igh", "ar=ar"];
const map: Gaps = {
  today: "2026-11-20",
  points: [],
  columns: gpcs.map((gpc, at) => ({ gpc, step: at + 1, stepId: `s${at + 1}`, title: "" })),
  rows: [
    { id: "ada", name: "Ada", classId: "k", cells: "s95g05g20u62o75u85n00.00" },
    { id: "ben", name: "Ben", classId: "k", cells: "s95s95s95s95s95s95s95s95" },
    { id: "cy", name: "Cy", classId: "k", cells: "" },
  ],
};

test("each cell of the map becomes need, security or nothing", () => {
  const [ada, ben, cy] = learnersOf(map);
  expect([...(ada?.needs ?? [])]).toEqual([
    ["a=a", 0.95],
    ["t=t", 0.8],
    ["sh=sh", 0.38],
  ]);
  expect([...(ada?.secure ?? [])]).toEqual(["m=m"]);
  expect(ben?.needs.size).toBe(0);
  expect(ben?.secure.size).toBe(8);
  expect(cy).toMatchObject({ needs: new Map(), secure: new Set() });
});

test("who needs nothing stays out of a proposal made from the map", () => {
  const { groups, unplaced } = proposeGroups({
    learners: learnersOf(map),
    order: gpcs,
    shape: { by: "size", least: 3, most: 5 },
    seed: 1,
  });
  expect(groups).toEqual([{ members: ["ada"], targets: ["a=a", "t=t", "sh=sh"] }]);
  expect([...unplaced]).toEqual([
    ["ben", "no need"],
    ["cy", "no need"],
  ]);
});

const ofGpcs = (of: Record<string, number>) => gpcs.map((gpc) => of[gpc] ?? 0);
const brings = {
  opens: ofGpcs({ "a=a": 40, "t=t": 10, "sh=sh": 20 }),
  texts: ofGpcs({ "t=t": 2 }),
  next: ofGpcs({ "sh=sh": 5 }),
  fades: ofGpcs({ "t=t": 12 }),
  mixed: ofGpcs({ "a=a": 3 }),
};
const worth = {
  gpcs,
  rows: ["ada", "ben"].map((id) => ({ id, ...brings })),
  examples: { "a=a": ["cat", "man", "had"], "sh=sh": ["ship"] },
  titles: { "t=t": ["The Mud Run"] },
};
test("a need weighs by what it opens for that child, and targets tell what they open for who needs them", () => {
  const all = learnersOf(map, { worth });
  const needs = all[0]?.needs as ReadonlyMap<string, number>;
  // Words count four parts of seven, texts, what comes next and mix-ups one each; a fifth stays whatever it brings.
  const share = (parts: number) => 0.2 + (0.8 * parts) / 7;
  expect(needs.get("a=a")).toBeCloseTo(0.95 * share(4 + 1), 2);
  expect(needs.get("t=t")).toBeCloseTo(0.8 * share(1 + 1), 2);
  expect(needs.get("sh=sh")).toBeCloseTo(0.38 * share(2 + 1), 2);
  const byWords = learnersOf(map, { worth, weights: { words: 1, texts: 0, next: 0, fades: 0, mixed: 0 } })[0]?.needs;
  expect(byWords?.get("a=a")).toBeCloseTo(0.95, 3);
  expect(byWords?.get("t=t")).toBeCloseTo(0.8 * 0.4, 3);
  expect([...(all[0]?.secure ?? [])]).toEqual(["m=m"]);
  // Of a child of whom no one worked it out every need weighs alike.
  expect(all[2]?.needs.size).toBe(0);
  expect(openedFor(["t=t", "a=a", "ee=ee"], all, worth)).toEqual([
    {
      gpc: "a=a",
      need: 1,
      words: 40,
      next: 0,
      texts: 0,
      examples: ["cat", "man", "had"],
      titles: [],
      mixed: 1,
      fading: 0,
    },
    { gpc: "t=t", need: 1, words: 10, next: 0, texts: 2, examples: [], titles: ["The Mud Run"], mixed: 0, fading: 1 },
  ]);
  expect(openedFor(["t=t"], all, undefined)).toEqual([]);
  // What is needed and opens most comes first; what opens nothing is no next thing.
  const ada = all[0] as (typeof all)[number];
  expect(nextBest([ada], worth).map(({ gpc }) => gpc)).toEqual(["a=a", "t=t", "sh=sh"]);
  expect(nextBest([ada], worth, 1)).toHaveLength(1);
});

test("what is pinned comes first, what is put off or struck out is no need; a child's own say comes behind its class's", () => {
  const say = (gpc: string, how: "pinned" | "later" | "struck") => ({
    ...{ gpc, how, until: how === "later" ? "2027-01-01" : null, by: "D.", since: "2026-11-20" },
  });
  const said = {
    classes: [{ id: "k", said: [say("a=a", "struck"), say("t=t", "later")] }],
    children: [{ id: "ada", said: [say("a=a", "pinned"), say("igh=igh", "pinned"), say("m=m", "pinned")] }],
  };
  const [ada, ben] = learnersOf(map, { worth, said });
  expect([...(ada?.needs ?? [])].map(([gpc, need]) => [gpc, need === 1])).toEqual([
    ["a=a", true],
    ["sh=sh", false],
    ["igh=igh", true],
  ]);
  expect(ben?.needs.size).toBe(0);
  expect(nextBest(learnersOf(map, { worth }), worth).map(({ gpc }) => gpc)).toEqual(["a=a", "t=t", "sh=sh"]);
});

test("what is no spelling counts beside the spellings, as needs weigh in the mean, and is offered to a group", () => {
  const need = {
    kind: "word",
    name: "",
    misses: 2,
    answers: 3,
    lastDay: "2026-11-20",
    lostFirst: 0,
  } as const;
  const others = {
    children: [{ id: "ben", name: "Ben", needs: [{ ...need, id: "read said", need: 0.8, items: [] }] }],
  };
  const [ada, ben] = learnersOf(map, { others });
  expect(ada?.needs).toEqual(learnersOf(map)[0]?.needs);
  expect(ben?.needs.get("exception words")).toBeCloseTo(0.8);
  const weighed = learnersOf(map, { worth, others })[1]?.needs.get("exception words") ?? 0;
  expect(weighed).toBeGreaterThan(0);
  expect(weighed).toBeLessThan(0.8);
  expect(familiesFor(ben ? [ben] : [])[0]).toBe("exception words");
  expect(familiesFor([])).toContain("blending start");
});

test("of whom little was asked nothing is said", () => {
  const few = {
    ...map,
    rows: [...map.rows, { id: "di", name: "Di", classId: "k", cells: "s95n00n00n00n00n00n00n00" }],
  };
  expect([...tooLittleKnown(few)]).toEqual([["di", { asked: 1, taught: 8 }]]);
});
