import { timeInWords } from "#core/saying";

/** Days of a week as ISO numbers them: 1 is Monday, 7 Sunday. */
export type Weekday = 1 | 2 | 3 | 4 | 5 | 6 | 7;
export const weekdays: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];
export const weekdayNames: Readonly<Record<Weekday, string>> = {
  ...{ 1: "Monday", 2: "Tuesday", 3: "Wednesday", 4: "Thursday", 5: "Friday", 6: "Saturday", 7: "Sunday" },
};
/** Minutes of a day. */
export const DAY_MINUTES = 24 * 60;

/** A stretch of a weekday, in minutes from midnight; `to` lies after `from` and is not in it. */
export interface Stretch {
  readonly day: Weekday;
  readonly from: number;
  readonly to: number;
}

/** All of every day. */
export const allHours: readonly Stretch[] = weekdays.map((day) => ({ day, from: 0, to: DAY_MINUTES }));

/** A stretch in which a session can be held. Slots of a day do not overlap. */
export interface Slot extends Stretch {
  readonly id: string;
}

/** A stretch in which children have a lesson, or something else that has a name. */
export interface Lesson extends Stretch {
  readonly what: string;
}

/** `Monday 9:15`. */
export function slotInWords({ day, from }: Pick<Stretch, "day" | "from">): string {
  return `${weekdayNames[day]} ${timeInWords(from)}`;
}

/**
 * Minutes from midnight, of what someone typed; undefined for what is no time. 24:00 is the end of a day.
 * @example minutesOf("9.15") // 555
 */
export function minutesOf(text: string): number | undefined {
  const read = /^\s*(\d{1,2})(?:[:.h](\d{2}))?(?::\d{2})?\s*(am|pm)?\s*$/i.exec(text);
  if (!read) return undefined;
  const [, hourText = "", minuteText = "0", half] = read;
  const hour = Number(hourText);
  const minute = Number(minuteText);
  if (minute > 59 || (half && (hour < 1 || hour > 12))) return undefined;
  const whole = half ? (hour % 12) + (half.toLowerCase() === "pm" ? 12 : 0) : hour;
  const minutes = whole * 60 + minute;
  return minutes <= DAY_MINUTES ? minutes : undefined;
}

export function overlap(one: Stretch, other: Stretch): boolean {
  return one.day === other.day && one.from < other.to && other.from < one.to;
}

/** The stretches joined where they touch or overlap, in the order of the week; those of no length are gone. */
export function joined(stretches: readonly Stretch[]): Stretch[] {
  const all: { day: Weekday; from: number; to: number }[] = [];
  for (const { day, from, to } of inOrder(stretches)) {
    if (to <= from) continue;
    const last = all.at(-1);
    if (last && last.day === day && from <= last.to) last.to = Math.max(last.to, to);
    else all.push({ day, from, to });
  }
  return all;
}

/** True when one of the stretches, joined, holds the whole of `inner`. */
export function cover(stretches: readonly Stretch[], inner: Stretch): boolean {
  return joined(stretches).some(({ day, from, to }) => day === inner.day && from <= inner.from && inner.to <= to);
}

/** What is left of the stretches when one is cut out of them. */
export function without<One extends Stretch>(stretches: readonly One[], hole: Stretch): One[] {
  return stretches.flatMap((one) => {
    if (!overlap(one, hole)) return [one];
    const before = { ...one, to: hole.from };
    const after = { ...one, from: hole.to };
    return [before, after].filter(({ from, to }) => from < to);
  });
}

/** In the order of the week. */
export function inOrder<One extends Stretch>(stretches: readonly One[]): One[] {
  return stretches.toSorted((one, other) => one.day - other.day || one.from - other.from || one.to - other.to);
}
