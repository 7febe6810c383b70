import { readdirSync, readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readLexicon } from "#core/words";
import {
  addGpc,
  addStep,
  allGpcs,
  exceptionWordsUpTo,
  lastSteps,
  moveGpc,
  moveStep,
  type OrderContent,
  orderProblems,
  readOrder,
  removeGpc,
  removeStep,
  renameStep,
  setExceptionWords,
  stepOf,
  taughtUpTo,
} from "./index.ts";

const shipped = readdirSync("data/orders").map((file) => readOrder(readFileSync(`data/orders/${file}`, "utf8")));
const order: OrderContent = {
  name: "Short",
  kind: "for tests",
  why: "small",
  steps: [
    { id: "a", title: "One", gpcs: ["m=m", "a=a"], exceptionWords: ["the"] },
    { id: "b", title: "Two", gpcs: ["t=t"], exceptionWords: [] },
    { id: "c", title: "Three", gpcs: ["sh=sh", "ee=ee"], exceptionWords: ["said"] },
  ],
};

describe("the orders that ship", () => {
  test("are three whole ones of different kinds", () => {
    expect(shipped).toHaveLength(3);
    for (const one of shipped) {
      expect(orderProblems(one)).toEqual([]);
      expect(one.why.length).toBeGreaterThan(60);
      expect(allGpcs(one).length).toBeGreaterThan(100);
      expect(one.steps.length).toBeGreaterThanOrEqual(30);
    }
  });
  test("words can be read in the first week of the mixed one", () => {
    const mixed = shipped.find((one) => one.name.startsWith("Words"));
    const { words } = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
    const known = new Set(mixed ? taughtUpTo(mixed, "s2") : []);
    const readable = words.filter((word) => word.units.every((unit) => known.has(unit.gpc)));
    expect(readable.length).toBeGreaterThan(15);
  });
});

describe("what has been taught", () => {
  test("up to a step, in order", () => {
    expect(taughtUpTo(order, "b")).toEqual(["m=m", "a=a", "t=t"]);
    expect(exceptionWordsUpTo(order, "b")).toEqual(["the"]);
    expect(lastSteps(order, "c", 2)).toEqual(["t=t", "sh=sh", "ee=ee"]);
    expect(stepOf(order, "sh=sh")?.id).toBe("c");
  });
  test("nothing before the first step, or when the step is gone", () => {
    expect(taughtUpTo(order, null)).toEqual([]);
    expect(taughtUpTo(order, "gone")).toEqual([]);
  });
});

describe("editing", () => {
  test("moves steps and spellings", () => {
    expect(moveStep(order, 2, 0).steps.map((step) => step.id)).toEqual(["c", "a", "b"]);
    expect(moveGpc(order, "a=a", "b", 0).steps[1]?.gpcs).toEqual(["a=a", "t=t"]);
    expect(moveGpc(order, "m=m", "a", 1).steps[0]?.gpcs).toEqual(["a=a", "m=m"]);
    expect(moveGpc(order, "m=m", "nowhere", 0)).toBe(order);
  });
  test("adds what is typed, refuses unknown and doubled with the reason", () => {
    const added = addGpc(order, "b", "oa = oa");
    expect(added.ok && added.order.steps[1]?.gpcs).toEqual(["t=t", "oa=oa"]);
    expect(addGpc(order, "b", "sh")).toEqual({
      ok: false,
      problem: "sh with this sound is already in step 3 (Three).",
    });
    expect(addGpc(order, "b", "xx=k").ok).toBe(false);
  });
  test("exception words: split at spaces and commas, odd and doubled refused", () => {
    const set = setExceptionWords(order, "b", "was, you  was");
    expect(set.ok && set.order.steps[1]?.exceptionWords).toEqual(["was", "you"]);
    expect(setExceptionWords(order, "b", "th3").ok).toBe(false);
    expect(setExceptionWords(order, "b", "said")).toMatchObject({ problem: expect.stringContaining("step 3") });
  });
  test("renames, adds and removes steps", () => {
    expect(renameStep(order, "a", "First").steps[0]?.title).toBe("First");
    expect(addStep(order, "n").steps.at(-1)?.id).toBe("n");
    expect(removeStep(order, "a").steps.map((step) => step.id)).toEqual(["b", "c"]);
    expect(removeGpc(order, "t=t").steps[1]?.gpcs).toEqual([]);
  });
  test("moves never lose or double a spelling", () => {
    const all = [...allGpcs(order)].sort();
    fc.assert(
      fc.property(
        fc.constantFrom(...all),
        fc.constantFrom("a", "b", "c"),
        fc.integer({ min: -3, max: 9 }),
        (gpc, step, at) => {
          const edited = moveStep(moveGpc(order, gpc, step, at), 0, at);
          expect([...allGpcs(edited)].sort()).toEqual(all);
          expect(orderProblems(edited)).toEqual([]);
        },
      ),
    );
  });
  test("problems are named", () => {
    const bad = {
      ...order,
      name: " ",
      steps: [...order.steps, { id: "a", title: "", gpcs: ["t=t", "q=q"], exceptionWords: [] }],
    };
    expect(orderProblems(bad)).toHaveLength(5);
  });
});

test("a written order with a doubled or unknown spelling is refused with its line", () => {
  expect(() => readOrder("One: m a\nTwo: m")).toThrow(/m=m stands twice/);
  expect(() => readOrder("One: m zq")).toThrow(/"zq" in "One: m zq"/);
});
