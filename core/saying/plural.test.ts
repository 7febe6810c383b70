import { expect, test } from "vitest";
import { form, plural } from "./plural.ts";

test("a count has the form that goes with it", () => {
  expect([0, 1, 2, 1200].map((count) => plural(count, "mark"))).toEqual([
    "0 marks",
    "1 mark",
    "2 marks",
    "1,200 marks",
  ]);
  expect([1, 2].map((count) => plural(count, "child", "children"))).toEqual(["1 child", "2 children"]);
  expect([1, 4].map((count) => form(count, "was", "were"))).toEqual(["was", "were"]);
});
