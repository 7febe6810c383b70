import { readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";
import { describe, expect, test } from "vitest";
import { findCorrespondence } from "#core/phonics";
import {
  decodability,
  keyOf,
  kindOfSentence,
  openLexicon,
  ownEntry,
  readEntry,
  readLexicon,
  readSentences,
  spellOut,
  toLexicon,
  unitOf,
  type Word,
  withOwnSplits,
  wordsOf,
  writeEntry,
} from "./index.ts";

const text = readFileSync("data/lexicon/lexicon.txt", "utf8");
const lexicon = readLexicon(text);

describe("the lexicon that ships", () => {
  test("has more than 10,000 words and is smaller than 300 kB when compressed", () => {
    expect(lexicon.words.length).toBeGreaterThan(10_000);
    expect(gzipSync(text).length).toBeLessThan(300_000);
  });
  test("spells every word with known correspondences", () => {
    const odd = lexicon.words.filter(
      (word) =>
        spellOut(word.units) !== keyOf(word.text).replace(/[^a-z]/g, "") ||
        word.units.some((unit) => !findCorrespondence(unit.gpc)),
    );
    expect(odd.map((word) => word.text)).toEqual([]);
  });
  test("has a band, and a stress that stands on a unit", () => {
    expect(lexicon.words.filter((word) => !(word.band >= 1 && word.band <= 5))).toEqual([]);
    expect(lexicon.words.filter((word) => word.stressed >= word.units.length)).toEqual([]);
    expect(lexicon.words.filter((word) => word.joints.some((at) => at <= 0 || at >= word.units.length))).toEqual([]);
  });
  test("knows which splits people decided", () => {
    expect(lexicon.find("one")[0]?.corrected).toBe(true);
    expect(lexicon.find("ship")[0]?.corrected).toBe(false);
  });
  test("finds a word whatever its case and apostrophe", () => {
    expect(lexicon.find("MONDAY")[0]?.text).toBe("Monday");
    expect(lexicon.find("Isn’t")[0]?.text).toBe("isn't");
    expect(lexicon.find("zzzz")).toEqual([]);
  });
  test("is written as it is read", () => {
    for (const line of text
      .split("\n")
      .filter((one) => one && !one.startsWith("#"))
      .slice(0, 4000))
      expect(writeEntry(readEntry(line))).toBe(line);
  });
});

test("corrections each have a reason", () => {
  const lines = readFileSync("data/lexicon/corrections.txt", "utf8")
    .split("\n")
    .filter((line) => line && !line.startsWith("#"));
  expect(lines.length).toBeGreaterThan(200);
  expect(lines.filter((line) => !/ # \S/.test(line))).toEqual([]);
});

test("an unknown unit is refused by name", () => {
  expect(() => readEntry("c zq t|3")).toThrow(/"zq"/);
});

describe("a school's own splits", () => {
  const own = (word: string, ...gpcs: string[]): Word => ({
    text: word,
    units: gpcs.map(unitOf),
    band: 3,
    stressed: -1,
    joints: [],
    corrected: true,
    knownBy: 12,
    drawn: false,
  });
  test("come first, and other readings stay", () => {
    const mine = withOwnSplits(lexicon, [own("read", "r=r", "ea=e", "d=d")]);
    expect(mine.find("read").map((word) => word.units[1]?.sound)).toEqual(["e", "ee"]);
    expect(mine.words.length).toBe(lexicon.words.length);
  });
  test("add words that the list does not have", () => {
    const mine = withOwnSplits(lexicon, [own("Marlpit", "m=m", "ar=ar", "l=l", "p=p", "i=i", "t=t")]);
    expect(mine.find("marlpit")[0]?.text).toBe("Marlpit");
    expect(mine.words.length).toBe(lexicon.words.length + 1);
  });
  test("none leave the lexicon as it is", () => {
    expect(withOwnSplits(lexicon, [])).toBe(lexicon);
    expect(toLexicon([]).words).toEqual([]);
  });
});

describe("the sentences that ship", () => {
  const sentences = readSentences(readFileSync("data/sentences.txt", "utf8"));
  test("are more than 600, none twice, of three to fifteen words", () => {
    expect(sentences.length).toBeGreaterThanOrEqual(600);
    expect(new Set(sentences).size).toBe(sentences.length);
    expect(sentences.filter((one) => wordsOf(one).length < 3 || wordsOf(one).length > 15)).toEqual([]);
  });
  test("have a capital and an end mark, and questions among them", () => {
    expect(sentences.filter((one) => !/^[“A-Z].*[.?!]$/.test(one))).toEqual([]);
    expect(sentences.filter((one) => kindOfSentence(one) === "question").length).toBeGreaterThan(100);
  });
  test("have only words of the lexicon", () => {
    const odd = sentences.flatMap((one) =>
      decodability(one, new Set(), new Set(), { lexicon }).words.filter((word) => word.source === "rules"),
    );
    expect(odd.map((word) => word.text)).toEqual([]);
  });
});

describe("a lexicon that is opened", () => {
  const opened = openLexicon(text);
  test("has every reading of every word, in the order of the file, as one that is read whole", () => {
    expect(opened.words).toEqual(lexicon.words);
    for (const { text: word } of lexicon.words) expect(opened.find(word), word).toEqual(lexicon.find(word));
    expect(opened.find("zorble")).toEqual([]);
    expect([...opened.each()].length).toBe(lexicon.words.length);
  });
  test("gives the same objects for the same word, so that what was worked out for it stays", () => {
    expect(openLexicon(text).find("Knight")).not.toBe(opened.find("knight"));
    expect(opened.find("Knight")).toBe(opened.find("knight"));
    expect(opened.words.find((word) => word.text === "knight")).toBe(opened.find("knight")[0]);
  });
  test("takes own splits over it without reading the rest", () => {
    const own = ownEntry("zorble", ["z=z", "or=or", "b=b", "le=l"]);
    const mine = withOwnSplits(opened, [own]);
    expect(mine.find("Zorble")).toEqual([own]);
    expect(mine.words.length).toBe(opened.words.length + 1);
    expect(mine.words.at(-1)).toBe(own);
  });
});
