import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { accentOf } from "#core/phonics";
import { positionsOf, readLexicon, spellOut, split } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const first = (word: string) => split(word, { lexicon })[0];
const gpcs = (word: string) =>
  first(word)
    ?.units.map((unit) => unit.gpc)
    .join(" ");

describe("a reading", () => {
  test("places the letters of each unit, a split digraph in two", () => {
    expect(first("smiled")?.units.map((unit) => unit.at)).toEqual([[0], [1], [2, 4], [3], [5]]);
  });
  test("counts positions in the word as it was given", () => {
    expect(first("well-known")?.units.at(-1)?.at).toEqual([9]);
    expect(first("isn't")?.units.at(-1)?.at).toEqual([4]);
    expect(first("café")?.units.at(-1)?.at).toEqual([3]);
  });
  test.each([
    ["rabbit", "rab bit", "CV.CVC"],
    ["tiger", "ti ger", "CV.CV"],
    ["river", "riv er", "CVC.V"],
    ["candle", "can dle", "CVC.CV"],
    ["little", "lit tle", "CVC.V"],
    ["picnic", "pic nic", "CVC.CVC"],
    ["hundred", "hun dred", "CVC.CCVC"],
    ["rainbow", "rain bow", "CVC.CV"],
    ["jumping", "jump ing", "CVCC.VC"],
    ["ship", "ship", "CVC"],
    ["strap", "strap", "CCCVC"],
    ["hopeful", "hope ful", "CVC.CVC"],
  ])("%s is %s, %s", (word, syllables) => {
    expect(first(word)?.syllables.join(" ")).toBe(syllables);
  });
  test.each([
    ["ship", "CVC"],
    ["strap", "CCCVC"],
    ["hand", "CVCC"],
    ["box", "CVC"],
    ["quick", "CVC"],
    ["at", "VC"],
    ["plant", "CCVCC"],
  ])("%s has the shape %s", (word, shape) => {
    expect(first(word)?.shape).toBe(shape);
  });
  test.each([
    ["making", { base: "make", endings: ["ing"] }],
    ["unhelpfully", { base: "help", beginnings: ["un"], endings: ["ful", "ly"] }],
    ["happiest", { base: "happy", endings: ["est"] }],
    ["rainbows", { parts: ["rain", "bow"], endings: ["s"] }],
    ["Sam's", { base: "sam", endings: ["'s"] }],
    ["corner", { base: "corner", endings: [] }],
  ])("%s has its parts", (word, parts) => {
    expect(first(word)?.morphemes).toMatchObject(parts);
  });
});

describe("where a reading comes from", () => {
  test.each([
    ["ship", "lexicon"],
    ["one", "corrected"],
    ["fizzers", "derived"],
    ["birdseed", "compound"],
    ["blorf", "rules"],
  ])("%s: %s", (word, source) => {
    expect(first(word)?.source).toBe(source);
  });
  test("surer sources are more confident", () => {
    const sure = ["ship", "fizzers", "birdseed", "blorf"].map((word) => first(word)?.confidence ?? 0);
    expect([...sure].sort((one, other) => other - one)).toEqual(sure);
  });
  test.each([
    ["drones", "d=d r=r o_e=oa n=n s=z"],
    ["zapping", "z=z a=a pp=p i=i ng=ng"],
    ["quaked", "qu=kw a_e=ai k=k d=t"],
    ["Tam's", "t=t a=a m=m s=z"],
    ["fox's", "f=f o=o x=ks s=iz"],
    ["couldn't", "c=k oul=uu d=d n=n t=t"],
    ["we'll", "w=w e=ee ll=l"],
    ["oddly", "o=o dd=d l=l y=ee"],
    ["morally", "m=m o=o r=r a=schwa ll=l y=ee"],
  ])("%s is %s", (word, units) => {
    expect(gpcs(word)).toBe(units);
  });
});

test("several readings are kept, the commonest first", () => {
  const readings = (word: string) =>
    split(word, { lexicon }).map((one) => one.units.map((unit) => unit.sound).join(" "));
  expect(readings("read")).toEqual(["r ee d", "r e d"]);
  expect(readings("bow")).toEqual(["b ow", "b oa"]);
  expect(readings("wind")).toEqual(["w i n d", "w igh n d"]);
  expect(readings("Wind")).toEqual(readings("wind"));
});

test("the vowel of bath follows the accent", () => {
  const vowel = (id: string) => split("bath", { lexicon, accent: accentOf(id) })[0]?.units[1]?.gpc;
  expect(vowel("neutral")).toBe("a=a");
  expect(vowel("long-bath")).toBe("a=ar");
  expect(split("baths", { lexicon, accent: accentOf("long-bath") })[0]?.units[1]?.gpc).toBe("a=ar");
  expect(split("cat", { lexicon, accent: accentOf("long-bath") })[0]?.units[1]?.gpc).toBe("a=a");
});

describe("for any word at all", () => {
  const letters = (word: string) => word.toLowerCase().replace(/[^a-z]/g, "");
  test("the units' letters are exactly the word's letters, each once", () => {
    const word = fc.oneof(
      fc.stringMatching(/^[a-z]{1,16}$/),
      fc.constantFrom(...lexicon.words.map((one) => one.text)),
      fc
        .tuple(
          fc.constantFrom(...lexicon.words.map((one) => one.text)),
          fc.constantFrom("s", "ed", "ing", "er", "'s", "ly", "-up"),
        )
        .map((parts) => parts.join("")),
    );
    fc.assert(
      fc.property(word, (text) => {
        for (const { units } of split(text, { lexicon })) {
          expect(spellOut(units).replace(/[^a-z]/g, "")).toBe(letters(text));
          const places = units.flatMap((unit) => unit.at);
          expect(new Set(places).size).toBe(places.length);
          for (const unit of units)
            expect(unit.at.map((at) => text[at]?.toLowerCase()).join("")).toBe(unit.grapheme.replace("_", ""));
        }
      }),
      { numRuns: 400 },
    );
  });
  test("nothing throws, and the syllables join to the letters", () => {
    fc.assert(
      fc.property(fc.oneof(fc.string({ maxLength: 40 }), fc.string({ unit: "grapheme", maxLength: 20 })), (text) => {
        for (const reading of split(text, { lexicon })) {
          expect(reading.syllables.join("")).toBe(spellOut(reading.units));
          expect(reading.shape.length).toBeGreaterThanOrEqual(reading.units.length > 0 ? 1 : 0);
          expect(reading.morphemes.base).toBeDefined();
        }
      }),
      { numRuns: 300 },
    );
  });
  test("a string without end is taken letter by letter and at once", () => {
    expect(first("a".repeat(5000))?.units).toHaveLength(5000);
    expect(first("a".repeat(5000))?.confidence).toBe(0);
  });
});

test("positions count each letter once", () => {
  for (const word of lexicon.words.slice(0, 3000)) {
    const places = positionsOf(word.units).flat();
    expect([...places].sort((one, other) => one - other)).toEqual([...places.keys()]);
  }
});
