import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import { readEntry, readLexicon, toLexicon } from "#core/words";
import {
  bestOf,
  bringsNothing,
  commonWords,
  examplesOf,
  opensFor,
  shelfText,
  textsOpened,
  type WorthWeights,
  weighedNeeds,
  worthOfNeed,
} from "./index.ts";

const small = toLexicon(["r ai n|1", "t r ai n|1", "a dd|1", "s a t|1", "w ai t|3", "p ai r|5"].map(readEntry));
const chances = (of: Record<string, number>) => new Map(Object.entries(of));
const words = (count: number) => ({ ...bringsNothing, words: count });
const sure = { "r=r": 1, "n=n": 1, "t=t": 1, "a=a": 1, "s=s": 1, "w=w": 1, "p=p": 1 };

test("a spelling opens the words that come right with it and not without, weighed by how often they are met", () => {
  const { of } = opensFor(commonWords(small), chances({ ...sure, "ai=ai": 0, "dd=d": 0 }));
  expect(of.get("ai=ai")).toBeCloseTo(1 + 1 + 0.25, 2);
  expect(of.get("dd=d")).toBeCloseTo(1, 2);
  expect(of.get("s=s")).toBeUndefined();
  expect(of.has("r=r")).toBe(false);
});
test("what is half known opens half, and a word that waits for two things counts for neither much", () => {
  const half = opensFor(commonWords(small), chances({ ...sure, "ai=ai": 0.5, "dd=d": 1 }));
  expect(half.of.get("ai=ai")).toBeCloseTo(2.25 / 2, 9);
  const both = opensFor(commonWords(small), chances({ ...sure, "ai=ai": 0, "r=r": 0.1, "dd=d": 1 }));
  expect(both.of.get("ai=ai")).toBeCloseTo(0.1 + 0.1 + 0.25, 2);
});
test("against every word counted anew, with and without, on the words that ship", () => {
  const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
  const common = commonWords(lexicon);
  expect(common.words.length).toBeGreaterThan(3000);
  const gpcs = ["s=s", "a=a", "t=t", "i=i", "n=n", "r=r", "ai=ai", "ee=ee", "dd=d", "sh=sh", "e=e", "l=l", "d=d"];
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: gpcs.length, maxLength: gpcs.length }),
      (all) => {
        const known = new Map(gpcs.map((gpc, at) => [gpc, all[at] as number]));
        const { of } = opensFor(common, known);
        const expected = (with1: string | null) => {
          // What is implied follows from what is read today, and stays so.
          const read = new Map(known);
          if (with1) read.set(with1, 1);
          return common.words.reduce((sum, _, at) => {
            const units = common.units[at] as Uint16Array;
            if (!units.every((unit) => read.has(common.gpcs[unit] as string))) return sum;
            return (
              sum +
              units.reduce((product, unit) => product * (read.get(common.gpcs[unit] as string) as number), 1) *
                (common.weights[at] as number)
            );
          }, 0);
        };
        const before = expected(null);
        for (const gpc of ["ai=ai", "dd=d", "e=e"]) {
          const naive = expected(gpc) - before;
          // Words with what is not listed here add a little.
          expect(of.get(gpc) ?? 0).toBeGreaterThanOrEqual(naive - 1e-6);
        }
      },
    ),
    { numRuns: 15 },
  );
});
test("doubled letters open less than a vowel that many words wait for", () => {
  const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
  const common = commonWords(lexicon);
  const letters =
    "s=s a=a t=t p=p i=i n=n m=m d=d g=g o=o c=k k=k ck=k e=e u=u r=r h=h b=b f=f l=l j=j v=v w=w".split(" ");
  const known = new Map([
    ...letters.map((gpc) => [gpc, 0.95] as const),
    ["ai=ai", 0.1],
    ["dd=d", 0.1],
    ["ee=ee", 0.1],
  ]);
  const { of } = opensFor(common, known);
  expect(of.get("ee=ee")).toBeGreaterThan(4 * (of.get("dd=d") as number));
  expect(of.get("ai=ai")).toBeGreaterThan(4 * (of.get("dd=d") as number));
  const examples = examplesOf(common, "ai=ai", known);
  expect(examples).toHaveLength(3);
  for (const word of examples) expect(word).toContain("ai");
});
test("a need weighs by what it opens, and what opens nothing keeps a share", () => {
  expect(worthOfNeed(1, words(50), words(50))).toBe(1);
  expect(worthOfNeed(1, words(500), words(50))).toBe(1);
  expect(worthOfNeed(0.5, words(25), words(50))).toBeCloseTo(0.3, 6);
  expect(worthOfNeed(1, words(0), words(50))).toBeCloseTo(0.2, 6);
  expect(worthOfNeed(1, words(3), words(0))).toBeCloseTo(0.2, 6);
  expect(worthOfNeed(0, words(50), words(50))).toBe(0);
});

test("a child's needs weigh beside the best of them", () => {
  const needs = new Map([
    ["ai=ai", 0.9],
    ["dd=d", 0.9],
  ]);
  const weighed = weighedNeeds(commonWords(small), {
    needs,
    chances: chances({ ...sure, "ai=ai": 0.1, "dd=d": 0.1 }),
  });
  expect(weighed.get("ai=ai")).toBeCloseTo(0.9, 6);
  expect(weighed.get("dd=d")).toBeLessThan(0.6);
});

test("what the class is taught next counts with words that have it, as if it were known", () => {
  const { of, forNext } = opensFor(
    commonWords(small),
    chances({ ...sure, "r=r": 0.1, "dd=d": 1 }),
    new Set(["ai=ai"]),
  );
  // "rain" and "train" wait for r and for ai; ai comes next.
  expect(of.get("r=r")).toBeCloseTo(2 * 0.9 * 0.05, 2);
  expect(forNext.get("r=r")).toBeCloseTo(2 * 0.9 * 0.9, 2);
  expect(forNext.has("ai=ai")).toBe(false);
  expect(forNext.has("s=s")).toBe(false);
});

test("each part weighs as the school has it; all at nothing lets needs weigh alike", () => {
  const [ai, dd] = [
    { ...bringsNothing, words: 50, next: 10 },
    { ...bringsNothing, words: 10, texts: 2, mixed: 3 },
  ] as const;
  const best = bestOf([ai, dd]);
  expect(best).toEqual({ words: 50, texts: 2, next: 10, fades: 0, mixed: 3 });
  const by = (weights: Partial<WorthWeights>) =>
    [ai, dd].map((one) => worthOfNeed(1, one, best, { ...bringsNothing, ...weights }));
  expect(by({ words: 1 })).toEqual([1, 0.36]);
  expect(by({ texts: 1 })).toEqual([0.2, 1]);
  expect(by({ words: 1, texts: 1 })).toEqual([0.6, 0.68]);
  expect(by({})).toEqual([1, 1]);
  expect(by({ mixed: 1 })).toEqual([0.2, 1]);
  // What fades in none of them says nothing.
  expect(by({ fades: 5 })).toEqual([0.2, 0.2]);
  // What nothing brings is no reason for any of them.
  expect(worthOfNeed(1, words(50), words(50))).toBe(1);
});

test("a text opens with the spelling that brings nine of its ten words, not with one of two that it waits for", () => {
  const shelf = [
    shelfText("rain", "Rain. A train at rain.", small),
    shelfText("two", "Rain add rain add.", small),
    shelfText("easy", "Sat sat sat.", small),
    shelfText("none", "", small),
  ];
  const reader = { chances: chances({ ...sure, "ai=ai": 0.1, "dd=d": 0.1 }), wholes: new Set(["at", "a"]) };
  expect([...textsOpened(shelf, reader)]).toEqual([["ai=ai", ["rain"]]]);
  const later = { ...reader, chances: chances({ ...sure, "ai=ai": 1, "dd=d": 0.1 }) };
  expect([...textsOpened(shelf, later)]).toEqual([["dd=d", ["two"]]]);
});
