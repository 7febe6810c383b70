import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { dice } from "#core/checks";
import { readLibraryText, scoreReading } from "#core/reading";
import { readLexicon } from "#core/words";
import { readText, type Temper, tempers } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const { body } = readLibraryText(readFileSync("data/texts/12-king-and-the-plank.md", "utf8"));
const play = (temper: Temper, learned: number, seed = 3, limitMs = 60_000) =>
  readText(body, {
    reader: { temper, learned: () => learned, weeksAway: () => 0, lexicon },
    wholes: new Set(["the", "he", "all"]),
    from: dice(seed),
    limitMs,
  });
const score = (reply: ReturnType<typeof play>) => scoreReading({ text: body, ...reply });

test("the same dice give the same reading, and it stops at the limit or at the end", () => {
  expect(play(tempers.steady, 0.9)).toEqual(play(tempers.steady, 0.9));
  const short = play(tempers.steady, 0.9, 3, 10_000);
  expect(short.ms).toBe(10_000);
  expect(score(short).wordsRead).toBeLessThan(30);
  expect(play(tempers.steady, 1, 3, 600_000).stoppedAt).toBeNull();
});
test("who learned more reads more exactly, who is slow reads fewer words", () => {
  const accuracy = (learned: number) =>
    [1, 2, 3, 4].reduce((sum, seed) => sum + (score(play(tempers.steady, learned, seed)).accuracy ?? 0), 0) / 4;
  expect(accuracy(1)).toBeGreaterThan(95);
  expect(accuracy(0.3)).toBeLessThan(accuracy(1) - 8);
  expect(score(play(tempers.slowAndRight, 1)).wordsRead).toBeLessThan(score(play(tempers.steady, 1)).wordsRead);
});
