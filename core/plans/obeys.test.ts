import { readFileSync } from "node:fs";
import fc from "fast-check";
import { expect, test } from "vitest";
import { allGpcs, readOrder } from "#core/order";
import { findCorrespondence, withImplied } from "#core/phonics";
import { judgeText, placeOf, readLexicon } from "#core/words";
import { planSession, shippedRoutines } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
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
      const plan = planSession({ known: new Set(known), target, exceptionWords, revisit, lexicon, sentences, seed });
      const readable = withImplied([...known, target]);
      const items = (kind: string) => plan.parts.find((part) => part.kind === kind)?.items ?? [];
      expect(plan.parts.map((part) => part.kind)).toEqual(shippedRoutines.usual.parts.map((part) => part.kind));
      for (const text of [...items("readWords"), ...items("writeWords")]) {
        const units = lexicon.find(text)[0]?.units ?? [];
        expect(units.filter((unit) => !readable.has(unit.gpc))).toEqual([]);
        expect(placeOf(units, target)).toBeDefined();
      }
      const reader = {
        known: readable,
        teaching: new Set<string>(),
        wholes: new Set(exceptionWords.map((word) => word.toLowerCase())),
        lexicon,
      };
      for (const sentence of items("sentence"))
        expect(judgeText(sentence, reader).filter((word) => word.verdict === "not yet")).toEqual([]);
      expect(items("revisit")).not.toContain(target);
      expect(items("revisit").length).toBeLessThanOrEqual(6);
      expect(items("teach")).toEqual([target]);
      for (const part of plan.parts) expect(part.how).toMatch(/\.$/);
    }),
    { numRuns: 60 },
  );
});

test("how to teach names the keyword of the spelling", () => {
  for (const target of order) {
    const plan = planSession({
      known: new Set(),
      target,
      exceptionWords: [],
      revisit: [],
      lexicon,
      sentences,
      seed: 1,
    });
    expect(plan.parts.find((part) => part.kind === "teach")?.how).toContain(findCorrespondence(target)?.keyword);
  }
});
