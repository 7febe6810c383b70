import { addDays, addMonths, addWeeks, formatISO, parseISO } from "date-fns";

const asDay = (date: Date) => formatISO(date, { representation: "date" });

/**
 * The day from which on a child who left is to be erased.
 * @param leftOn a day, `2026-11-20`
 * @param months for which the school keeps records
 * @example dueOn("2026-08-31", 6) // "2027-02-28"
 */
export function dueOn(leftOn: string, months: number): string {
  return asDay(addMonths(parseISO(leftOn), months));
}

/**
 * The first day on which no backup holds a child who was erased: one may have been made on that day before it.
 * @param erasedOn a day
 * @param weeks for which the school keeps a backup
 */
export function outOfBackupsOn(erasedOn: string, weeks: number): string {
  return asDay(addDays(addWeeks(parseISO(erasedOn), weeks), 1));
}
