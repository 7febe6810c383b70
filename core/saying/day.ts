import { differenceInCalendarDays, format, parseISO } from "date-fns";

/** A calendar day, `2026-11-23`. */
type Day = string;

/**
 * A day as people write it, with its year when it is not this one.
 * @example shortDay("2026-11-23", "2026-11-25") // "Mon 23 Nov"
 * @example shortDay("2025-11-23", "2026-11-25") // "Sun 23 Nov 2025"
 */
export function shortDay(day: Day, today: Day): string {
  const isThisYear = day.slice(0, 4) === today.slice(0, 4);
  return format(parseISO(day), isThisYear ? "EEE d MMM" : "EEE d MMM yyyy");
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
