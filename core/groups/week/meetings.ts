import { dayLater, offOn, type SchoolCalendar, schoolDaysIn, weekdayOf } from "./calendar.ts";
import type { Weekday } from "./times.ts";

/** A session of a group in every week, as it stands in the timetable. */
export interface Placement {
  readonly id: string;
  readonly groupId: string;
  readonly day: Weekday;
  /** Minutes from midnight. */
  readonly from: number;
  readonly to: number;
  readonly adultId: string;
  readonly roomId: string | null;
  /** It stays there when the timetable is made anew. */
  readonly fixed: boolean;
}

/** A session on one day. */
export interface Meeting {
  readonly id: string;
  /** What it came of; another week has another meeting of the same. */
  readonly placementId: string;
  /** The day on which the timetable has it, by which it stays the same meeting when it is moved. */
  readonly dueOn: string;
  readonly groupId: string;
  readonly on: string;
  readonly from: number;
  readonly to: number;
  readonly adultId: string;
  readonly roomId: string | null;
  readonly cancelled: boolean;
  /** Changed for its day alone: the timetable does not change it back. */
  readonly byHand: boolean;
  /** Goes up with each change, for calendars that have it already. */
  readonly sequence: number;
}

/** Weeks for which meetings are made where a school has no terms. */
const WEEKS_AHEAD = 12;
/** Days for which they are made at most, from the first on. */
const DAYS_AHEAD = 400;

/** Meetings that come, change, or fall out. */
export interface MeetingsDue {
  readonly added: readonly Meeting[];
  /** With a sequence one higher. */
  readonly changed: readonly Meeting[];
}

/**
 * Brings meetings in line with a timetable and a calendar, from a day on: what was before stays. A meeting that is due no more
 * is cancelled and stays, so that a calendar that has it can be told.
 * @param existing all meetings that are due from that day on
 * @param newId for a meeting that is added
 */
export function meetingsDue(wanted: {
  readonly placements: readonly Placement[];
  readonly calendar: SchoolCalendar;
  readonly from: string;
  readonly existing: readonly Meeting[];
  readonly newId: () => string;
}): MeetingsDue {
  const { placements, calendar, from, existing, newId } = wanted;
  const [lastTerm] = calendar.terms
    .map(({ to }) => to)
    .sort()
    .slice(-1);
  const farthest = dayLater(from, DAYS_AHEAD);
  const [end = farthest] = [lastTerm ?? dayLater(from, WEEKS_AHEAD * 7 - 1), farthest].sort();
  const due = new Map<string, { readonly placement: Placement; readonly day: string }>();
  for (const day of schoolDaysIn(calendar, from, end)) {
    const weekday = weekdayOf(day);
    for (const placement of placements)
      if (placement.day === weekday) due.set(`${placement.id} ${day}`, { placement, day });
  }
  const added: Meeting[] = [];
  const changed: Meeting[] = [];
  const left = new Map(due);
  for (const meeting of existing) {
    const key = `${meeting.placementId} ${meeting.dueOn}`;
    const now = left.get(key);
    left.delete(key);
    const next = now ? asPlaced(meeting, now.placement) : { ...meeting, cancelled: true };
    // What was changed by hand stays, unless the day it is on is off now.
    if (now && meeting.byHand && offOn(calendar, meeting.on) === undefined) continue;
    if (!isSame(meeting, next)) changed.push({ ...next, sequence: meeting.sequence + 1 });
  }
  for (const { placement, day } of left.values()) {
    const { id: placementId, groupId, from: begins, to, adultId, roomId } = placement;
    added.push({
      ...{ id: newId(), placementId, dueOn: day, groupId, on: day, from: begins, to, adultId, roomId },
      ...{ cancelled: false, byHand: false, sequence: 0 },
    });
  }
  return { added, changed };
}

function asPlaced(meeting: Meeting, { from, to, adultId, roomId }: Placement): Meeting {
  return { ...meeting, on: meeting.dueOn, from, to, adultId, roomId, cancelled: false, byHand: false };
}

/** True when nothing of it differs that a calendar would show. */
export function isSame(one: Meeting, other: Meeting): boolean {
  const keys = ["groupId", "on", "from", "to", "adultId", "roomId", "cancelled"] as const;
  return keys.every((key) => one[key] === other[key]);
}

/**
 * Gives the sessions of a new timetable the ids of the old one's where a group goes on: the same day and time first, then the
 * same day, then any. So a calendar sees a session that moved and not another one.
 */
export function carriedPlacements(
  wanted: readonly Omit<Placement, "id">[],
  before: readonly Placement[],
  newId: () => string,
): Placement[] {
  const left = new Map(before.map((one) => [one.id, one]));
  const alike: readonly ((one: Omit<Placement, "id">, was: Placement) => boolean)[] = [
    (one, was) => was.day === one.day && was.from === one.from,
    (one, was) => was.day === one.day,
    () => true,
  ];
  const ids = wanted.map(() => "");
  for (const like of alike)
    for (const [at, one] of wanted.entries()) {
      if (ids[at]) continue;
      const found = [...left.values()].find((was) => was.groupId === one.groupId && like(one, was));
      if (!found) continue;
      ids[at] = found.id;
      left.delete(found.id);
    }
  return wanted.map((one, at) => ({ ...one, id: ids[at] || newId() }));
}
