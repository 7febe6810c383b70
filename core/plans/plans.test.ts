import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { allGpcs, exceptionWordsUpTo, readOrder, stepsUpTo, taughtUpTo } from "#core/order";
import { withImplied } from "#core/phonics";
import { findWords, judgeText, placeOf, readLexicon } from "#core/words";
import { minutesOfRoutine, type PlanWanted, planSession, practiceWords, shippedRoutines } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));

function wantedAt(stepId: string, target: string): PlanWanted {
  return {
    known: new Set(taughtUpTo(order, stepId).filter((gpc) => gpc !== target)),
    target,
    revisit: taughtUpTo(order, stepId).slice(-3),
    lexicon,
    sentences,
    exceptionWords: exceptionWordsUpTo(order, stepId),
    seed: 11,
  };
}

test("routines take as long as they are called", () => {
  for (const routine of Object.values(shippedRoutines))
    expect(routine.name).toContain(`${minutesOfRoutine(routine)} minutes`);
});

describe("at every step of the order, for every spelling of it", () => {
  for (const step of order.steps.slice(4)) {
    test(step.title, () => {
      for (const target of step.gpcs) {
        const wanted = wantedAt(step.id, target);
        const plan = planSession(wanted);
        const readable = withImplied([...wanted.known, target]);
        const part = (kind: string) => plan.parts.find((one) => one.kind === kind)?.items ?? [];
        const practice = [...part("readWords"), ...part("writeWords")];
        if (practiceWords(lexicon, wanted.known, target).length > 1)
          expect(new Set(practice).size).toBe(practice.length);
        for (const text of practice) {
          const units = lexicon.find(text)[0]?.units ?? [];
          expect(units.filter((unit) => !readable.has(unit.gpc))).toEqual([]);
          expect(placeOf(units, target)).toBeDefined();
        }
        const reader = {
          known: readable,
          teaching: new Set<string>(),
          wholes: new Set(wanted.exceptionWords.map((word) => word.toLowerCase())),
          lexicon,
        };
        for (const sentence of part("sentence")) {
          expect(judgeText(sentence, reader).filter((word) => word.verdict === "not yet")).toEqual([]);
        }
        if (practice.length < 13) expect(plan.remarks.join()).toMatch(/words? (with|in the list)/);
      }
    });
  }
});

test("nine in ten spellings get ten words or more the moment they are taught", () => {
  const counts = order.steps
    .slice(4)
    .flatMap((step) =>
      step.gpcs.map((target) => practiceWords(lexicon, wantedAt(step.id, target).known, target).length),
    );
  expect(counts.filter((count) => count >= 10).length / counts.length).toBeGreaterThan(0.9);
  expect(allGpcs(order).length).toBeGreaterThan(stepsUpTo(order, "s5").length);
});

test("places are balanced where English allows", () => {
  const known = new Set(taughtUpTo(order, "s12"));
  const taken = findWords({ lexicon, known, target: "sh=sh", place: "balanced", count: 9, seed: 3 });
  const count = (place: string) => taken.filter((word) => placeOf(word.units, "sh=sh") === place).length;
  expect(count("start")).toBeGreaterThanOrEqual(3);
  expect(count("end")).toBeGreaterThanOrEqual(3);
});

test("says what is missing when nothing can be read", () => {
  const plan = planSession({ ...wantedAt("s16", "ai=ai"), known: new Set(), exceptionWords: [] });
  expect(plan.remarks.join(" ")).toMatch(/No word in the list has ai/);
  expect(plan.remarks.join(" ")).toMatch(/No sentence/);
  expect(plan.parts).toHaveLength(7);
});

test("the same seed gives the same plan, another seed another", () => {
  const wanted = wantedAt("s16", "ai=ai");
  expect(planSession(wanted)).toEqual(planSession(wanted));
  expect(planSession({ ...wanted, seed: 12 }).parts).not.toEqual(planSession(wanted).parts);
});
