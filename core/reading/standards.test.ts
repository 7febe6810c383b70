import { addDays, formatISO } from "date-fns";
import { describe, expect, test } from "vitest";
import { aimOn, hardness, startingReadingSettings as starting, wholeAccuracy } from "./index.ts";

const settings = { ...starting, aims: [{ yearGroup: "Year 2", start: 40, middle: 60, end: 70 }] };

describe("the aim for the time of year", () => {
  test.each<[string, number]>([
    ["2026-09-01", 40],
    ["2026-11-01", 48],
    ["2027-02-01", 60],
    ["2027-04-01", 64],
    ["2027-07-01", 70],
    ["2027-08-20", 70],
  ])("on %s it is %i", (day, aim) => {
    expect(aimOn(day, "Year 2", settings)).toBe(aim);
  });
  test("the school year begins when the school says", () => {
    expect(aimOn("2027-02-01", "Year 2", { ...settings, yearBegins: 2 })).toBe(40);
    expect(aimOn("2027-01-15", "Year 2", { ...settings, yearBegins: 2 })).toBe(70);
  });
  test("a year group without aims has none; how its name is written does not matter", () => {
    expect(aimOn("2026-11-01", "Year 5", settings)).toBeUndefined();
    expect(aimOn("2026-11-01", " year 2", settings)).toBe(48);
  });
  test("never falls within a school year", () => {
    const days = Array.from({ length: 300 }, (_, at) =>
      formatISO(addDays(new Date(2026, 8, 1), at), { representation: "date" }),
    );
    const aims = days.map((day) => aimOn(day, "Year 2", settings) ?? 0);
    expect(aims).toEqual([...aims].sort((one, other) => one - other));
  });
});

test("limits are the school's; each begins with its own figure", () => {
  expect([89.9, 90, 94.9, 95, 100].map((accuracy) => hardness(accuracy))).toEqual([
    "too hard",
    "teaching",
    "teaching",
    "easy",
    "easy",
  ]);
  expect(hardness(93, { teaching: 94, easy: 98 })).toBe("too hard");
  expect(hardness(null)).toBeNull();
  expect([89.9, 90, 99.99, 100, (29 * 100) / 100].map(wholeAccuracy)).toEqual([89, 90, 99, 100, 29]);
});
