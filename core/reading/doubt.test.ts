import { expect, test } from "vitest";
import { doubtfulTime } from "./doubt.ts";

const text = Array.from({ length: 60 }, () => "mud").join(" ");
const read = (stoppedAt: number | null, ms: number | null) => doubtfulTime({ text, marks: [], stoppedAt, ms });

test("a time that no one can read in is doubted, with its figures", () => {
  expect(read(null, 1_075)).toBe("60 words in 1.1 seconds is 3,349 words a minute, faster than anyone reads aloud.");
  expect(read(4, 2_000)).toBe("The clock ran for 2.0 seconds only: 5 words in 2.0 seconds.");
  expect(read(0, 0)).toContain("1 word in 0.1 seconds");
  expect(read(null, 11_000)).toContain("327 words a minute");
});

test("a time that a quick or a slow reader needs is not", () => {
  expect(read(null, 20_000)).toBeNull();
  expect(read(null, 59_000)).toBeNull();
  expect(read(3, 3_000)).toBeNull();
  expect(read(null, null)).toBeNull();
});
