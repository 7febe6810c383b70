import fc from "fast-check";
import { expect, test } from "vitest";
import { fittedTo } from "./logistic.ts";
import { auc, brier, calibrationError, f1, type Judged, recall } from "./measures.ts";

const judged = fc.array(
  fc.record({ said: fc.constantFrom(0.1, 0.3, 0.5, 0.7, 0.9), truth: fc.double({ min: 0, max: 1, noNaN: true }) }),
  { minLength: 1, maxLength: 60 },
);

test("the area is the share of pairs that stand the right way round, ties a half", () => {
  fc.assert(
    fc.property(judged, (all) => {
      const gaps = all.filter(({ truth }) => truth < 0.5);
      const others = all.filter(({ truth }) => truth >= 0.5);
      let sum = 0;
      for (const gap of gaps)
        for (const other of others) sum += gap.said < other.said ? 1 : gap.said === other.said ? 0.5 : 0;
      const expected = gaps.length && others.length ? sum / (gaps.length * others.length) : 0.5;
      expect(auc(all)).toBeCloseTo(expected, 9);
    }),
  );
});
test("F1 and recall by hand", () => {
  const all: Judged[] = [
    { said: 0.1, truth: 0.2 },
    { said: 0.3, truth: 0.4 },
    { said: 0.4, truth: 0.8 },
    { said: 0.9, truth: 0.1 },
    { said: 0.9, truth: 0.9 },
  ];
  expect(f1(all)).toBeCloseTo((2 * 2) / (2 * 2 + 1 + 1));
  expect(recall(all)).toBeCloseTo(2 / 3);
  expect(f1([])).toBe(0);
});
test("who says what is so has no error, who says the opposite all of it", () => {
  const truths = [0.1, 0.2, 0.8, 0.9];
  const right = truths.map((truth) => ({ gapSaid: truth < 0.5 ? 1 : 0, truth }));
  const wrong = truths.map((truth) => ({ gapSaid: truth < 0.5 ? 0 : 1, truth }));
  expect([brier(right), calibrationError(right)]).toEqual([0, 0]);
  expect([brier(wrong), calibrationError(wrong)]).toEqual([1, 1]);
});
test("the regression finds what made the rows", () => {
  const rows = Array.from({ length: 400 }, (_, at) => {
    const x = ((at * 37) % 100) / 50 - 1;
    return { features: [x, ((at * 61) % 17) / 17], truth: x > 0.2 };
  });
  const said = fittedTo(rows);
  const found = rows.filter(({ truth }, at) => truth === (said[at] as number) > 0.5);
  expect(found.length).toBeGreaterThan(390);
});
