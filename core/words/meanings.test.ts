import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { meaningFor, readLexicon, readSaidOfWords, showMeaning, wordsSoundingLike } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const written = readSaidOfWords(readFileSync("data/lexicon/meanings.txt", "utf8"));
const ground = { lexicon, meanings: Object.fromEntries(written) };
const marked = (age: string) =>
  readFileSync("data/lexicon/ages.txt", "utf8")
    .split("\n")
    .filter((line) => line.startsWith(`${age}: `))
    .flatMap((line) => line.slice(age.length + 2).split(" "))
    .map((word) => word.replace("*", ""));

describe("what words mean", () => {
  test.each([
    ["9", 1000],
    ["later", 800],
  ])("is said of every word that is known by %s and was read", (age, least) => {
    const words = marked(age);
    expect(words.length).toBeGreaterThan(least);
    expect(words.filter((word) => !written.has(word.toLowerCase()))).toEqual([]);
  });

  test("is said in few words, without the word itself", () => {
    for (const [word, meaning] of written) {
      expect(meaning.split(" ").length, word).toBeLessThanOrEqual(12);
      expect(meaning.toLowerCase().split(/[^a-z']+/), word).not.toContain(word);
    }
  });

  test("is said of words that the tool has, each once", () => {
    const lines = readFileSync("data/lexicon/meanings.txt", "utf8")
      .split("\n")
      .filter((line) => line !== "" && !line.startsWith("#"));
    expect(lines.length).toBe(written.size);
    const read = new Set(marked("9").map((word) => word.toLowerCase()));
    expect([...written.keys()].filter((word) => lexicon.find(word).length === 0 && !read.has(word))).toEqual([]);
  });

  test("is said of all words that sound like another one, of a form by its base", () => {
    const alike = lexicon.words.filter(
      ({ text }) => /^[a-z']+$/i.test(text) && wordsSoundingLike(text, lexicon).length > 0,
    );
    expect(alike.length).toBeGreaterThan(700);
    expect(alike.filter(({ text }) => !meaningFor(text, ground)).map(({ text }) => text)).toEqual([]);
  });

  test.each([
    ["gallery", "a place to look at pictures"],
    ["boughs", "bough: a big branch"],
    ["mourning", "mourn: to be sad because someone died"],
    ["Thus", "so; in this way"],
    ["constructor", undefined],
    ["cat", undefined],
  ])("%s: %s", (text, wanted) => {
    const found = meaningFor(text, ground);
    expect(found && showMeaning(text, found)).toBe(wanted);
  });
});

test("words that sound the same are found by their sounds", () => {
  expect(wordsSoundingLike("bear", lexicon)).toEqual(["bare"]);
  expect(wordsSoundingLike("right", lexicon)).toEqual(["rite", "write"]);
  expect(wordsSoundingLike("cat", lexicon)).toEqual([]);
  expect(wordsSoundingLike("nothing like it", lexicon)).toEqual([]);
});
