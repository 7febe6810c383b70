import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readLexicon } from "#core/words";
import {
  failedSpellings,
  hardness,
  type MarkKind,
  misreads,
  type Reading,
  type ReadingMark,
  scoreReading,
  setWords,
  skipWords,
  textWords,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const text = "The duck sat on the lock.\nIt had a nap. Then it swam off!\nWhere did it go?";
const mark = (at: number, kind: MarkKind, heard: string | null = null): ReadingMark => ({ at, kind, heard });
const read = (marks: readonly ReadingMark[] = [], more: Partial<Reading> = {}) =>
  scoreReading({ text, marks, stoppedAt: null, ms: 30_000, ...more });

describe("the words of a text", () => {
  test("with their sentence, their line, and where an end mark follows", () => {
    const words = textWords(text);
    expect(words.map((word) => word.text).slice(0, 7)).toEqual(["The", "duck", "sat", "on", "the", "lock", "It"]);
    expect(words).toHaveLength(18);
    expect(words.filter((word) => word.endsSentence).map((word) => word.text)).toEqual(["lock", "nap", "off", "go"]);
    expect([...new Set(words.map((word) => `${word.line} ${word.sentence}`))]).toEqual(["0 0", "1 1", "1 2", "2 3"]);
  });
  test("as they are set, one behind the other they are the text again; what opens goes with its word", () => {
    const said = `“When?” said Cole. “Now,” said Mum.\n\nThe duck—the old one—sat.`;
    for (const one of [said, text, "One", "  (One) two\nthree … "]) {
      const set = setWords(one);
      expect(set.map(({ opens, text: word, after }) => opens + word + after).join("")).toBe(one);
    }
    expect(setWords(said).find((word) => word.text === "Now")).toEqual({ opens: "“", text: "Now", after: ",” " });
    expect(setWords("")).toEqual([]);
  });
  test("none in an empty text; a line without an end mark ends its sentence", () => {
    expect(textWords("  \n ")).toEqual([]);
    expect(textWords("One two\nthree").map((word) => word.sentence)).toEqual([0, 0, 1]);
  });
});

describe("a reading by hand", () => {
  test("without a mark: all right, 18 words in half a minute are 36 a minute", () => {
    expect(read()).toMatchObject({
      wordsRead: 18,
      wordsCorrect: 18,
      errors: 0,
      accuracy: 100,
      correctPerMinute: 36,
      errorsPerHundred: 0,
      selfCorrection: null,
      hesitations: 0,
    });
  });
  test("a misread, one put right, one left out, one told, one put in, one sounded out, an end mark read over", () => {
    expect(read([mark(2, "misread", "sit"), mark(2, "putRight")])).toMatchObject({ mended: 1, selfCorrection: 100 });
    const score = read([
      mark(1, "misread", "dog"),
      mark(2, "misread", "sit"),
      mark(2, "putRight"),
      mark(5, "endMark"),
      mark(8, "leftOut"),
      mark(10, "told"),
      mark(11, "putIn", "then"),
      mark(12, "sounded"),
    ]);
    expect(score).toMatchObject({ wordsRead: 18, wordsCorrect: 15, errors: 4, correctPerMinute: 30, hesitations: 2 });
    expect(score.accuracy).toBeCloseTo((15 / 18) * 100, 10);
    expect(score.errorsPerHundred).toBeCloseTo((4 / 18) * 100, 10);
    expect(score.selfCorrection).toBe(25);
    expect(score.kinds).toMatchObject({
      misread: 2,
      putRight: 1,
      leftOut: 1,
      told: 1,
      putIn: 1,
      sounded: 1,
      endMark: 1,
    });
    expect(score.words[1]).toBe("misread");
    expect(score.words[2]).toBe("right");
  });
  test("stopped by the clock: what lies behind does not count, not even its marks", () => {
    const score = read([mark(1, "misread"), mark(9, "misread")], { stoppedAt: 5, ms: 60_000 });
    expect(score).toMatchObject({ wordsRead: 6, wordsCorrect: 5, errors: 1, correctPerMinute: 5 });
    expect(score.words.filter((word) => word === "notReached")).toHaveLength(12);
    expect(score.sentences).toHaveLength(1);
  });
  test("stopped in the first line, at the first word, or before it", () => {
    expect(read([], { stoppedAt: 0 })).toMatchObject({ wordsRead: 1, accuracy: 100 });
    expect(read([mark(0, "told")], { stoppedAt: 0 })).toMatchObject({ wordsRead: 1, wordsCorrect: 0, accuracy: 0 });
    expect(read([], { stoppedAt: -1 })).toMatchObject({ wordsRead: 0, accuracy: null, errorsPerHundred: null });
  });
  test("no time, a time of zero, and a time that cannot be give no rate", () => {
    for (const ms of [null, 0, -5, Number.NaN]) expect(read([], { ms }).correctPerMinute).toBeNull();
  });
  test("all told: nothing is right, and nothing more", () => {
    const score = read(textWords(text).map((_, at) => mark(at, "told")));
    expect(score).toMatchObject({
      wordsCorrect: 0,
      errors: 18,
      accuracy: 0,
      correctPerMinute: 0,
      errorsPerHundred: 100,
    });
  });
  test("a text of one word, and none", () => {
    expect(scoreReading({ text: "Duck", marks: [], stoppedAt: null, ms: 1000 })).toMatchObject({
      wordsRead: 1,
      correctPerMinute: 60,
    });
    expect(scoreReading({ text: "", marks: [mark(0, "misread")], stoppedAt: null, ms: 1000 })).toMatchObject({
      wordsRead: 0,
      errors: 0,
      accuracy: null,
      correctPerMinute: 0,
    });
  });
  test("a skipped line leaves each of its words out once, also when one was marked so before", () => {
    const before = [mark(6, "leftOut"), mark(7, "skipped")];
    const line = textWords(text).flatMap((word, at) => (word.line === 1 ? [at] : []));
    const marks = skipWords(before, line);
    expect(
      marks
        .filter((one) => one.kind === "skipped")
        .map((one) => one.at)
        .sort(),
    ).toEqual([...line].sort());
    expect(read(marks)).toMatchObject({ wordsCorrect: 10, errors: 8 });
    expect(skipWords(marks, line)).toEqual(marks);
  });
  test("said in the child's own way, said again and waited for are right", () => {
    const score = read([mark(3, "ownWay"), mark(4, "again"), mark(5, "waited")]);
    expect(score).toMatchObject({ errors: 0, accuracy: 100, hesitations: 2 });
  });
  test("the pace along the text is told by sentence", () => {
    expect(read([mark(1, "misread"), mark(7, "sounded")]).sentences).toEqual([
      { words: 6, correct: 5, hesitations: 0 },
      { words: 4, correct: 4, hesitations: 1 },
      { words: 4, correct: 4, hesitations: 0 },
      { words: 4, correct: 4, hesitations: 0 },
    ]);
  });
});

test("whatever is marked, the figures hold together", () => {
  const kinds: MarkKind[] = [
    "misread",
    "leftOut",
    "skipped",
    "told",
    "putIn",
    "putRight",
    "sounded",
    "again",
    "waited",
    "ownWay",
    "endMark",
  ];
  const marks = fc.array(
    fc.record({ at: fc.integer({ min: -2, max: 25 }), kind: fc.constantFrom(...kinds), heard: fc.constant(null) }),
    { maxLength: 60 },
  );
  fc.assert(
    fc.property(marks, fc.option(fc.integer({ min: -3, max: 30 })), (list, stoppedAt) => {
      const score = read(list, { stoppedAt });
      const count = (result: string) => score.words.filter((word) => word === result).length;
      expect(count("right")).toBe(score.wordsCorrect);
      expect(score.wordsCorrect + count("misread") + count("leftOut") + count("told")).toBe(score.wordsRead);
      expect(score.errors).toBe(score.wordsRead - score.wordsCorrect + score.kinds.putIn);
      expect(score.sentences.reduce((sum, one) => sum + one.words, 0)).toBe(score.wordsRead);
      expect(read([...list].reverse(), { stoppedAt })).toEqual(score);
    }),
  );
});

describe("what the misreads say", () => {
  const reading: Reading = {
    text: "The chick sat in the chest. Stop at the shop.",
    marks: [
      mark(7, "misread", "/sh o p/"),
      mark(1, "misread", "shick"),
      mark(5, "misread", "shest"),
      mark(6, "misread", "top"),
      mark(6, "putRight"),
      mark(2, "misread"),
    ],
    stoppedAt: null,
    ms: null,
  };
  test("unit by unit in the order of the text; one that was not noted says nothing", () => {
    const told = misreads(reading, { lexicon });
    expect(told.map((one) => [one.word, one.putRight])).toEqual([
      ["chick", false],
      ["chest", false],
      ["Stop", true],
      ["at", false],
    ]);
    expect(told[0]?.says[0]).toBe("ch /tʃ/ was read as /ʃ/.");
  });
  test("the spelling behind them, put right ones left out", () => {
    expect(failedSpellings(misreads(reading, { lexicon }))[0]).toEqual({
      gpc: "ch=ch",
      count: 2,
      words: ["chick", "chest"],
    });
    expect(failedSpellings(misreads(reading, { lexicon })).some((one) => one.words.includes("Stop"))).toBe(false);
  });
});

test("too hard, right for teaching, easy: by the school's limits, the border belongs to the easier side", () => {
  expect([89.9, 90, 94.9, 95, 100].map((accuracy) => hardness(accuracy))).toEqual([
    "too hard",
    "teaching",
    "teaching",
    "easy",
    "easy",
  ]);
  expect(hardness(85, { teaching: 80, easy: 86 })).toBe("teaching");
  expect(hardness(null)).toBeNull();
});
