import { describe, expect, test } from "vitest";
import {
  asIn,
  findCorrespondence,
  ipa,
  isOwnUnit,
  offeredUnits,
  ownUnitOf,
  partsOf,
  plainLetters,
  plainSound,
  readGpc,
  showGrapheme,
  splitGpc,
} from "./index.ts";

describe("a unit of a school's own", () => {
  test.each([
    ["n+k", "n+k=ng+k", "nk", "/ŋk/"],
    ["nk", "n+k=ng+k", "nk", "/ŋk/"],
    [" S + T + R ", "s+t+r=s+t+r", "str", "/str/"],
    ["i+ng", "i+ng=i+ng", "ing", "/ɪŋ/"],
    ["i=igh+n+d", "i+n+d=igh+n+d", "ind", "/aɪnd/"],
    ["a_e+k", "a_e+k=ai+k", "ake", "/eɪk/"],
    ["a-e+k", "a_e+k=ai+k", "ake", "/eɪk/"],
    ["n+k=ng+k", "n+k=ng+k", "nk", "/ŋk/"],
    ["n=ng+k", "n+k=ng+k", "nk", "/ŋk/"],
    ["a+ll", "a+ll=a+l", "all", "/æl/"],
  ])("%s is understood", (typed, gpc, shown, heard) => {
    const read = readGpc(typed);
    expect(read.ok ? read.entry.gpc : read.problem).toBe(gpc);
    const { grapheme, sound } = splitGpc(gpc);
    expect([showGrapheme(grapheme), ipa(sound)]).toEqual([shown, heard]);
    expect(ownUnitOf(partsOf(gpc))).toBe(gpc);
  });

  test.each([
    ["n+", /made of spellings/],
    ["zq+k", /made of spellings/],
    ["s+t+r+i+ng", /at most 4/],
    ["k+a_e", /final e/],
    ["i=blah+ng", /made of spellings/],
    ["n+k=ng", /made of spellings/],
    ["xyz", /with a plus/],
  ])("%s is refused with a way out", (typed, problem) => {
    const read = readGpc(typed);
    expect(read.ok ? read.entry.gpc : read.problem).toMatch(problem);
  });

  test("a spelling that the tool knows stays what it is", () => {
    for (const typed of ["st=s", "ng", "ck", "ll"]) {
      const read = readGpc(typed);
      expect(read.ok && isOwnUnit(read.entry.gpc)).toBe(false);
    }
    expect(partsOf("ea=ee")).toEqual(["ea=ee"]);
    expect(findCorrespondence("n+k=ng")).toBeUndefined();
    expect(findCorrespondence("n+k=ng+zz")).toBeUndefined();
    expect(plainSound("ng+k")).toBe("ngk");
    expect(plainSound("ng+nothing")).toBe("ng+nothing");
  });

  test("each that is offered is known, and its word has its letters", () => {
    const odd = offeredUnits.filter(({ typed, keyword }) => {
      const read = readGpc(typed);
      return !read.ok || !keyword.includes(plainLetters(read.entry.grapheme)) || read.entry.keyword !== keyword;
    });
    expect(odd).toEqual([]);
    expect(new Set(offeredUnits.map(({ typed }) => typed)).size).toBe(offeredUnits.length);
    expect(asIn("n+k=ng+k")).toBe(" as in tank");
    expect(asIn("b+z=b+z")).toBe("");
  });
});
