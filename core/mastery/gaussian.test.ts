import fc from "fast-check";
import { expect, test } from "vitest";
import { below, type Curve, logistic, meanChance, updated } from "./gaussian.ts";

/** The same by adding up ten thousand thin slices. */
function exactly(mean: number, variance: number, of: (chance: number, x: number) => number): number {
  const sd = Math.sqrt(variance);
  let sum = 0;
  const [steps, reach] = [10_000, 8];
  for (let at = 0; at < steps; at++) {
    const z = -reach + ((at + 0.5) * 2 * reach) / steps;
    const x = mean + sd * z;
    sum += of(logistic(x), x) * Math.exp((-z * z) / 2);
  }
  return (sum * 2 * reach) / steps / Math.sqrt(2 * Math.PI);
}
const beliefs = fc.record({
  mean: fc.double({ min: -5, max: 5, noNaN: true }),
  variance: fc.double({ min: 0.05, max: 9, noNaN: true }),
});
const likelihoods: readonly Curve[] = [
  [0.08, 0.88, 0],
  [0.92, -0.88, 0],
  [0.05, 0.6, -0.4],
];

test("eleven points come near to ten thousand slices", () => {
  fc.assert(
    fc.property(beliefs, fc.constantFrom(...likelihoods), (belief, likelihood) => {
      const [a, b, c] = likelihood;
      const seen = (chance: number) => a + b * chance + c * chance * chance;
      expect(meanChance(belief)).toBeCloseTo(
        exactly(belief.mean, belief.variance, (chance) => chance),
        2,
      );
      const total = exactly(belief.mean, belief.variance, seen);
      const mean = exactly(belief.mean, belief.variance, (chance, x) => seen(chance) * x) / total;
      const after = updated(belief, likelihood);
      expect(Math.abs(after.mean - mean)).toBeLessThan(0.05 * Math.sqrt(belief.variance) + 0.01);
    }),
    { seed: 3, numRuns: 200 },
  );
});
test("a weight of nothing changes nothing, half a weight less than a whole one", () => {
  const before = { mean: 0.4, variance: 2 };
  const [none, half, whole] = [0, 0.5, 1].map((weight) => updated(before, [0.92, -0.88, 0], weight));
  expect(none?.mean).toBeCloseTo(0.4, 6);
  expect(none?.variance).toBeCloseTo(2, 4);
  expect(half?.mean).toBeLessThan(0.4);
  expect(whole?.mean).toBeLessThan(half?.mean ?? 0);
});
test("the share below a limit", () => {
  expect(below(0, { mean: 0, variance: 4 })).toBeCloseTo(0.5, 6);
  expect(below(1.959964, { mean: 0, variance: 1 })).toBeCloseTo(0.975, 5);
  expect(below(0, { mean: 2 * 1.281552, variance: 4 })).toBeCloseTo(0.1, 5);
});
