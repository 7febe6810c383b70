import { expect, test } from "vitest";
import { wordAgeOf } from "./index.ts";

test.each([
  ["Reception", 5],
  ["Nursery", 5],
  ["Year 1", 5],
  ["Y1/2", 5],
  ["Year 2", 7],
  ["P3/4", 7],
  ["Year 4", 9],
  ["Year 6", 12],
  ["", 7],
  ["Otters", 7],
] as const)("words for %s are those known by %i", (yearGroup, age) => {
  expect(wordAgeOf(yearGroup)).toBe(age);
});
