import fc from "fast-check";
import { expect, test } from "vitest";
import { inFives } from "./index.ts";

test("no number under five is told, nor two that differ by fewer than five", () => {
  const some = fc.integer({ min: 0, max: 2000 });
  fc.assert(
    fc.property(some, some, (one, other) => {
      const [a, b] = [inFives(one), inFives(other)];
      if (a === null) expect(one).toBeLessThan(5);
      else expect(a).toBeGreaterThanOrEqual(5);
      if (a === null || b === null || a === b) return;
      expect(Math.abs(a - b)).toBeGreaterThanOrEqual(5);
    }),
  );
  expect([0, 4, 5, 7, 8, 23, 24].map(inFives)).toEqual([null, null, 5, 5, 10, 25, 25]);
});
