import { readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { correspondences, soundsOfGrapheme, usualGpc } from "#core/phonics";
import { decodability, findWords, keyOf, readLexicon, readSentences, split } from "./index.ts";

const text = readFileSync("data/lexicon/lexicon.txt", "utf8");
const lexicon = readLexicon(text);
const words = lexicon.words.filter((_, at) => at % 7 === 0).map((word) => word.text);
const longest = Math.max(...correspondences.map((entry) => entry.grapheme.length));
const known = new Set(correspondences.map((entry) => entry.gpc));
const thousand = readSentences(readFileSync("data/sentences.txt", "utf8"))
  .join(" ")
  .split(" ")
  .slice(0, 1000)
  .join(" ");

/** The plain way: at each letter the longest known spelling, with its usual sound. */
function longestMatch(word: string): string[] {
  const letters = keyOf(word).replace(/[^a-z]/g, "");
  const found: string[] = [];
  for (let at = 0; at < letters.length; ) {
    let size = Math.min(longest, letters.length - at);
    while (size > 1 && soundsOfGrapheme(letters.slice(at, at + size)).length === 0) size--;
    const grapheme = letters.slice(at, at + size);
    found.push(usualGpc(grapheme) ?? grapheme);
    at += size;
  }
  return found;
}

function share(read: (word: string) => readonly string[]): string {
  const right = words.filter(
    (word) =>
      read(word).join(" ") ===
      lexicon
        .find(word)[0]
        ?.units.map((unit) => unit.gpc)
        .join(" "),
  );
  return `${Math.round((right.length / words.length) * 100)}% of ${words.length} words exact`;
}

let turn = 0;

describe("splitting words that are known", () => {
  bench(`baseline: longest match, ${share(longestMatch)}`, () => {
    for (const word of words) longestMatch(word);
  });
  bench(
    `split, seen before, ${share((word) => split(word, { lexicon })[0]?.units.map((unit) => unit.gpc) ?? [])}`,
    () => {
      for (const word of words) split(word, { lexicon })[0]?.units.length;
    },
  );
  bench("split, each word for the first time", () => {
    turn++;
    const fresh = { ...lexicon };
    for (const word of words) split(word, { lexicon: fresh })[0]?.units.length;
  });
});

describe("findWords over the whole lexicon", () => {
  bench("baseline: one pass over the same words that asks each unit", () => {
    for (const word of lexicon.words) word.units.every((unit) => known.has(unit.gpc));
  });
  bench("findWords: a target, balanced, twelve words", () => {
    findWords({ lexicon, known, target: "ai=ai", place: "balanced", count: 12, seed: turn++ });
  });
  bench("findWords: no target, one shape", () => {
    findWords({ lexicon, known, shape: "CCVC", count: 12, seed: turn++ });
  });
});

describe("a text of a thousand words", () => {
  bench("baseline: its words looked up", () => {
    for (const word of thousand.split(" ")) lexicon.find(word);
  });
  bench("decodability", () => {
    decodability(thousand, known, new Set(), { lexicon });
  });
  bench("decodability, every word for the first time", () => {
    decodability(thousand, known, new Set(), { lexicon: { ...lexicon } });
  });
});

describe("making ready what has arrived", () => {
  bench("baseline: cutting the lexicon into lines and pieces", () => {
    for (const line of text.split("\n")) line.split("|")[0]?.split(" ");
  });
  bench("readLexicon", () => {
    readLexicon(text);
  });
});
