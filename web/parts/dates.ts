import { differenceInCalendarDays, format, parseISO } from "date-fns";

/** `Mon 23 Nov` */
export function shortDay(day: string): string {
  return format(parseISO(day), "EEE d MMM");
}

/** `today`, `tomorrow`, `yesterday`, `3 days ago`, `in 4 days`, else the date. */
export function nearDay(day: string, today: string): string {
  const days = differenceInCalendarDays(parseISO(day), parseISO(today));
  if (days === 0) return "today";
  if (days === 1) return "tomorrow";
  if (days === -1) return "yesterday";
  if (days < 0 && days >= -6) return `${-days} days ago`;
  return shortDay(day);
}
