import { expect, test } from "vitest";
import { Kept } from "./kept.ts";

test("a value is made once, an undefined one too; beyond the bound the oldest is made anew", () => {
  const kept = new Kept<string, string | undefined>(2);
  const made: string[] = [];
  const ask = (key: string) =>
    kept.of(key, () => {
      made.push(key);
      return key === "none" ? undefined : key.toUpperCase();
    });
  expect([ask("a"), ask("none"), ask("a"), ask("none")]).toEqual(["A", undefined, "A", undefined]);
  expect(made).toEqual(["a", "none"]);
  ask("b");
  expect(ask("none")).toBeUndefined();
  expect(made).toEqual(["a", "none", "b"]);
  expect(ask("a")).toBe("A");
  expect(made).toEqual(["a", "none", "b", "a"]);
});
