import { format, isValid, parse } from "date-fns";
import ICAL from "ical.js";
import { plural, shortDay } from "#core/saying";
import { calendarFaults, type Days, dayLater, MOST_STRETCHES, type SchoolCalendar } from "./calendar.ts";
import { componentsOf, dateOf, MOST_CALENDAR } from "./read-calendar.ts";

/** Terms, holidays and days off that someone brought, and what was left out of them. */
export interface DaysRead {
  readonly days: readonly Days[];
  /** Each a sentence, with its line or its name. */
  readonly leftOut: readonly string[];
}

/** Entries that are read of one file. */
const MOST_DAYS_READ = 200;
const MOST_STEPS = 400;
const NAME_LETTERS = 40;
const WAYS = ["yyyy-MM-dd", "d/M/yyyy", "d.M.yyyy", "d MMMM yyyy", "d MMM yyyy"];
const HEAD = /^(name|what|term|title|summary)$/i;

/** A day as it is written in tables, the day before the month: `26/10/2026`, `26 October 2026`, `2026-10-26`. */
export function dayWritten(text: string): string | undefined {
  for (const way of WAYS) {
    const day = parse(text.trim(), way, new Date(2000, 0, 1));
    if (isValid(day) && day.getFullYear() > 1990 && day.getFullYear() < 2200) return format(day, "yyyy-MM-dd");
  }
  return undefined;
}

/**
 * Stretches of days of a table: a name, the first day, the last; without a last it is one day. A line that cannot be read is left
 * out and told.
 * @param rows cells as text
 */
export function daysInTable(rows: readonly (readonly string[])[]): DaysRead {
  const days: Days[] = [];
  const leftOut: string[] = [];
  for (const [at, row] of rows.entries()) {
    const [name = "", first = "", last = ""] = row.map((cell) => cell.trim());
    if ((at === 0 && HEAD.test(name)) || row.every((cell) => cell.trim() === "")) continue;
    if (days.length >= MOST_DAYS_READ) {
      leftOut.push(`Lines after the first ${MOST_DAYS_READ} were left out.`);
      break;
    }
    const from = dayWritten(first);
    const to = last === "" ? from : dayWritten(last);
    const fault =
      name === ""
        ? "there is no name"
        : from === undefined
          ? `“${first}” is no day`
          : to === undefined
            ? `“${last}” is no day`
            : to < from
              ? `${name} ends before it begins`
              : undefined;
    if (fault || from === undefined || to === undefined) leftOut.push(`Line ${at + 1}: ${fault}.`);
    else days.push({ name: name.slice(0, NAME_LETTERS), from, to });
  }
  return { days, leftOut };
}

/**
 * Stretches of days of a calendar file: its events of whole days that have a day between `from` and `to`. What has hours is counted
 * and left out.
 */
export function daysInCalendar(text: string, { from, to }: { readonly from: string; readonly to: string }): DaysRead {
  if (text.length > MOST_CALENDAR)
    return { days: [], leftOut: ["This file is too large to be read. Export fewer weeks, and try again."] };
  const { components, broken } = componentsOf(text);
  if (components.length === 0 && broken === 0)
    return { days: [], leftOut: ["This is no calendar file. It begins with BEGIN:VCALENDAR."] };
  const leftOut = broken > 0 ? [`${plural(broken, "event")} could not be read.`] : [];
  const days: Days[] = [];
  let timed = 0;
  let far = 0;
  for (const component of components.flatMap((one) => one.getAllSubcomponents("vevent"))) {
    if (component.getFirstPropertyValue("status") === "CANCELLED") continue;
    try {
      const event = new ICAL.Event(component, { exceptions: [] });
      if (!event.startDate?.isDate) {
        timed++;
        continue;
      }
      const name =
        String(event.summary ?? "")
          .trim()
          .slice(0, NAME_LETTERS) || "Day off";
      const long = Math.max(1, Math.round(event.duration.toSeconds() / 86_400));
      const each = event.isRecurring() ? event.iterator() : undefined;
      let start: ICAL.Time | null = each ? each.next() : event.startDate;
      for (let step = 0; start && step < MOST_STEPS; step++) {
        const first = dateOf(start);
        const last = dayLater(first, long - 1);
        if (first > to) break;
        if (last < from) far++;
        else days.push({ name, from: first, to: last });
        start = each ? each.next() : null;
      }
    } catch {
      leftOut.push("An event whose days cannot be reckoned with was left out.");
    }
  }
  if (timed > 0) leftOut.push(`${plural(timed, "event")} with hours left out.`);
  if (far > 0) leftOut.push(`${plural(far, "event")} before ${shortDay(from, "")} left out.`);
  if (days.length > MOST_DAYS_READ) leftOut.push(`Only the first ${MOST_DAYS_READ} were taken, of ${days.length}.`);
  return { days: days.slice(0, MOST_DAYS_READ), leftOut };
}

/**
 * A calendar with days that were read put to its terms or its days off. What is there already stays once; what would stand against
 * the rest is left out and told.
 */
export function calendarWith(
  calendar: SchoolCalendar,
  key: keyof SchoolCalendar,
  read: DaysRead,
): { readonly calendar: SchoolCalendar; readonly added: number; readonly leftOut: readonly string[] } {
  const leftOut = [...read.leftOut];
  let now = calendar;
  let added = 0;
  for (const one of read.days) {
    if (now[key].some((other) => other.from === one.from && other.to === one.to)) {
      leftOut.push(`${one.name} is there already.`);
      continue;
    }
    const next = { ...now, [key]: [...now[key], one] };
    const [fault] =
      next[key].length > MOST_STRETCHES[key]
        ? [`${one.name}: there is no room for more than ${MOST_STRETCHES[key]} of these.`]
        : calendarFaults(next);
    if (fault) leftOut.push(fault);
    else {
      now = next;
      added++;
    }
  }
  return { calendar: now, added, leftOut };
}
