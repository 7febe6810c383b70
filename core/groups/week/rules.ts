import { timeInWords } from "#core/saying";
import { cover, overlap, type Slot, slotInWords } from "./times.ts";
import type { WeekAdult, WeekChild, WeekGroup, WeekRoom, WeekWanted } from "./wanted.ts";

/** A rule that a timetable keeps: one that the school has set, and could give up. */
export interface Rule {
  /** The same for the same rule: `hours ADULT`. */
  readonly key: string;
  readonly kind: RuleKind;
  /** As a sentence says it. */
  readonly says: string;
}
export const ruleKinds = [
  ...(["sessions", "minutes", "hours", "adult-day", "adult-week", "adult-classes", "adult-rooms"] as const),
  ...(["closed", "fits", "must", "most", "away"] as const),
] as const;
export type RuleKind = (typeof ruleKinds)[number];

/** What keeps a group from a slot, whoever takes it and wherever. */
export function whyNotThen(
  wanted: Pick<WeekWanted, "lessons">,
  {
    group,
    slot,
    members,
  }: { readonly group: WeekGroup; readonly slot: Slot; readonly members: readonly WeekChild[] },
): Rule[] {
  const found: Rule[] = [];
  const time = slot.to - slot.from;
  if (group.minutes > time)
    found.push({
      ...{ key: `minutes ${group.id}`, kind: "minutes" },
      says: `A session of ${group.name} takes ${group.minutes} minutes.`,
    });
  const session = { ...slot, to: slot.from + group.minutes };
  for (const { id, name, lessons, away } of members) {
    if (away.some((one) => overlap(one, session)))
      found.push({ key: `away ${id}`, kind: "away", says: `${name} is not here at some times.` });
    for (const { what } of lessons.filter((one) => overlap(one, session)))
      if (wanted.lessons.some((rule) => rule.what === what && rule.must)) found.push(mustOf(what));
  }
  return [...new Map(found.map((one) => [one.key, one])).values()];
}

export function mustOf(what: string): Rule {
  return { key: `must ${what}`, kind: "must", says: `No child misses ${what}.` };
}

/** What keeps an adult from a slot with a group. */
export function whyNotBy(adult: WeekAdult, group: WeekGroup, slot: Slot, members: readonly WeekChild[]): Rule[] {
  const found: Rule[] = [];
  if (!cover(adult.hours, { ...slot, to: slot.from + group.minutes })) found.push(hoursOf(adult));
  if (adult.classes.length > 0 && members.some(({ classId }) => !adult.classes.includes(classId)))
    found.push({
      ...{ key: `adult-classes ${adult.id}`, kind: "adult-classes" },
      says: `${adult.name} takes children of some classes only.`,
    });
  return found;
}

export function hoursOf({ id, name, hours }: WeekAdult): Rule {
  const says = hours.length === 0 ? `${name} is free at no time.` : `${name} is free at some times only.`;
  return { key: `hours ${id}`, kind: "hours", says };
}

/** What keeps a group from a room in a slot. */
export function whyNotIn(room: WeekRoom, group: WeekGroup, slot: Slot): Rule[] {
  const found: Rule[] = [];
  const session = { ...slot, to: slot.from + group.minutes };
  if (room.closed.some((one) => overlap(one, session)))
    found.push({ key: `closed ${room.id}`, kind: "closed", says: `${room.name} is closed at some times.` });
  if (group.members.length > room.fits)
    found.push({ key: `fits ${room.id}`, kind: "fits", says: `${room.name} fits ${room.fits}.` });
  return found;
}

/** Rules of how many. */
export const counted = {
  sessions: ({ id, name, sessions }: WeekGroup): Rule => ({
    ...{ key: `sessions ${id}`, kind: "sessions" },
    says: `${name} has ${sessions} ${sessions === 1 ? "session" : "sessions"} a week, on days of its own.`,
  }),
  adultDay: ({ id, name, mostADay }: WeekAdult): Rule => ({
    ...{ key: `adult-day ${id}`, kind: "adult-day" },
    says: `${name} takes ${mostADay} a day at most.`,
  }),
  adultWeek: ({ id, name, mostAWeek }: WeekAdult): Rule => ({
    ...{ key: `adult-week ${id}`, kind: "adult-week" },
    says: `${name} takes ${mostAWeek} a week at most.`,
  }),
  adultRooms: ({ id, name }: WeekAdult): Rule => ({
    ...{ key: `adult-rooms ${id}`, kind: "adult-rooms" },
    says: `${name} is in some rooms only.`,
  }),
  most: (what: string, most: number): Rule => ({
    ...{ key: `most ${what}`, kind: "most" },
    says: `A child misses ${what} at most ${most === 1 ? "once" : most === 2 ? "twice" : `${most} times`} a week.`,
  }),
};

/** A rule as it stands against one slot, for whoever wants a session there. */
export function whyAt(rule: Rule, slot: Slot): string {
  return `${slotInWords(slot)} to ${timeInWords(slot.to)}: ${rule.says}`;
}
