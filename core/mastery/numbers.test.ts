import { expect, test } from "vitest";
import { countsFor } from "./index.ts";

const row = (of: Record<string, number>) =>
  Object.entries(of)
    .map(([cell, count]) => cell.repeat(count))
    .join("");

test("most of it secure is half of what was taught or more; five gaps are many", () => {
  const told = (of: Record<string, number>) => countsFor(row(of), 40);
  expect(told({ s95: 10, g08: 4, n00: 6 })).toEqual({ mostSecure: true, manyGaps: false });
  expect(told({ s95: 9, g08: 4, n00: 7 })).toEqual({ mostSecure: false, manyGaps: false });
  expect(told({ s95: 4, g08: 5 })).toEqual({ mostSecure: false, manyGaps: true });
  // What was asked before it was taught is no gap, and nothing taught is nothing secure.
  expect(told({ s95: 20, G08: 12, ".00": 5 })).toEqual({ mostSecure: true, manyGaps: false });
  expect(told({ ".00": 10 })).toEqual({ mostSecure: false, manyGaps: false });
});
