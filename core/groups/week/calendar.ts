import { addDays, differenceInCalendarDays, formatISO, getISODay, parseISO } from "date-fns";
import type { Weekday } from "./times.ts";

/** From a day to another, both in it: `2026-09-01`. */
export interface Days {
  readonly name: string;
  readonly from: string;
  readonly to: string;
}

/** When there is school. Without terms there is school on every day that is not off. */
export interface SchoolCalendar {
  readonly terms: readonly Days[];
  /** Holidays within terms, and single days off. */
  readonly off: readonly Days[];
}

/** Days that are looked at together at most: two school years. */
export const MOST_DAYS = 800;

/** Stretches of days that a calendar holds of each kind. */
export const MOST_STRETCHES = { terms: 20, off: 100 } as const;

/** Which day of the week it is. */
export function weekdayOf(day: string): Weekday {
  return getISODay(parseISO(day)) as Weekday;
}

export function dayLater(day: string, days: number): string {
  return formatISO(addDays(parseISO(day), days), { representation: "date" });
}

/** The Monday of its week. */
export function mondayOf(day: string): string {
  return dayLater(day, 1 - weekdayOf(day));
}

/** Why there is no school on a day: the name of what it is off for, or that it is in no term; undefined when there is. */
export function offOn({ terms, off }: SchoolCalendar, day: string): string | undefined {
  const holiday = off.find(({ from, to }) => from <= day && day <= to);
  if (holiday) return holiday.name;
  if (terms.length > 0 && !terms.some(({ from, to }) => from <= day && day <= to)) return "no term";
  return undefined;
}

/** The days of school from a day to another, both in it, `MOST_DAYS` of the calendar at most. */
export function schoolDaysIn(calendar: SchoolCalendar, from: string, to: string): string[] {
  const days = Math.min(MOST_DAYS, differenceInCalendarDays(parseISO(to), parseISO(from)) + 1);
  return Array.from({ length: Math.max(0, days) }, (_, at) => dayLater(from, at)).filter(
    (day) => offOn(calendar, day) === undefined,
  );
}

/** Weekdays on which a group is thought to meet, by how often a week it does: spread over the week. */
const THOUGHT: readonly (readonly Weekday[])[] = [[], [2], [1, 4], [1, 3, 5], [1, 2, 4, 5], [1, 2, 3, 4, 5]];

/** Days of school on which a group would meet that has no time in the week, from a day to another, both in it. */
export function thoughtDays(
  calendar: SchoolCalendar,
  { from, to, aWeek }: { readonly from: string; readonly to: string; readonly aWeek: number },
): string[] {
  const weekdays = THOUGHT[Math.min(Math.max(0, aWeek), THOUGHT.length - 1)] ?? [];
  return schoolDaysIn(calendar, from, to).filter((day) => weekdays.includes(weekdayOf(day)));
}

/** What is wrong with a calendar, a sentence each; none where all is well. */
export function calendarFaults({ terms, off }: SchoolCalendar): string[] {
  const backwards = [...terms, ...off].flatMap(({ name, from, to }) =>
    to < from ? [`${name || "A stretch of days"} ends before it begins. Swap the two days.`] : [],
  );
  const long = terms.flatMap(({ name, from, to }) =>
    differenceInCalendarDays(parseISO(to), parseISO(from)) > 400
      ? [`${name || "A term"} is longer than a year. Give each term its own days.`]
      : [],
  );
  const order = terms
    .filter(({ from, to }) => from <= to)
    .toSorted((one, other) => one.from.localeCompare(other.from));
  const overlapping = order.flatMap((one, at) => {
    const next = order[at + 1];
    return next && next.from <= one.to ? [`${one.name} and ${next.name} overlap. Change one of them.`] : [];
  });
  return [...backwards, ...long, ...overlapping];
}
