import { TZDate } from "@date-fns/tz";
import ICAL from "ical.js";
import { timeInWords } from "#core/saying";
import { dayLater, weekdayOf } from "./calendar.ts";
import type { HoursRead } from "./read-table.ts";
import { DAY_MINUTES, type Lesson, type Weekday, weekdayNames } from "./times.ts";

/** Letters of a calendar file that are looked at. */
export const MOST_CALENDAR = 8_000_000;
/** Events of it, and times of all of them together. */
const MOST_EVENTS = 10_000;
const MOST_TIMES = 50_000;
/** Of the weeks looked at, so many must have it for it to be of every week. */
const OFTEN = 0.5;
const MOST_TOLD = 12;

/**
 * Hours of every week, from a calendar file: what is at the same time of the same weekday in at least half of the weeks that are
 * looked at. What is there once is told and left out. Times are those of the school, whatever zone an event is in.
 * @param zone of the school, an IANA name
 * @param from the Monday of the first week that is looked at
 */
export function hoursInCalendar(
  text: string,
  { zone, from, weeks }: { readonly zone: string; readonly from: string; readonly weeks: number },
): HoursRead {
  if (text.length > MOST_CALENDAR)
    return { lessons: [], leftOut: ["This file is too large to be read. Export fewer weeks, and try again."] };
  const leftOut: string[] = [];
  const { components, broken } = componentsOf(text);
  if (broken > 0)
    leftOut.push(
      `${broken === 1 ? "1 event" : `${broken} events`} could not be read and ${broken === 1 ? "was" : "were"} left out.`,
    );
  if (components.length === 0 && broken === 0)
    return { lessons: [], leftOut: ["This is no calendar file. It begins with BEGIN:VCALENDAR."] };
  const to = dayLater(from, weeks * 7 - 1);
  const events = components.flatMap((component) => component.getAllSubcomponents("vevent"));
  if (events.length > MOST_EVENTS)
    leftOut.push(`Only the first ${MOST_EVENTS} events were looked at, of ${events.length}.`);
  const found = new Map<string, { lesson: Lesson; days: Set<string> }>();
  let times = 0;
  let allDay = 0;
  let overMidnight = 0;
  for (const time of timesOf(events.slice(0, MOST_EVENTS), { zone, from, to })) {
    if (time === "all-day") allDay++;
    else if (times++ < MOST_TIMES) {
      const { day, begins, ends, what } = time;
      if (ends > DAY_MINUTES) overMidnight++;
      else if (ends > begins) {
        const weekday = weekdayOf(day);
        const key = `${weekday} ${begins} ${ends} ${what}`;
        const same = found.get(key) ?? { lesson: { day: weekday, from: begins, to: ends, what }, days: new Set() };
        same.days.add(day);
        found.set(key, same);
      }
    }
  }
  if (times > MOST_TIMES) leftOut.push(`Only the first ${MOST_TIMES} times were looked at.`);
  const all = [...found.values()];
  const often = all.filter(({ days }) => days.size >= Math.max(1, weeks * OFTEN));
  const seldom = all.filter((one) => !often.includes(one));
  for (const { lesson, days } of seldom.slice(0, MOST_TOLD))
    leftOut.push(
      `${lesson.what || "An event"}, ${weekdayNames[lesson.day as Weekday]} ${timeInWords(lesson.from)}: in ${days.size} of ${weeks} weeks.`,
    );
  if (seldom.length > MOST_TOLD) leftOut.push(`And ${seldom.length - MOST_TOLD} more that are not of every week.`);
  if (allDay > 0)
    leftOut.push(`${allDay === 1 ? "1 event of a whole day was" : `${allDay} events of whole days were`} left out.`);
  if (overMidnight > 0)
    leftOut.push(`${overMidnight === 1 ? "1 event" : `${overMidnight} events`} past midnight left out.`);
  return { lessons: often.map(({ lesson }) => lesson), leftOut };
}

/** The calendars of a file. Of one that cannot be read as a whole, the events that can, each by itself. */
export function componentsOf(text: string): { components: ICAL.Component[]; broken: number } {
  if (!/^BEGIN:VCALENDAR/im.test(text)) return { components: [], broken: 0 };
  try {
    const parsed = ICAL.parse(text) as unknown[];
    const list = (Array.isArray(parsed[0]) ? parsed : [parsed]) as ConstructorParameters<typeof ICAL.Component>[0][];
    return { components: list.map((one) => new ICAL.Component(one)), broken: 0 };
  } catch {
    const blocks = text.match(/^BEGIN:(VEVENT|VTIMEZONE)\r?$[\s\S]*?^END:\1\r?$/gm) ?? [];
    const calendar = new ICAL.Component("vcalendar");
    let broken = 0;
    for (const block of blocks) {
      const one = readBlock(block);
      if (one) calendar.addSubcomponent(one);
      else broken++;
    }
    return { components: blocks.length > broken ? [calendar] : [], broken };
  }
}

/** One event, without the lines of it that are none. */
function readBlock(block: string): ICAL.Component | undefined {
  const lines = block.split(/\r?\n/).filter((line) => /^([A-Z][A-Z0-9-]*[;:]|[ \t])/i.test(line));
  try {
    const parsed = ICAL.parse(["BEGIN:VCALENDAR", ...lines, "END:VCALENDAR"].join("\r\n")) as ConstructorParameters<
      typeof ICAL.Component
    >[0];
    return new ICAL.Component(parsed).getAllSubcomponents()[0];
  } catch {
    return undefined;
  }
}

interface Time {
  readonly day: string;
  /** Minutes from midnight of that day. */
  readonly begins: number;
  readonly ends: number;
  readonly what: string;
}

/** Steps of one repetition that are gone through: enough for ten years of days, and an end for what has none. */
const MOST_STEPS = 4000;

function* timesOf(
  events: readonly ICAL.Component[],
  { zone, from, to }: { zone: string; from: string; to: string },
): Generator<Time | "all-day"> {
  const moved = new Set(
    events.flatMap((one) => {
      const of = one.getFirstPropertyValue("recurrence-id");
      return of ? `${one.getFirstPropertyValue("uid")} ${of}` : [];
    }),
  );
  const end = dayLater(to, 1);
  for (const component of events) {
    if (component.getFirstPropertyValue("status") === "CANCELLED") continue;
    try {
      const event = new ICAL.Event(component, { exceptions: [] });
      if (!event.startDate) continue;
      const what = String(event.summary ?? "")
        .trim()
        .slice(0, 40);
      const named = component.getFirstProperty("dtstart")?.getFirstParameter("tzid");
      const minutes = Math.max(0, event.duration.toSeconds() / 60);
      if (!event.isRecurring() || event.isRecurrenceException()) {
        yield* within(event.startDate, named, minutes, what);
        continue;
      }
      const each = event.iterator();
      for (let step = 0; step < MOST_STEPS; step++) {
        const start = each.next();
        if (!start) break;
        if (dateOf(start) > end) break;
        if (!moved.has(`${event.uid} ${start}`)) yield* within(start, named, minutes, what);
      }
    } catch {
      // An event whose times cannot be reckoned with has none.
    }
  }

  function* within(
    start: ICAL.Time,
    named: string | undefined,
    minutes: number,
    what: string,
  ): Generator<Time | "all-day"> {
    if (start.isDate) {
      const day = dateOf(start);
      if (from <= day && day <= to) yield "all-day";
      return;
    }
    const { day, minute } = here(start, named, zone);
    if (from <= day && day <= to) yield { day, begins: minute, ends: minute + minutes, what };
  }
}

/** Its day, as the file has it. */
export function dateOf({ year, month, day }: ICAL.Time): string {
  return `${year}-${two(month)}-${two(day)}`;
}

const two = (number: number) => String(number).padStart(2, "0");

/** An instant of a calendar as the school's clock has it; one that names no zone is the school's. */
function here(start: ICAL.Time, named: string | undefined, zone: string): { day: string; minute: number } {
  const of = start.zone?.tzid ?? "floating";
  const id = of === "floating" && named ? named : of;
  if (id === "floating") return { day: dateOf(start), minute: start.hour * 60 + start.minute };
  const { year, month, day, hour, minute } = start;
  // A zone that the file describes, or one by its name alone.
  const instant =
    id === "UTC" || start.zone?.component
      ? start.toJSDate().getTime()
      : TZDate.tz(id, year, month - 1, day, hour, minute).getTime();
  const there = TZDate.tz(zone, instant);
  if (Number.isNaN(there.getTime())) return { day: dateOf(start), minute: hour * 60 + minute };
  return {
    day: `${there.getFullYear()}-${two(there.getMonth() + 1)}-${two(there.getDate())}`,
    minute: there.getHours() * 60 + there.getMinutes(),
  };
}
