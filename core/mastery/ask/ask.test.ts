import fc from "fast-check";
import { expect, test } from "vitest";
import { type GivenAnswer, inCheck, isRight, type Outcome } from "#core/ledger";
import { dice, readEntry, toLexicon } from "#core/words";
import {
  type AskWanted,
  type Candidate,
  chanceOn,
  dayNumber,
  follow,
  heardFrom,
  type Lessons,
  nextToAsk,
  type Skill,
  shipped,
} from "../index.ts";

const entries = ["r ai n|2", "t r ai n|3", "s a t|1", "p i n|2", "n e t|2", "m ai n|3", "s p i n|3", "t i n|3"];
const lexicon = toLexicon(entries.map(readEntry));
const words = { lexicon };
const lessons: Lessons = { taughtOn: () => dayNumber("2026-09-01"), sessions: () => [] };
const by = { lessons, p: shipped };
const gpcs = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "e=e", "r=r", "ai=ai"];
const DAY = "2026-11-20";
let serial = 0;

function answer(kind: Candidate["kind"], item: string, outcome: Outcome, day = DAY): GivenAnswer {
  const id = `a${String(serial++).padStart(6, "0")}`;
  const markedAt = new Date(Date.parse(`${day}T09:00:00.000Z`) + serial * 1000).toISOString();
  const base = {
    id,
    ...inCheck(kind, "k"),
    tags: [],
    childId: "c",
    item,
    ms: 900,
    pass: 1,
    markedAt,
    day,
    markedBy: "x",
  };
  return { ...base, outcome } as GivenAnswer;
}
const candidate = (kind: Candidate["kind"], item: string): Candidate => ({
  kind,
  item,
  seconds: kind === "card" ? 5 : 6,
  heard: heardFrom(answer(kind, item, "right"), words)[0] as Candidate["heard"],
});
const candidates = [
  ...gpcs.map((gpc) => candidate("card", gpc)),
  ...entries.map((entry) => candidate("words", entry.split("|")[0] ?? "")),
];
const wanted = (
  before: readonly GivenAnswer[],
  given: readonly GivenAnswer[],
  more: Partial<AskWanted> = {},
): AskWanted => ({
  mind: follow([...before, ...given], { ...by, words }),
  by,
  day: dayNumber(DAY),
  candidates,
  given,
  weight: () => 1,
  fresh: new Set(),
  seconds: 600,
  most: 2,
  seed: 5,
  ...more,
});
const strong = gpcs
  .slice(0, 8)
  .flatMap((gpc) => [answer("card", gpc, "right", "2026-11-01"), answer("card", gpc, "right", "2026-11-08")]);

/** A whole sitting with a child that answers by chance. */
function sitting(seed: number, right: (item: string) => number, more: Partial<AskWanted> = {}) {
  const from = dice(seed);
  const given: GivenAnswer[] = [];
  for (;;) {
    const next = nextToAsk(wanted(strong, given, more));
    if ("done" in next) return { given, done: next.done };
    const { kind, item } = next.ask;
    given.push(answer(kind, item, from.share() < right(item) ? "right" : "none"));
  }
}

test("begins with something that will come right, and asks what is doubtful", () => {
  const first = nextToAsk(wanted(strong, []));
  if ("done" in first) throw new Error("nothing to ask");
  expect(first.telling.right).toBeGreaterThan(0.85);
  expect(first.why).toBe("something that will come right");
  const second = nextToAsk(wanted(strong, [answer("card", "s=s", "right")]));
  if ("done" in second) throw new Error("nothing to ask");
  const asks = second.ask.heard.form === "one" ? [second.ask.heard.skill] : second.ask.heard.skills;
  expect(asks.some((skill) => ["say r=r", "say ai=ai"].includes(skill))).toBe(true);
  expect(second.why).toMatch(/^settles /);
});
test("the same sitting gives the same item, whoever asks", () => {
  const given = [answer("card", "s=s", "right"), answer("card", "ai=ai", "none")];
  expect(nextToAsk(wanted(strong, given))).toEqual(nextToAsk(wanted(strong, given)));
});
test("a sitting ends, asks nothing more often than it may, and never the same twice running", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), fc.double({ min: 0, max: 1, noNaN: true }), (seed, right) => {
      const { given } = sitting(seed, () => right);
      const items = given.map(({ item }) => item);
      for (const item of items) expect(items.filter((one) => one === item).length).toBeLessThanOrEqual(3);
      for (const [at, item] of items.entries()) expect(item).not.toBe(items[at + 1]);
    }),
    { numRuns: 30 },
  );
});
test("after two misses comes what is likeliest right; the end is on something right where that can be", () => {
  const weak = (item: string) => (/ai|r=r|^r /.test(item) ? 0 : 0.99);
  for (let seed = 1; seed < 12; seed++) {
    const { given } = sitting(seed, weak);
    let run = 0;
    // Later only what was missed is left to ask.
    for (const { outcome } of given.slice(0, 24)) {
      run = isRight(outcome) ? 0 : run + 1;
      expect(run).toBeLessThanOrEqual(3);
    }
    expect(given.length).toBeGreaterThan(1);
  }
  const missed = [answer("card", "s=s", "right"), answer("card", "ai=ai", "none"), answer("card", "r=r", "none")];
  const next = nextToAsk(wanted(strong, missed));
  if ("done" in next) throw new Error("nothing to ask");
  const others = candidates.filter((one) => one.item !== "r=r").map((one) => nextToAskRight(one, missed));
  expect(next.telling.right).toBeCloseTo(Math.max(...others), 6);
});
function nextToAskRight(one: Candidate, given: readonly GivenAnswer[]): number {
  const next = nextToAsk(wanted(strong, given, { candidates: [one] }));
  return "done" in next ? 0 : next.telling.right;
}
test("what nothing depends on is not asked, and time ends it", () => {
  const only = (skill: Skill) => (skill === "say ai=ai" ? 1 : 0);
  const asked = sitting(3, () => 1, { weight: only }).given;
  for (const one of asked.slice(1)) expect(one.item).toMatch(/ai/);
  expect(sitting(3, () => 0.5, { seconds: 20 })).toMatchObject({ done: "time" });
  const settled = gpcs.flatMap((gpc) =>
    ["02", "05", "09", "12", "15"].map((day) => answer("card", gpc, "right", `2026-11-${day}`)),
  );
  expect(nextToAsk(wanted(settled, [])).valueOf()).toHaveProperty("done", "settled");
});
test("what was taught last week is not asked first inside a long word", () => {
  const fresh = new Set(["ai=ai"]);
  const inWord = [candidate("words", "t r ai n"), candidate("words", "p i n")];
  const next = nextToAsk(wanted(strong, [answer("card", "s=s", "right")], { candidates: inWord, fresh }));
  if (!("done" in next)) expect(next.ask.item).toBe("p i n");
  const known = [...strong, answer("card", "ai=ai", "right", "2026-11-15")];
  const later = nextToAsk(wanted(known, [answer("card", "s=s", "right")], { candidates: inWord, fresh }));
  expect(later).toMatchObject({ ask: { item: "t r ai n" } });
});
test("each answer moves what is asked next: a word that failed is split", () => {
  const given = [answer("card", "s=s", "right"), answer("words", "t r ai n", "none")];
  const next = nextToAsk(wanted(strong, given, { most: 1 }));
  if ("done" in next) throw new Error("nothing to ask");
  const skills = next.ask.heard.form === "one" ? [next.ask.heard.skill] : next.ask.heard.skills;
  const doubtful = (["say r=r", "say ai=ai"] as const).filter((skill) => skills.includes(skill));
  expect(doubtful).toHaveLength(1);
  expect(next.why).toBe("separates r and ai");
  expect(chanceOn(follow([...strong, ...given], { ...by, words }), "say ai=ai", DAY, by).chance).toBeLessThan(0.66);
});
