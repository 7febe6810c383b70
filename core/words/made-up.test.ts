import { readFileSync } from "node:fs";
import { dictionary } from "cmu-pronouncing-dictionary";
import { describe, expect, test } from "vitest";
import { correspondences } from "#core/phonics";
import { findMadeUp, readByRule, readLexicon, readMadeUp } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const madeUp = readMadeUp(readFileSync("data/lexicon/made-up.txt", "utf8"));
const everything = new Set(correspondences.map((entry) => entry.gpc));

describe("the made-up words that ship", () => {
  test("are at least 3,000, none twice", () => {
    expect(madeUp.length).toBeGreaterThanOrEqual(3000);
    expect(new Set(madeUp.map((word) => word.text)).size).toBe(madeUp.length);
  });
  test("none is a real word", () => {
    expect(madeUp.filter((word) => dictionary[word.text] !== undefined).map((word) => word.text)).toEqual([]);
    expect(madeUp.filter((word) => lexicon.find(word.text).length > 0)).toEqual([]);
  });
  test("all are spelled as English is", () => {
    const illegal = /^(ck|ll|ff|ss|zz|tch|dge|ng|x|nk)|[jvqhw]$|[^w]w$|^.*(aa|ii|uu)|q(?!u)/;
    const odd = madeUp.filter(
      (word) => illegal.test(word.text) && !/(sh|ch|th|tch|igh|aw|ow|ew|ee|oo)$/.test(word.text),
    );
    expect(odd.map((word) => word.text)).toEqual([]);
  });
  test("come in at least eight shapes", () => {
    expect(new Set(madeUp.map((word) => word.shape)).size).toBeGreaterThanOrEqual(8);
  });
  test("are read by rule as they were meant", () => {
    for (const word of madeUp.filter((_, at) => at % 20 === 0))
      expect(readByRule(word.text, lexicon)[0]?.units.map((unit) => unit.gpc)).toEqual(
        word.units.map((unit) => unit.gpc),
      );
  });
});

describe("findMadeUp", () => {
  test("gives only what can be sounded out, with the target", () => {
    const known = new Set("b=b d=d f=f g=g l=l m=m n=n p=p r=r t=t a=a i=i".split(" "));
    const found = findMadeUp({ madeUp, known, target: "sh=sh", count: 6, seed: 2 });
    expect(found.length).toBe(6);
    for (const word of found) {
      expect(word.units.some((unit) => unit.gpc === "sh=sh")).toBe(true);
      expect(word.units.every((unit) => known.has(unit.gpc) || unit.gpc === "sh=sh")).toBe(true);
    }
  });
  test("by shape, without the words to avoid, the same for the same seed", () => {
    const wanted = { madeUp, known: everything, shape: "CCVC", count: 10, seed: 3 };
    const found = findMadeUp(wanted);
    expect(found.every((word) => word.shape === "CCVC")).toBe(true);
    expect(findMadeUp(wanted)).toEqual(found);
    const avoid = found.map((word) => word.text);
    expect(findMadeUp({ ...wanted, avoid }).some((word) => avoid.includes(word.text))).toBe(false);
  });
  test("none when nothing is known", () => {
    expect(findMadeUp({ madeUp, known: new Set(), count: 5, seed: 1 })).toEqual([]);
  });
});
