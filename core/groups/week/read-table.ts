import { timeInWords } from "#core/saying";
import { DAY_MINUTES, type Lesson, minutesOf, type Weekday, weekdayNames, weekdays } from "./times.ts";

/** What was read of hours that someone brought, and what was not. */
export interface HoursRead {
  /** `what` is empty where the file has no name for it. */
  readonly lessons: readonly Lesson[];
  /** What was left out, each a sentence with its line or its name. */
  readonly leftOut: readonly string[];
}

/** Lines of a table that are looked at. */
const MOST_LINES = 2000;
const NAMES = {
  day: /^(week)?days?$/i,
  from: /^(from|begin(s|ning)?|start(s)?|start time)$/i,
  to: /^(to|end(s)?|until|end time)$/i,
  what: /^(what|lesson|subject|name|title|summary)$/i,
};

/** The day that someone wrote: `Mon`, `monday`, `1`; undefined for what is none. */
export function weekdayNamed(text: string): Weekday | undefined {
  const word = text.trim().toLowerCase();
  if (/^[1-7]$/.test(word)) return Number(word) as Weekday;
  if (word.length < 2) return undefined;
  const found = weekdays.filter((day) => weekdayNames[day].toLowerCase().startsWith(word));
  return found.length === 1 ? found[0] : undefined;
}

/**
 * Hours of a table with a day, a beginning, an end and what it is, in this order or named by its first line. A line that cannot
 * be read is left out and told; the others stay.
 * @param rows cells as text
 */
export function hoursInTable(rows: readonly (readonly string[])[]): HoursRead {
  const lessons: Lesson[] = [];
  const leftOut: string[] = [];
  const [first = []] = rows;
  const named = first.some((cell) => NAMES.from.test(cell.trim()));
  const column = (name: keyof typeof NAMES, otherwise: number) =>
    named ? first.findIndex((cell) => NAMES[name].test(cell.trim())) : otherwise;
  const at = { day: column("day", 0), from: column("from", 1), to: column("to", 2), what: column("what", 3) };
  if (named && (at.day < 0 || at.to < 0))
    return {
      lessons,
      leftOut: ["The first line names no column for the day, or for the end. Name them day, from, to, what."],
    };
  for (const [line, row] of rows.entries()) {
    if ((named && line === 0) || row.every((cell) => cell.trim() === "")) continue;
    if (lessons.length >= MOST_LINES) {
      leftOut.push(`Lines after the first ${MOST_LINES} were left out.`);
      break;
    }
    const cell = (place: number) => (row[place] ?? "").trim();
    const day = weekdayNamed(cell(at.day));
    const from = minutesOf(cell(at.from));
    const to = minutesOf(cell(at.to));
    const fault = !day
      ? `“${cell(at.day)}” is no day`
      : from === undefined
        ? `“${cell(at.from)}” is no time`
        : to === undefined
          ? `“${cell(at.to)}” is no time`
          : from >= to
            ? `${timeInWords(from)} to ${timeInWords(to)} ${from === to ? "has no length" : "ends before it begins"}`
            : undefined;
    if (fault || !day || from === undefined || to === undefined) leftOut.push(`Line ${line + 1}: ${fault}.`);
    else lessons.push({ day, from, to: Math.min(to, DAY_MINUTES), what: cell(at.what).slice(0, 40) });
  }
  return { lessons, leftOut };
}
