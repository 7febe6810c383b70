import { TZDate, tz } from "@date-fns/tz";
import { lightFormat } from "date-fns";

/** A calendar day, `2026-11-23`, written so that days compare as texts. */
export type Day = string;

/**
 * The calendar day at a place when an instant passes there: the one way from an instant to a day.
 * @param zone an IANA name, `Europe/London`
 * @param instant in UTC, as an ISO text or a date
 * @example dayAt("Pacific/Honolulu", "2026-11-25T05:00:00Z") // "2026-11-24"
 * @throws RangeError for a zone or an instant that there is not
 */
export function dayAt(zone: string, instant: string | Date): Day {
  if (!isTimeZone(zone)) throw new RangeError(`${zone} is not a time zone.`);
  return lightFormat(tz(zone)(new Date(instant)), "yyyy-MM-dd");
}

/**
 * The instant at which a calendar day begins at a place; where the clock is put forward over midnight, the first one of it.
 * @example startOfDay("Europe/London", "2026-07-01") // 2026-06-30T23:00:00.000Z
 */
export function startOfDay(zone: string, day: Day): Date {
  const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
  return new Date(TZDate.tz(zone, year, month - 1, date).getTime());
}

/**
 * The instant at which a clock at a place shows a time of a day, in minutes from midnight; where the clock is put forward over it,
 * as much later.
 * @example instantAt("Europe/London", "2026-07-01", 555) // 2026-07-01T08:15:00.000Z
 */
export function instantAt(zone: string, day: Day, minutes: number): Date {
  const [year = 0, month = 1, date = 1] = day.split("-").map(Number);
  return new Date(TZDate.tz(zone, year, month - 1, date, Math.floor(minutes / 60), minutes % 60).getTime());
}

const known = new Map<string, boolean>();
const MOST_KNOWN = 1000;

/** True for an IANA time zone that this machine can reckon with. Offsets (`+02:00`) are none: they know no summer. */
export function isTimeZone(text: string): boolean {
  const before = known.get(text);
  if (before !== undefined) return before;
  const is = /^[A-Za-z][\w+/-]*$/.test(text) && canReckon(text);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(text, is);
  return is;
}

function canReckon(zone: string): boolean {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}
