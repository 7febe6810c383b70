import { expect, test } from "vitest";
import { isOtherNeed, otherNeedKindOf, otherNeedName, rateNeed, type TimedReading } from "./index.ts";

const reading = (day: string, perMinute: number, change: Partial<TimedReading> = {}): TimedReading => ({
  ...{ day, perMinute, title: "The Gap", accuracy: 97, aim: 70 },
  ...change,
});
const need = (...readings: readonly TimedReading[]) => rateNeed(readings, { today: "2026-11-27", accuracy: 90 });

test("two texts that came right and too slowly, the newest among them, are a need with its evidence", () => {
  const found = need(reading("2026-11-02", 40), reading("2026-11-20", 49), reading("2026-10-20", 80));
  expect(found).toEqual({
    ...{ id: "rate texts", kind: "rate", need: 0.3, misses: 2, answers: 3, lastDay: "2026-11-20", lostFirst: 0 },
    items: ["“The Gap”: 49 words a minute, 70 are the aim"],
  });
});

test.each([
  ["one slow text", [reading("2026-11-20", 40)]],
  ["texts that did not come right", [reading("2026-11-02", 40, { accuracy: 80 }), reading("2026-11-20", 40)]],
  [
    "a newest one as fast as wished",
    [reading("2026-11-01", 40), reading("2026-11-02", 40), reading("2026-11-20", 70)],
  ],
  ["a few words below the aim", [reading("2026-11-02", 66), reading("2026-11-20", 66)]],
  ["texts of long ago", [reading("2026-09-02", 40), reading("2026-09-20", 40)]],
  ["a year group without an aim", [reading("2026-11-02", 40, { aim: 0 }), reading("2026-11-20", 40, { aim: 0 })]],
  ["nothing read", []],
])("%s: no need", (_, readings) => {
  expect(need(...readings)).toBeUndefined();
});

test("it is a need with a name of its own", () => {
  expect([isOtherNeed("rate texts"), otherNeedKindOf("rate texts"), isOtherNeed("rate words")]).toEqual([
    true,
    "rate",
    false,
  ]);
  expect(otherNeedName("rate texts")).toBe("the rate in texts");
});
