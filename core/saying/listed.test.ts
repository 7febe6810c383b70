import { expect, test } from "vitest";
import { listed } from "./index.ts";

test("names as one says them: none, one, two, more", () => {
  expect([[], ["Ada"], ["Ada", "Ben"], ["Ada", "Ben", "Cy"]].map(listed)).toEqual([
    ...["", "Ada", "Ada and Ben", "Ada, Ben and Cy"],
  ]);
});
