import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { correspondences } from "#core/phonics";
import {
  breakers,
  guessUnits,
  judgeText,
  judgeWord,
  placeOf,
  readUnits,
  readWordList,
  spellOut,
  wordsOf,
} from "./index.ts";

const words = readWordList(readFileSync("data/words.txt", "utf8"));
const everything = new Set(correspondences.map((entry) => entry.gpc));

describe("notation", () => {
  test.each([
    ["c a_e k", "cake"],
    ["th e_e s", "these"],
    ["b ea t", "beat"],
    ["m u_e=yoo l", "mule"],
    ["s m i_e l d", "smiled"],
    ["l i tt le", "little"],
  ])("%s spells %s", (notation, text) => {
    expect(spellOut(readUnits(notation))).toBe(text);
  });
  test("an unknown piece is refused by name", () => {
    expect(() => readUnits("c zq t")).toThrow(/"zq"/);
  });
  test("a spelling stands for its usual sound, or the one that is said", () => {
    expect(readUnits("b r ea=e d").map((unit) => unit.gpc)).toEqual(["b=b", "r=r", "ea=e", "d=d"]);
  });
});

describe("the list that ships", () => {
  test("has well over 200 words, none twice, all small letters", () => {
    expect(words.length).toBeGreaterThan(1000);
    expect(new Set(words.map((word) => word.text)).size).toBe(words.length);
    expect(words.filter((word) => !/^[a-z]+$/.test(word.text))).toEqual([]);
  });
  test.each([
    ["cake", "c=k a_e=ai k=k"],
    ["was", "w=w a=o s=z"],
    ["sink", "s=s i=i n=ng k=k"],
    ["jumped", "j=j u=u m=m p=p ed=t"],
    ["station", "s=s t=t a=ai ti=sh o=schwa n=n"],
    ["castle", "c=k a=a st=s le=l"],
    ["ice", "i_e=igh c=s"],
  ])("%s is %s", (text, units) => {
    expect(
      words
        .find((word) => word.text === text)
        ?.units.map((unit) => unit.gpc)
        .join(" "),
    ).toBe(units);
  });
});

describe("reading", () => {
  const ship = { text: "ship", units: readUnits("sh i p") };
  test("says where a spelling stands", () => {
    expect(placeOf(ship, "sh=sh")).toBe("start");
    expect(placeOf(ship, "i=i")).toBe("middle");
    expect(placeOf(ship, "p=p")).toBe("end");
    expect(placeOf(ship, "ee=ee")).toBeUndefined();
  });
  test("names what stands in the way", () => {
    expect(breakers(ship, new Set(["i=i", "p=p"])).map((unit) => unit.grapheme)).toEqual(["sh"]);
    expect(breakers(ship, everything)).toEqual([]);
  });
  test("judges listed, guessed and whole words", () => {
    const reader = {
      known: new Set(["s=s", "t=t", "a=a", "p=p"]),
      wholes: new Set(["the"]),
      words: new Map(words.map((word) => [word.text, word])),
    };
    expect(judgeWord("tap", reader)).toMatchObject({ source: "listed", breakers: [] });
    expect(judgeWord("The", reader)).toMatchObject({ source: "whole", breakers: [] });
    expect(judgeWord("taps", reader)).toMatchObject({ source: "guessed", breakers: [] });
    expect(judgeWord("shap", reader).breakers.map((unit) => unit.grapheme)).toEqual(["sh"]);
    expect(judgeText("The sap, tap!", reader).map((word) => word.text)).toEqual(["The", "sap", "tap"]);
  });
  test.each([
    ["drape", "d=d r=r a_e=ai p=p"],
    ["quake", "qu=kw a_e=ai k=k"],
    ["louse", "l=l ou=ow se=s"],
    ["ode", "o_e=oa d=d"],
    ["crest", "c=k r=r e=e s=s t=t"],
    ["snippet", "s=s n=n i=i pp=p e=e t=t"],
  ])("a guess at %s is %s", (text, units) => {
    const usual = new Set(["se=s", ...units.split(" ")]);
    expect(
      guessUnits(text, usual)
        .map((unit) => unit.gpc)
        .join(" "),
    ).toBe(units);
  });
  test("a guess uses every letter once, whatever is typed", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        const letters = text.toLowerCase().replace(/[^a-z]/g, "");
        expect(spellOut(guessUnits(text, new Set()))).toBe(letters);
      }),
    );
  });
  test("words of a text keep their apostrophes and lose the rest", () => {
    expect(wordsOf("“Isn’t Tam's hat wet?” she said. 3 ducks!")).toEqual([
      "Isn’t",
      "Tam's",
      "hat",
      "wet",
      "she",
      "said",
      "ducks",
    ]);
  });
});
