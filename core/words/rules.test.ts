import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { accentOf } from "#core/phonics";
import {
  hearings,
  lay,
  learnWhile,
  openLexicon,
  phonemesOf,
  readByRule,
  readLexicon,
  readUnits,
  spellOut,
  toLexicon,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const read = (letters: string) =>
  readByRule(letters, lexicon)[0]
    ?.units.map((unit) => unit.gpc)
    .join(" ");

describe("letters that no list has", () => {
  test.each([
    ["blorf", "b=b l=l or=or f=f"],
    ["snaid", "s=s n=n ai=ai d=d"],
    ["plake", "p=p l=l a_e=ai k=k"],
    ["thrinch", "th=th r=r i=i n=n ch=ch"],
    ["quish", "qu=kw i=i sh=sh"],
    ["kneb", "kn=n e=e b=b"],
    ["zock", "z=z o=o ck=k"],
    ["moffle", "m=m o=o ff=f le=l"],
    ["stunk", "s=s t=t u=u n=ng k=k"],
    ["cebe", "c=s e_e=ee b=b"],
  ])("%s is %s", (letters, units) => {
    expect(read(letters)).toBe(units);
  });
  test("an ending needs a vowel before it", () => {
    expect(read("sed")).toBe("s=s e=e d=d");
  });
  test("readings come likeliest first and their shares are at most one together", () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[a-z]{1,12}$/), (letters) => {
        const readings = readByRule(letters, lexicon);
        expect(readings.length).toBeGreaterThan(0);
        const shares = readings.map((reading) => reading.confidence);
        expect([...shares].sort((one, other) => other - one)).toEqual(shares);
        expect(shares.reduce((sum, share) => sum + share, 0)).toBeLessThanOrEqual(1 + 1e-9);
        for (const { units } of readings) expect(spellOut(units)).toBe(letters);
      }),
      { numRuns: 200 },
    );
  });
  test("without anything learned each letter stands alone, without a sound", () => {
    expect(readByRule("cat", toLexicon([]))[0]?.units.map((unit) => unit.gpc)).toEqual(["c=", "a=", "t="]);
  });
});

describe("what was said, in plain letters", () => {
  const sounds = (letters: string) =>
    hearings(letters, lexicon).map((one) => one.phonemes.map((phoneme) => phoneme.sound).join(" "));
  test("a word is heard as the word", () => {
    expect(sounds("read")).toEqual(["r ee d", "r e d"]);
    expect(hearings("ship", lexicon)[0]).toMatchObject({ word: true, cost: 0 });
  });
  test("jottings of sounds are understood", () => {
    expect(sounds("cah")[0]).toBe("k ar");
    expect(sounds("kween")).toContain("k w ee n");
    expect(sounds("boks")).toContain("b o k s");
  });
  test("a joint sound is two phonemes of one unit", () => {
    expect(phonemesOf(readUnits("b o x")).map(({ sound, unit }) => `${sound}${unit}`)).toEqual([
      "b0",
      "o1",
      "k2",
      "s2",
    ]);
    expect(phonemesOf(readUnits("qu i t")).map((one) => one.sound)).toEqual(["k", "w", "i", "t"]);
  });
});

describe("two words laid side by side", () => {
  const phonemes = (notation: string) => phonemesOf(readUnits(notation));
  const neutral = accentOf("neutral");
  const kinds = (one: string, other: string) =>
    lay(phonemes(one), phonemes(other), neutral).matches.map((match) => match.kind);
  test.each([
    ["c a t", "c a t", ["same", "same", "same"]],
    ["c a t", "c o t", ["same", "other", "same"]],
    ["s t o p", "t o p", ["left out", "same", "same", "same"]],
    ["t o p", "s t o p", ["put in", "same", "same", "same"]],
    ["a s k", "a k s", ["same", "swapped", "swapped"]],
    ["t i p", "p i t", ["swapped", "same", "swapped"]],
  ])("%s and %s: %j", (one, other, expected) => {
    expect(kinds(one, other)).toEqual(expected);
  });
  test("the same word costs nothing, and the cost has no direction", () => {
    const words = ["c a t", "s t o p", "b r ea=e d", "sh i p", "t r ai n", "m u d", "f r o g"];
    for (const one of words)
      for (const other of words) {
        const there = lay(phonemes(one), phonemes(other), neutral).cost;
        expect(there === 0).toBe(one === other);
        expect(lay(phonemes(other), phonemes(one), neutral).cost).toBeCloseTo(there, 6);
      }
  });
});

test("what is learned in slices reads as what is learned at once", () => {
  const slow = openLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
  let looks = 0;
  expect(learnWhile(slow, () => looks++ < 3)).toBe(false);
  while (!learnWhile(slow, () => looks++ % 50 !== 0));
  expect(learnWhile(slow, () => false)).toBe(true);
  for (const letters of ["blorf", "snaid", "plake", "thrinch", "quish", "kneb", "zurble"])
    expect(readByRule(letters, slow)).toEqual(readByRule(letters, lexicon));
  // Asked for in the middle of it, the rest is learned then.
  const half = openLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
  learnWhile(half, () => looks++ % 9 !== 0);
  expect(readByRule("snaid", half)).toEqual(readByRule("snaid", lexicon));
});
