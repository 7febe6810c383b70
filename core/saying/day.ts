import { differenceInCalendarDays, parseISO } from "date-fns";

/** A calendar day, `2026-11-23`. */
type Day = string;

/** Only the names of its parts are taken from it: how a locale puts them together differs from browser to browser. */
const names = new Intl.DateTimeFormat("en-US", {
  weekday: "short",
  day: "numeric",
  month: "short",
  year: "numeric",
  timeZone: "UTC",
});

/**
 * A day as people write it, with its year when it is not this one.
 * @example shortDay("2026-11-23", "2026-11-25") // "Mon 23 Nov"
 * @example shortDay("2025-11-23", "2026-11-25") // "Sun 23 Nov 2025"
 */
export function shortDay(day: Day, today: Day): string {
  const isThisYear = day.slice(0, 4) === today.slice(0, 4);
  const part = Object.fromEntries(
    names.formatToParts(parseISO(`${day}T00:00:00Z`)).map((one) => [one.type, one.value]),
  );
  return `${part.weekday} ${part.day} ${part.month}${isThisYear ? "" : ` ${part.year}`}`;
}

/** `today`, `tomorrow`, `yesterday`, `3 days ago`, else the day as `shortDay` writes it. */
export function nearDay(day: Day, today: Day): string {
  const days = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (days === 0) return "today";
  if (days === 1) return "tomorrow";
  if (days === -1) return "yesterday";
  if (days < 0 && days >= -6) return `${-days} days ago`;
  return shortDay(day, today);
}
