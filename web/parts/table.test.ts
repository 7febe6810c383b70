import fc from "fast-check";
import { expect, test } from "vitest";
import { inOrder } from "./table.tsx";

const by = { sortBy: (value: string | number | null) => value };

test("figures by size, words by letters whatever their case, numbers in words by size", () => {
  expect(inOrder([10, 9, 100], by, false)).toEqual([9, 10, 100]);
  expect(inOrder(["kiln", "Ash", "ash 10", "ash 9"], by, false)).toEqual(["Ash", "ash 9", "ash 10", "kiln"]);
  expect(inOrder([10, 9, 100], by, true)).toEqual([100, 10, 9]);
});
test("what has no figure stands last either way, and loses no row", () => {
  fc.assert(
    fc.property(fc.array(fc.option(fc.integer())), fc.boolean(), (rows, down) => {
      const shown = inOrder(rows, by, down);
      expect([...shown].sort()).toEqual([...rows].sort());
      const figures = rows.filter((row) => row !== null).length;
      expect(shown.slice(figures).every((row) => row === null)).toBe(true);
    }),
  );
});
test("equal rows stay as they came, and without an order all do", () => {
  const rows = [
    { id: 1, of: "a" },
    { id: 2, of: "a" },
  ];
  expect(inOrder(rows, { sortBy: (row) => row.of }, true).map((row) => row.id)).toEqual([1, 2]);
  expect(inOrder([3, 1, 2], { sortBy: undefined }, false)).toEqual([3, 1, 2]);
});
