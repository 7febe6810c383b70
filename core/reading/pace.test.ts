import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { paceAlong, pressMark, type Reading, sentenceLines, skipWords, textWords } from "./index.ts";

const text = "A duck sat. It was wet. “Get up!” said Tess. Off it went.";
const reading = (change: Partial<Reading>): Reading => ({ text, marks: [], stoppedAt: null, ms: 13_000, ...change });

describe("pace along a text", () => {
  test("follows the turns of lines to the millisecond", () => {
    const pace = paceAlong(
      reading({
        turns: [
          { at: 3, ms: 2000 },
          { at: 6, ms: 5000 },
          { at: 10, ms: 10_000 },
        ],
      }),
    );
    expect(pace.map(({ words, ms }) => [words, ms])).toEqual([
      [3, 2000],
      [3, 3000],
      [4, 5000],
      [3, 3000],
    ]);
    expect(pace.map((one) => one.perMinute)).toEqual([90, 60, 48, 60]);
    expect(pace[2]).toMatchObject({ sentence: 2, begins: "Get up said" });
  });
  test("a mark says when its word had been read; between two times words come evenly", () => {
    // “It”, the fourth word, at 4 s: the first sentence took three of those four words, the rest nine words in 9 s.
    const [first, second] = paceAlong(reading({ marks: [{ at: 3, kind: "misread", heard: null, ms: 4000 }] }));
    expect(first?.ms).toBeCloseTo(3000);
    expect(second?.ms).toBeCloseTo(3000);
  });
  test("marks given later, out of order or behind the stop say nothing about time", () => {
    const marks = [
      { at: 8, kind: "told", heard: null, ms: 6000 },
      { at: 2, kind: "again", heard: null, ms: 9000 },
      { at: 4, kind: "misread", heard: null },
    ] as const;
    const only = paceAlong(reading({ marks: [marks[0]] }));
    expect(paceAlong(reading({ marks }))).toEqual(only);
    expect(paceAlong(reading({ marks, stoppedAt: 5, ms: 5000 }))).toEqual([]);
  });
  test.each<[string, Partial<Reading>]>([
    ["nothing timed in between", {}],
    ["no time", { ms: null, turns: [{ at: 3, ms: 2000 }] }],
    ["a time of zero", { ms: 0, turns: [{ at: 3, ms: 0 }] }],
    ["no text", { text: "", turns: [{ at: 3, ms: 2000 }] }],
  ])("%s gives none", (_, change) => {
    expect(paceAlong(reading(change))).toEqual([]);
  });
  test("sentences always add up to the whole, in words and in time", () => {
    const point = fc.record({ at: fc.nat(14), ms: fc.nat(20_000) });
    fc.assert(
      fc.property(
        fc.array(point, { maxLength: 12 }),
        fc.option(fc.nat(12)),
        fc.integer({ min: 1, max: 15_000 }),
        (turns, stoppedAt, ms) => {
          const pace = paceAlong(reading({ turns, stoppedAt, ms }));
          if (pace.length === 0) return;
          const sum = (list: readonly number[]) => list.reduce((one, other) => one + other, 0);
          expect(sum(pace.map((one) => one.ms))).toBeCloseTo(ms, 5);
          expect(sum(pace.map((one) => one.words))).toBe(stoppedAt === null ? 13 : stoppedAt + 1);
          for (const one of pace) expect(one.ms).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});

describe("marks with their time", () => {
  test("carry the clock while it runs, and none when it stands still", () => {
    expect(pressMark([], 2, "putRight", 800)).toEqual([
      { at: 2, kind: "misread", heard: null, ms: 800 },
      { at: 2, kind: "putRight", heard: null, ms: 800 },
    ]);
    expect(pressMark([], 2, "told")).toEqual([{ at: 2, kind: "told", heard: null }]);
    expect(skipWords([], [1, 2], 900).map((mark) => mark.ms)).toEqual([900, 900]);
  });
});

describe("one line a sentence", () => {
  test("each sentence has its line, closing marks stay with it, speech with who says it", () => {
    expect(sentenceLines(text)).toBe("A duck sat.\nIt was wet.\n“Get up!” said Tess.\nOff it went.");
    expect(sentenceLines("“Stop.” He did.\n\nOn a raft, 2 men sat")).toBe("“Stop.”\nHe did.\n\nOn a raft, 2 men sat");
  });
  test("words and their order stay, whatever the text", () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom("A", "duck", "sat", ". ", "! ", "“", "”", " ", "\n", "\n\n", "…", ", ", "3"), {
          maxLength: 60,
        }),
        (pieces) => {
          const source = pieces.join("");
          const spelled = (one: string) => textWords(one).map((word) => word.text);
          expect(spelled(sentenceLines(source))).toEqual(spelled(source));
          const sentences = (one: string) => textWords(one).map((word) => word.sentence);
          expect(sentences(sentenceLines(source))).toEqual(sentences(source));
        },
      ),
    );
  });
});
