import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import {
  countSyllables,
  isNucleus,
  readLexicon,
  readUnits,
  shapeOf,
  spellOut,
  syllableStarts,
  syllablesOf,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));

describe("syllables", () => {
  test.each([
    ["c a t", 1],
    ["l i tt le", 2],
    ["b o x es=iz", 2],
    ["l a n d ed=id", 2],
    ["j u m p ed=t", 1],
    ["o_e=wu n", 1],
    ["p s t", 0],
    ["i d e=ee a=schwa", 3],
  ])("%s has %i", (notation, count) => {
    expect(countSyllables(readUnits(notation))).toBe(count);
  });
  test("le is a syllable of its own only after a consonant", () => {
    expect(isNucleus(readUnits("t a=ai b le"), 3)).toBe(true);
    expect(isNucleus(readUnits("ai le"), 1)).toBe(false);
    expect(isNucleus([], 0)).toBe(false);
  });
  test("a joint of the word is a break", () => {
    const units = readUnits("s u n sh i_e n");
    expect(syllableStarts(units, 1, [3])).toEqual([0, 3]);
    expect(syllablesOf("sunshine", units, [0, 3])).toEqual(["sun", "shine"]);
  });
  test("a consonant that a split digraph closes over stays with it", () => {
    const units = readUnits("h o_e p f u=schwa l");
    expect(syllablesOf("hopeful", units, syllableStarts(units))).toEqual(["hope", "ful"]);
  });
  test("clusters break where English words begin", () => {
    const broken = (notation: string) => {
      const units = readUnits(notation);
      return syllablesOf(spellOut(units), units, syllableStarts(units)).join("-");
    };
    expect(broken("s e=ee c r e t")).toBe("se-cret");
    expect(broken("m o n s t er=schwa")).toBe("mon-ster");
    expect(broken("i n s e c t")).toBe("in-sect");
    expect(broken("b u tt er=schwa")).toBe("but-ter");
    expect(broken("ch i ck e=schwa n")).toBe("chick-en");
  });
});

describe("every word of the lexicon", () => {
  test("has as many syllables as breaks and vowels", () => {
    const odd = lexicon.words.filter((word) => {
      const starts = syllableStarts(word.units, word.stressed, word.joints);
      return (
        starts.length !== Math.max(1, countSyllables(word.units)) ||
        starts.some((at, i) => i > 0 && at <= (starts[i - 1] ?? 0))
      );
    });
    expect(odd.map((word) => word.text)).toEqual([]);
  });
  test("keeps its letters in order when it is cut", () => {
    for (const word of lexicon.words) {
      const starts = syllableStarts(word.units, word.stressed, word.joints);
      const letters = spellOut(word.units);
      expect(syllablesOf(letters, word.units, starts).join("")).toBe(letters);
    }
  });
  test("has a shape of Cs and Vs with one dot between syllables", () => {
    const odd = lexicon.words.filter((word) => {
      const shape = shapeOf(word.units, syllableStarts(word.units, word.stressed, word.joints));
      return !/^[CV]+(\.[CV]+)*$/.test(shape);
    });
    expect(odd.map((word) => word.text)).toEqual([]);
  });
});
