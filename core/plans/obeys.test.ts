import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import { dice } from "#core/checks";
import { allGpcs, readOrder } from "#core/order";
import { findCorrespondence } from "#core/phonics";
import { breakers, judgeText, placeOf, readWordList } from "#core/words";
import { balanced, partKinds, planSession, practiceWords } from "./index.ts";

const words = readWordList(readFileSync("data/words.txt", "utf8"));
const byText = new Map(words.map((word) => [word.text, word]));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const order = allGpcs(readOrder(readFileSync("data/orders/words-first.txt", "utf8")));
const wanted = fc.record({
  known: fc.subarray([...order]),
  target: fc.constantFrom(...order),
  exceptionWords: fc.subarray(["the", "to", "was", "said", "they", "I"]),
  revisit: fc.subarray([...order], { maxLength: 9 }),
  seed: fc.integer(),
});

test("whatever a group knows, the plan keeps its rule", () => {
  fc.assert(
    fc.property(wanted, ({ known, target, exceptionWords, revisit, seed }) => {
      const plan = planSession({ known: new Set(known), target, exceptionWords, revisit, words, sentences, seed });
      const readable = new Set([...known, target]);
      const items = (kind: string) => plan.parts.find((part) => part.kind === kind)?.items ?? [];
      expect(plan.parts.map((part) => part.kind)).toEqual([...partKinds]);
      for (const text of [...items("readWords"), ...items("writeWords")]) {
        const word = byText.get(text);
        expect(word && breakers(word, readable)).toEqual([]);
        expect(word && placeOf(word, target)).toBeDefined();
      }
      const reader = {
        known: readable,
        wholes: new Set(exceptionWords.map((word) => word.toLowerCase())),
        words: byText,
      };
      for (const sentence of items("sentence"))
        expect(judgeText(sentence, reader).flatMap((word) => word.breakers)).toEqual([]);
      expect(items("revisit")).not.toContain(target);
      expect(items("revisit").length).toBeLessThanOrEqual(6);
      expect(items("teach")).toEqual([target]);
      for (const part of plan.parts) expect(part.how).toMatch(/\.$/);
    }),
    { numRuns: 60 },
  );
});

test("a balanced list takes from each place as evenly as the words allow, and none twice", () => {
  fc.assert(
    fc.property(fc.constantFrom(...order), fc.integer({ min: 1, max: 14 }), fc.integer(), (target, count, seed) => {
      const all = practiceWords(words, new Set(order), target);
      const taken = balanced(all, target, count, dice(seed));
      expect(new Set(taken).size).toBe(taken.length);
      expect(taken.length).toBe(Math.min(count, all.length));
      const tally = (list: readonly (typeof words)[number][]) =>
        (["start", "middle", "end"] as const).map(
          (place) => list.filter((word) => placeOf(word, target) === place).length,
        );
      const offered = tally(all);
      const got = tally(taken);
      for (const one of [0, 1, 2]) {
        for (const other of [0, 1, 2]) {
          const usedUp = got[one] === offered[one];
          if (!usedUp) expect((got[other] ?? 0) - (got[one] ?? 0)).toBeLessThanOrEqual(1);
        }
      }
    }),
  );
});

test("how to teach names the keyword of the spelling", () => {
  for (const target of order) {
    const plan = planSession({
      known: new Set(),
      target,
      exceptionWords: [],
      revisit: [],
      words,
      sentences,
      seed: 1,
    });
    expect(plan.parts.find((part) => part.kind === "teach")?.how).toContain(findCorrespondence(target)?.keyword);
  }
});
