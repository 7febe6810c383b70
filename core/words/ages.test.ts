import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { findWords, knownBys, readLexicon, withinAge, withOwnAges } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const ageOf = (word: string) => lexicon.find(word)[0]?.knownBy;

test("a second, blind pass over 200 words agrees within one age in nine of ten", () => {
  const again = readFileSync("core/words/gold/ages.txt", "utf8")
    .split("\n")
    .filter((line) => line && !line.startsWith("#"))
    .map((line) => line.split(": ") as [string, string]);
  expect(again).toHaveLength(200);
  const apart = again.map(([word, age]) =>
    Math.abs(knownBys.indexOf(ageOf(word) ?? 12) - knownBys.indexOf(Number(age) as never)),
  );
  const [same, near] = [0, 1].map((most) => apart.filter((steps) => steps <= most).length);
  console.info(`ages: ${same} of 200 alike, ${near} within one age`);
  expect(near).toBeGreaterThanOrEqual(180);
});

test("every word of the children's list and every common word was read: it has an age of its own", () => {
  const marked = new Set(
    readFileSync("data/lexicon/ages.txt", "utf8")
      .split("\n")
      .filter((line) => line && !line.startsWith("#"))
      .flatMap((line) => line.replace(/^\w+: /, "").split(" "))
      .map((word) => word.replace("*", "").toLowerCase()),
  );
  const listed = readFileSync("data/lexicon/children.txt", "utf8")
    .split("\n")
    .filter((line) => !line.startsWith("#"))
    .flatMap((line) => line.split(/\s+/).filter(Boolean))
    .map((word) => word.replace("+", "").toLowerCase());
  // What is left are forms of words that were read.
  expect(listed.filter((word) => !marked.has(word) && lexicon.find(word)[0]?.joints.length === 0)).toEqual([]);
  expect(
    lexicon.words.filter(
      ({ text, band, joints }) =>
        band < 3 && joints.length === 0 && !/^[A-Z]/.test(text) && !marked.has(text.toLowerCase()),
    ),
  ).toEqual([]);
});

test.each([
  ["cat", 5],
  ["boats", 5],
  ["anchor", 7],
  ["gallery", 9],
  ["thus", 12],
  ["thusly", 12],
  ["sadly", 7],
  ["loveless", 9],
] as const)("%s is known by %i", (word, age) => {
  expect(ageOf(word)).toBe(age);
});

test("words beyond the age of their readers are left out, and what is known early comes first", () => {
  const known = new Set(
    "s a t p i n m d g o c k ck e u r h b f l ff ll ss sh th=th th=dh"
      .split(" ")
      .map((one) =>
        one.includes("=")
          ? one
          : ({ c: "c=k", ck: "ck=k", ff: "ff=f", ll: "ll=l", ss: "ss=s" }[one] ?? `${one}=${one}`),
      ),
  );
  for (const age of knownBys) {
    const words = findWords({ lexicon: withinAge(lexicon, age), known });
    expect(words.length).toBeGreaterThan(100);
    expect(words.filter(({ knownBy }) => knownBy > age)).toEqual([]);
  }
  expect(withinAge(lexicon, 5)).toBe(withinAge(lexicon, 5));
  expect(withinAge(lexicon, 5).find("thus")).toHaveLength(1);
  const [all, early] = [findWords({ lexicon, known }), findWords({ lexicon: withinAge(lexicon, 5), known })];
  expect(all.length).toBeGreaterThan(early.length);
  expect(all.slice(0, 40).filter(({ knownBy }) => knownBy > 7)).toEqual([]);
});

test("the thousand commonest words have the first thousand ranks, those of the children's list first", () => {
  const ranks = lexicon.words.flatMap(({ rank }) => rank ?? []).sort((one, other) => one - other);
  expect(ranks).toEqual(Array.from({ length: 4000 }, (_, at) => at + 1));
  expect(lexicon.find("you")[0]?.rank).toBeLessThan(10);
  expect(lexicon.find("rain")[0]?.rank).toBeLessThan(1500);
});

describe("a school's own ages", () => {
  const own = withOwnAges(lexicon, [
    { text: "Thus", knownBy: 5 },
    { text: "anchor", knownBy: 12 },
    { text: "zorble", knownBy: 5 },
  ]);
  const age = (word: string) => own.find(word)[0]?.knownBy;

  test("hold for the word and its plain forms, and for nothing else", () => {
    expect([age("thus"), age("anchor"), age("anchors"), age("cat"), age("sadly")]).toEqual([5, 12, 12, 5, 7]);
    expect(own.find("zorble")).toEqual([]);
    const changed = lexicon.words.filter(({ text, knownBy }) => age(text) !== knownBy).map(({ text }) => text);
    expect(changed).toEqual(
      ["anchor", "anchored", "anchors", "thus"].filter((word) => lexicon.find(word).length > 0),
    );
  });

  test("give a rare form two years more, as the list does", () => {
    const mine = withOwnAges(lexicon, [{ text: "anchor", knownBy: 5 }]);
    expect(lexicon.find("anchors")[0]?.band).toBe(5);
    expect(["anchor", "anchors"].map((word) => mine.find(word)[0]?.knownBy)).toEqual([5, 7]);
  });

  test("tell what is on offer to readers of an age", () => {
    const offered = (text: string) => withinAge(own, 7).words.some((word) => word.text === text);
    expect([offered("thus"), offered("anchor"), offered("anchors"), offered("cat")]).toEqual([
      true,
      false,
      false,
      true,
    ]);
  });

  test("leave the lexicon as it is where there are none, and give the same word as the same object", () => {
    expect(withOwnAges(lexicon, [])).toBe(lexicon);
    expect(own.find("anchor")[0]).toBe(own.find("anchor")[0]);
    expect(own.words.find(({ text }) => text === "anchor")).toBe(own.find("anchor")[0]);
    expect(own.find("cat")[0]).toBe(lexicon.find("cat")[0]);
  });
});
