import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { dayAt, isTimeZone } from "./days.ts";

describe("the day of an instant at a place", () => {
  test.each([
    // West of Greenwich in the evening it is tomorrow in UTC.
    ["Pacific/Honolulu", "2026-11-25T05:00:00.000Z", "2026-11-24"],
    ["Pacific/Honolulu", "2026-11-25T09:59:59.999Z", "2026-11-24"],
    ["Pacific/Honolulu", "2026-11-25T10:00:00.000Z", "2026-11-25"],
    // Fourteen hours ahead: the morning of a day is the day before in UTC.
    ["Pacific/Kiritimati", "2026-11-24T19:00:00.000Z", "2026-11-25"],
    ["Pacific/Kiritimati", "2026-11-24T09:59:59.000Z", "2026-11-24"],
    // Half hours.
    ["Australia/Adelaide", "2026-11-24T13:29:00.000Z", "2026-11-24"],
    ["Australia/Adelaide", "2026-11-24T13:30:00.000Z", "2026-11-25"],
    ["Australia/Adelaide", "2026-07-01T14:29:00.000Z", "2026-07-01"],
    // London goes to summer time on 29 March 2026 and back on 25 October.
    ["Europe/London", "2026-03-28T23:30:00.000Z", "2026-03-28"],
    ["Europe/London", "2026-03-29T23:30:00.000Z", "2026-03-30"],
    ["Europe/London", "2026-10-24T23:30:00.000Z", "2026-10-25"],
    ["Europe/London", "2026-10-25T23:30:00.000Z", "2026-10-25"],
  ])("%s at %s is %s", (zone, instant, day) => {
    expect(dayAt(zone, instant)).toBe(day);
    expect(dayAt(zone, new Date(instant))).toBe(day);
  });

  test("it is what the machine's own calendar says, for any instant", () => {
    const zones = ["Pacific/Honolulu", "Europe/London", "Australia/Adelaide", "Pacific/Kiritimati", "Asia/Kathmandu"];
    const own = new Map(
      zones.map((timeZone) => [
        timeZone,
        new Intl.DateTimeFormat("en-CA", { timeZone, year: "numeric", month: "2-digit", day: "2-digit" }),
      ]),
    );
    const instants = fc.date({ min: new Date("2015-01-01"), max: new Date("2045-01-01"), noInvalidDate: true });
    fc.assert(
      fc.property(fc.constantFrom(...zones), instants, (zone, instant) => {
        expect(dayAt(zone, instant)).toBe(own.get(zone)?.format(instant));
      }),
    );
  });

  test("a zone that there is not is refused", () => {
    expect(isTimeZone("Europe/London")).toBe(true);
    expect(isTimeZone("UTC")).toBe(true);
    for (const zone of ["", "Marlpit/Lock", "+02:00", "../etc", "Europe/London ", "a".repeat(300)])
      expect(isTimeZone(zone), zone).toBe(false);
    expect(() => dayAt("Marlpit/Lock", "2026-11-25T05:00:00Z")).toThrow(RangeError);
    expect(() => dayAt("Europe/London", "yesterday")).toThrow(RangeError);
  });
});
