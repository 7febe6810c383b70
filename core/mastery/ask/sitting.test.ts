import fc from "fast-check";
import { expect, test } from "vitest";
import { type GivenAnswer, inCheck, type KindId, type Outcome } from "#core/ledger";
import { dice, readEntry, toLexicon } from "#core/words";
import {
  byOf,
  candidatesOf,
  dayNumber,
  follow,
  newMind,
  readSince,
  type SeekFrom,
  seekNext,
  shipped,
  unaskedIn,
  unaskedInWords,
  weightsOf,
} from "../index.ts";

const lexicon = toLexicon(
  ["r ai n|2", "t r ai n|3", "s a t|1", "p i n|2", "n e t|2", "m ai n|3", "s p i n|3"].map(readEntry),
);
const words = { lexicon };
const taught = ["s=s", "a=a", "t=t", "p=p", "i=i", "n=n", "m=m", "e=e", "r=r", "ai=ai"];
const DAY = "2026-11-20";
let serial = 0;

function answer(kind: KindId, item: string, outcome: Outcome, change: Partial<GivenAnswer> = {}): GivenAnswer {
  serial += 1;
  const base = { id: `a${String(serial).padStart(6, "0")}`, childId: "c", ms: 900, pass: 1, tags: [], markedBy: "x" };
  const markedAt = new Date(Date.parse(`${change.day ?? DAY}T09:00:00.000Z`) + serial * 1000).toISOString();
  return { ...base, ...inCheck(kind, "k"), item, outcome, day: DAY, markedAt, ...change } as GivenAnswer;
}

const items = [...taught, "said", "r ai n", "t r ai n", "s a t", "p i n", "n e t", "m ai n", "s p i n"];
const kindOf = (item: string): KindId => (item.includes("=") ? "card" : item.includes(" ") ? "words" : "exception");
const check = { items, kindOf, seed: 7, minutes: 5, words, secondsOf: () => 5 };
const candidates = candidatesOf(check);

function fromOf(before: readonly GivenAnswer[], change: Partial<SeekFrom> = {}): SeekFrom {
  const taughtOn = Object.fromEntries(taught.map((gpc) => [gpc, dayNumber("2026-09-01")]));
  const lessons = { taughtOn: (thing: string) => taughtOn[thing], sessions: () => [] };
  return {
    day: DAY,
    mind: follow(before, { lessons, p: shipped, words }, newMind(shipped)),
    taughtOn,
    sessions: {},
    weights: weightsOf({ taught, exceptionWords: ["said"], targets: new Set() }),
    fresh: [],
    own: null,
    read: readSince(before, taught, words),
    ...change,
  };
}
const nextIn = (from: SeekFrom, given: readonly GivenAnswer[], minutes = 5) =>
  seekNext(from, candidates, given, { seed: 7, minutes, words, by: byOf(from) });

/** A whole check with a child that is right with what is listed. */
function whole(from: SeekFrom, right: (item: string) => boolean, minutes = 5) {
  const given: GivenAnswer[] = [];
  for (;;) {
    const { next } = nextIn(from, given, minutes);
    if ("done" in next) return { given, done: next.done };
    const { item, kind } = next.ask;
    given.push(answer(kind, item, right(item) ? "right" : "none"));
  }
}
const known = taught.flatMap((gpc) =>
  ["2026-10-05", "2026-10-12", "2026-11-02", "2026-11-16"].map((day) => answer("card", gpc, "right", { day })),
);

test("cards, words and exception words are candidates, each by what it asks", () => {
  expect(candidates.map(({ kind }) => kind)).toEqual(items.map(kindOf));
  expect(candidates.find(({ item }) => item === "said")?.heard).toMatchObject({ skill: "read said" });
});
test("what is kept of a child survives the way through JSON, and gives the same items there", () => {
  const from = fromOf(known.slice(0, 12));
  const sent = JSON.parse(JSON.stringify(from)) as SeekFrom;
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 10_000 }), (seed) => {
      const by = dice(seed);
      const right = new Map(items.map((item) => [item, by.share() < 0.7]));
      const { given } = whole(from, (item) => right.get(item) === true);
      for (let many = 0; many <= given.length; many++) {
        const one = nextIn(from, given.slice(0, many)).next;
        // Another device, which had the marks in another order.
        const other = nextIn(sent, given.slice(0, many).reverse()).next;
        expect(other).toEqual(one);
      }
    }),
    { numRuns: 12 },
  );
});
test("a child that is known well is asked little, a new one more, and time ends it", () => {
  const little = whole(fromOf(known), () => true);
  const more = whole(fromOf([]), () => true);
  expect(little.done).toBe("settled");
  expect(little.given.length).toBeLessThan(more.given.length);
  const short = whole(fromOf([]), (item) => /s|a|t/.test(item), 0.5);
  expect(short.done).toBe("time");
  expect(short.given.length).toBeLessThan(30);
});
test("what was not asked is told by why: known, read just now, surely a gap, in doubt", () => {
  const missed = ["2026-10-05", "2026-10-12", "2026-11-02", "2026-11-16"].flatMap((day) => [
    answer("card", "ai=ai", "none", { day }),
  ]);
  const before = [
    ...known.filter(({ item }) => item !== "ai=ai" && item !== "r=r" && item !== "m=m"),
    ...missed,
    answer("words", "s a t", "right", { day: "2026-11-18" }),
  ];
  const from = fromOf(before);
  expect(from.read["s=s"]).toEqual({ words: 1, texts: 0, since: "2026-11-16" });
  const given = [answer("words", "m ai n", "none"), answer("card", "n=n", "right")];
  const { mind } = nextIn(from, given);
  const unasked = unaskedIn(from, { mind, by: byOf(from) }, candidates, given);
  expect(unasked.inWords).toEqual(["m=m", "ai=ai"]);
  expect(unasked.known).toContain("s=s");
  expect(unasked.open).toEqual(["r=r"]);
  expect(unaskedInWords(unasked, DAY)).toEqual([
    "9 cards were not asked:",
    "6 are surely known by what was marked before, and read 3 times in words since Mon 16 Nov",
    "2 came up in words just now",
    "1 is still in doubt",
  ]);
  const { gaps } = unaskedIn(from, { mind, by: byOf(from) }, candidates, []);
  expect(gaps).toEqual(["ai=ai"]);
});
test("what a group works at weighs twice, what was taught last more than what was taught first", () => {
  const weights = weightsOf({ taught, exceptionWords: ["Said"], targets: new Set(["t=t"]) });
  expect(weights["say ai=ai"]).toBe(1);
  expect(weights["say s=s"]).toBeLessThan(weights["say e=e"] as number);
  expect(weights["say t=t"]).toBeGreaterThan(weights["say ai=ai"] as number);
  expect(weights["read said"]).toBeGreaterThan(0);
  expect(weights["say oa=oa"]).toBeUndefined();
});
test("words and texts that were read since a card count once for each, a new card begins anew", () => {
  const inText = (item: string, readingId: string) =>
    answer("words", item, "right", { source: { kind: "reading", readingId }, way: "text", day: "2026-11-19" });
  const log = [
    answer("words", "r ai n", "right", { day: "2026-11-01" }),
    answer("card", "ai=ai", "right", { day: "2026-11-10" }),
    answer("words", "t r ai n", "right", { day: "2026-11-12" }),
    inText("m ai n", "one"),
    inText("r ai n", "one"),
    inText("r ai n", "two"),
  ];
  expect(readSince(log, ["ai=ai", "oa=oa"], words)).toEqual({ "ai=ai": { words: 1, texts: 2, since: "2026-11-10" } });
  expect(readSince(log.slice(0, 1), ["ai=ai"], words)["ai=ai"]).toEqual({ words: 1, texts: 0, since: "2026-11-01" });
});
