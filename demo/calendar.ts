import { addDays, formatISO, parseISO } from "date-fns";

/** Where the demo school's days are reckoned. */
export const demoZone = "Europe/London";

function noon(day: string): number {
  return Date.parse(`${day}T12:00:00Z`);
}

/** The day `count` days after `day` (before it when negative). */
export function dayAfter(day: string, count: number): string {
  return formatISO(addDays(parseISO(day), count), { representation: "date" });
}

/** A weekday of the week that lies `weeks` from the week of `today`; 0 is Monday, 4 Friday. */
export function weekday(today: string, weeks: number, dayOfWeek: number): string {
  const sinceMonday = (new Date(noon(today)).getUTCDay() + 6) % 7;
  return dayAfter(today, weeks * 7 - sinceMonday + dayOfWeek);
}

/** The days of the coming week on which there is school, today among them when it is one. */
export function schoolDays(today: string): readonly string[] {
  return [0, 1, 2, 3, 4, 5, 6]
    .map((days) => dayAfter(today, days))
    .filter((day) => new Date(noon(day)).getUTCDay() % 6 !== 0);
}
