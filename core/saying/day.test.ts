import { expect, test } from "vitest";
import { nearDay, shortDay } from "./day.ts";

test("a day is told from today as a colleague would", () => {
  const said = (day: string) => nearDay(day, "2026-11-23");
  expect(said("2026-11-23")).toBe("today");
  expect(said("2026-11-24")).toBe("tomorrow");
  expect(said("2026-11-22")).toBe("yesterday");
  expect(said("2026-11-17")).toBe("6 days ago");
  expect(said("2026-11-16")).toBe("Mon 16 Nov");
  expect(said("2026-11-25")).toBe("Wed 25 Nov");
});

test("the clocks' change makes no day longer", () => {
  expect(nearDay("2026-10-24", "2026-10-26")).toBe("2 days ago");
  expect(nearDay("2026-03-30", "2026-03-29")).toBe("tomorrow");
  expect(shortDay("2026-12-31", "2026-01-02")).toBe("Thu 31 Dec");
});

test("a day of another year says which", () => {
  expect(nearDay("2025-11-20", "2026-11-23")).toBe("Thu 20 Nov 2025");
  expect(shortDay("2027-01-08", "2026-12-31")).toBe("Fri 8 Jan 2027");
  // Near enough needs no year.
  expect(nearDay("2025-12-31", "2026-01-01")).toBe("yesterday");
});
