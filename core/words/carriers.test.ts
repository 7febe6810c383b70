import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import {
  carriersFrom,
  readLexicon,
  readSaidOfWords,
  readSentences,
  soundsLikeAnother,
  toLexicon,
  withinAge,
  wordsOf,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const written = readSaidOfWords(readFileSync("data/carriers.txt", "utf8"));
const carriers = carriersFrom(readSentences(readFileSync("data/sentences.txt", "utf8")), written);

test("every carrier has its word, and no more words than can be kept in mind", () => {
  for (const [word, sentence] of carriers) {
    const words = wordsOf(sentence).map(({ text }) => text.toLowerCase());
    expect(words, word).toContain(word);
    expect(words.length, sentence).toBeLessThanOrEqual(10);
    expect(sentence).toMatch(/^[A-Z].*[.!?]$/);
  }
  for (const word of written.keys()) expect(lexicon.find(word).length, word).toBeGreaterThan(0);
});

test("a word of a short age that sounds like another one has a sentence, so that it can be dictated", () => {
  const on = withinAge(lexicon, 7);
  const alone = on.words.filter(
    ({ text }) => /^[a-z]+$/.test(text) && soundsLikeAnother(text, on) && !carriers.has(text),
  );
  expect(alone.map(({ text }) => text)).toEqual([]);
});

test("our own sentences come before none, the shortest first; what was written for a word comes before them", () => {
  const found = carriersFrom(
    ["The big red dog sat.", "The dog sat.", "Is it a cat?", "The sea is cold."],
    new Map([["sea", "Ships sail the sea."]]),
  );
  expect(found.get("dog")).toBe("The dog sat.");
  expect(found.get("sea")).toBe("Ships sail the sea.");
  expect(found.has("cat")).toBe(false);
});

test("words sound alike by their sounds, also when one of them has several readings", () => {
  const small = toLexicon(["sea", "see", "cat", "read", "red"].flatMap((text) => [...lexicon.find(text)]));
  expect(["sea", "see", "cat", "read", "red"].map((text) => soundsLikeAnother(text, small))).toEqual([
    true,
    true,
    false,
    true,
    true,
  ]);
});
