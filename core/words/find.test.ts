import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { correspondences, withImplied } from "#core/phonics";
import {
  chain,
  changeBetween,
  countSyllables,
  findWords,
  fourChoices,
  heaps,
  minimalPairs,
  placeOf,
  readLexicon,
  shapeOf,
  sortBySound,
  sortBySpelling,
  syllableStarts,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const all = correspondences.map((entry) => entry.gpc);
const everything = new Set(all);
const simple = new Set(
  "s=s a=a t=t p=p i=i n=n m=m d=d g=g o=o c=k k=k ck=k e=e u=u r=r h=h b=b f=f l=l j=j w=w sh=sh ch=ch".split(" "),
);

const wish = fc.record(
  {
    known: fc.subarray(all, { minLength: 20 }).map((list) => new Set(list)),
    target: fc.constantFrom(...all),
    place: fc.constantFrom("start" as const, "middle" as const, "end" as const, "balanced" as const),
    shape: fc.constantFrom("CVC", "CCVC", "CVCC"),
    syllables: fc.constantFrom(1, 2, [1, 2] as const),
    band: fc.integer({ min: 1, max: 5 }),
    count: fc.integer({ min: 0, max: 30 }),
    seed: fc.integer(),
  },
  { requiredKeys: ["known"] },
);

describe("findWords", () => {
  test("every word obeys every wish", () => {
    fc.assert(
      fc.property(wish, (wanted) => {
        const found = findWords({ lexicon, ...wanted });
        const readable = withImplied([...wanted.known, ...(wanted.target ? [wanted.target] : [])]);
        expect(new Set(found.map((word) => word.text)).size).toBe(found.length);
        if (wanted.count !== undefined) expect(found.length).toBeLessThanOrEqual(wanted.count);
        for (const word of found) {
          expect(word.units.filter((unit) => !readable.has(unit.gpc))).toEqual([]);
          if (wanted.band) expect(word.band).toBeLessThanOrEqual(wanted.band);
          const syllables = countSyllables(word.units);
          if (wanted.syllables === 1 || wanted.syllables === 2) expect(syllables).toBe(wanted.syllables);
          if (wanted.shape)
            expect(shapeOf(word.units, syllableStarts(word.units, word.stressed, word.joints))).toBe(wanted.shape);
          if (!wanted.target) continue;
          const place = placeOf(word.units, wanted.target);
          expect(place).toBeDefined();
          if (wanted.place && wanted.place !== "balanced") expect(place).toBe(wanted.place);
        }
      }),
      { numRuns: 120 },
    );
  });
  test("a balanced list takes from each place as evenly as the words allow", () => {
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.integer({ min: 1, max: 14 }), fc.integer(), (target, count, seed) => {
        const offered = findWords({ lexicon, known: everything, target });
        const taken = findWords({ lexicon, known: everything, target, place: "balanced", count, seed });
        expect(taken.length).toBe(Math.min(count, offered.length));
        const tally = (list: typeof taken) =>
          (["start", "middle", "end"] as const).map(
            (place) => list.filter((word) => placeOf(word.units, target) === place).length,
          );
        const [has, got] = [tally(offered), tally(taken)];
        for (const one of [0, 1, 2])
          for (const other of [0, 1, 2])
            if (got[one] !== has[one]) expect((got[other] ?? 0) - (got[one] ?? 0)).toBeLessThanOrEqual(1);
      }),
      { numRuns: 60 },
    );
  });
  test("contrasted words have one of the spellings each, in turn", () => {
    const found = findWords({ lexicon, known: simple, target: "sh=sh", contrast: ["ch=ch"], count: 12 });
    const has = (gpc: string) => found.filter((word) => word.units.some((unit) => unit.gpc === gpc)).length;
    expect([has("sh=sh"), has("ch=ch")]).toEqual([6, 6]);
  });
  test("leaves out what is to be avoided, words and spellings", () => {
    const found = findWords({ lexicon, known: simple, target: "sh=sh", avoid: ["ship", "i=i"] });
    expect(found.some((word) => word.text === "ship")).toBe(false);
    expect(found.some((word) => word.units.some((unit) => unit.gpc === "i=i"))).toBe(false);
  });
  test("the same seed gives the same words; another seed others", () => {
    const list = (seed: number) =>
      findWords({ lexicon, known: everything, count: 30, seed }).map((word) => word.text);
    expect(list(5)).toEqual(list(5));
    expect(list(6)).not.toEqual(list(5));
  });
  test("has words for an unknown target, and none for a spelling that no word has", () => {
    expect(findWords({ lexicon, known: simple, target: "ai=ai", count: 5 })).toHaveLength(5);
    expect(findWords({ lexicon, known: simple, target: "zq=k" })).toEqual([]);
  });
});

describe("chains", () => {
  test("each step changes exactly one unit, all words are readable, none comes twice", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 6, max: 20 }),
        fc.integer(),
        fc.subarray(["a=a", "e=e", "i=i", "o=o", "u=u"]),
        (steps, seed, contrast) => {
          const made = chain({ lexicon, known: simple, contrast, steps, seed, band: 5 });
          if (!made.ok) {
            expect(made.reason).toMatch(/No chain/);
            return;
          }
          expect(made.links).toHaveLength(steps);
          expect(new Set(made.links.map((link) => link.word.text)).size).toBe(steps);
          made.links.forEach((link, at) => {
            expect(link.word.units.filter((unit) => !simple.has(unit.gpc))).toEqual([]);
            const before = made.links[at - 1];
            if (before) expect(changeBetween(before.word, link.word)).toEqual(link.change);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  test("turn on the contrast that was asked for", () => {
    const made = chain({ lexicon, known: simple, contrast: ["i=i", "e=e"], steps: 8, seed: 2 });
    expect(made.ok).toBe(true);
    const between = made.ok
      ? made.links.filter(({ change }) => [change?.from, change?.to].sort().join() === "e=e,i=i")
      : [];
    expect(between.length).toBeGreaterThanOrEqual(2);
  });
  test("begin with the word that was asked for, or say why not", () => {
    const made = chain({ lexicon, known: simple, first: "Ship", steps: 6 });
    expect(made.ok && made.links[0]?.word.text).toBe("ship");
    expect(chain({ lexicon, known: simple, first: "train", steps: 6 })).toMatchObject({
      ok: false,
      reason: expect.stringMatching(/train/),
    });
  });
  test("say so when there is none, or when the number is not one", () => {
    expect(chain({ lexicon, known: new Set(["s=s", "a=a"]), steps: 10 })).toMatchObject({ ok: false });
    expect(chain({ lexicon, known: simple, steps: 3 })).toMatchObject({
      ok: false,
      reason: expect.stringMatching(/6 to 20/),
    });
    expect(chain({ lexicon, known: simple, steps: Number.NaN })).toMatchObject({ ok: false });
  });
});

describe("changeBetween", () => {
  const word = (text: string) => lexicon.find(text)[0] ?? fail(text);
  const fail = (text: string): never => {
    throw new Error(text);
  };
  test.each([
    ["cat", "cot", "changed", 1],
    ["cat", "cats", "added", 3],
    ["stop", "top", "removed", 0],
    ["tap", "trap", "added", 1],
    ["ship", "chip", "changed", 0],
  ])("%s to %s: %s at %i", (one, other, kind, at) => {
    expect(changeBetween(word(one), word(other))).toMatchObject({ kind, at });
  });
  test.each([
    ["cat", "dog"],
    ["cat", "cat"],
    ["cat", "coats"],
  ])("%s to %s is no single step", (one, other) => {
    expect(changeBetween(word(one), word(other))).toBeUndefined();
  });
});

describe("sorts and pairs", () => {
  const wanted = { lexicon, known: everything, count: 6, seed: 1, band: 4 };
  test("one sound with its spellings: each word has one of them only", () => {
    const sorted = sortBySpelling("ai", wanted);
    expect(sorted.length).toBeGreaterThanOrEqual(5);
    const gpcs = sorted.map((heap) => heap.gpc);
    for (const { gpc, words } of sorted)
      for (const one of words)
        expect(gpcs.filter((other) => one.units.some((unit) => unit.gpc === other))).toEqual([gpc]);
  });
  test("one spelling with its sounds", () => {
    expect(
      sortBySound("ea", wanted)
        .map((heap) => heap.gpc)
        .sort(),
    ).toEqual(["ea=ai", "ea=e", "ea=ee"]);
  });
  test("only what is known is sorted", () => {
    expect(
      heaps(["ai=ai", "ay=ai"], { ...wanted, known: new Set([...simple, "ai=ai"]) }).map((heap) => heap.gpc),
    ).toEqual(["ai=ai"]);
  });
  test("pairs differ in one unit, which is the confusion", () => {
    const pairs = minimalPairs({ lexicon, known: simple, sounds: ["i", "e"], count: 20, band: 5 });
    expect(pairs.length).toBeGreaterThanOrEqual(8);
    for (const { one, other, at } of pairs) {
      expect([one.units[at]?.sound, other.units[at]?.sound]).toEqual(["i", "e"]);
      expect(one.units.filter((unit, i) => unit.sound !== other.units[i]?.sound)).toHaveLength(1);
    }
  });
});

test("four-choice items have the spoken word and three others, each one unit away by another sound", () => {
  const items = fourChoices({ lexicon, known: simple, target: "sh=sh", count: 10, seed: 4 });
  expect(items.length).toBeGreaterThanOrEqual(5);
  for (const { spoken, choices } of items) {
    expect(choices).toHaveLength(4);
    expect(new Set(choices.map((choice) => choice.word.text)).size).toBe(4);
    expect(choices.filter((choice) => !choice.confusion).map((choice) => choice.word)).toEqual([spoken]);
    expect(spoken.units.some((unit) => unit.gpc === "sh=sh")).toBe(true);
    for (const { word, confusion } of choices) {
      if (!confusion) continue;
      expect(changeBetween(spoken, word)).toMatchObject({
        kind: "changed",
        at: confusion.at,
        from: confusion.from,
        to: confusion.to,
      });
      expect(word.units.every((unit) => simple.has(unit.gpc))).toBe(true);
    }
  }
});
