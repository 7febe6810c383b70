import type { Placement } from "./meetings.ts";
import { allHours, type Lesson, type Slot, type Stretch, without } from "./times.ts";
import type { LessonRule, Placed, WeekWanted, WeekWeights } from "./wanted.ts";

/** What a school has said of its week. */
export interface SchoolWeek {
  readonly slots: readonly Slot[];
  /** Of a session, where its group says nothing else. */
  readonly minutes: number;
  readonly rooms: readonly {
    readonly id: string;
    readonly name: string;
    readonly fits: number;
    readonly closed: readonly Stretch[];
  }[];
  /** Who is not here is free at any time. */
  readonly adults: readonly {
    readonly id: string;
    readonly hours: readonly Stretch[];
    readonly rooms: readonly string[];
    readonly classes: readonly string[];
    readonly mostADay: number;
  }[];
  readonly classes: readonly { readonly id: string; readonly lessons: readonly Lesson[] }[];
  readonly lessons: readonly LessonRule[];
  readonly groups: readonly { readonly id: string; readonly sessions: number; readonly minutes: number }[];
  readonly weights: WeekWeights;
}

/** When a child is not as its class is. */
export interface ChildsOwn {
  readonly lessons: readonly Lesson[];
  readonly away: readonly Stretch[];
}

/** The hours of an adult of whom nothing was said. */
export const anyTime = { hours: allHours, rooms: [], classes: [], mostADay: 4 } as const;

/** The lessons of a child: those of its class, with its own in their place; one without a name is nothing in its place. */
export function lessonsOf(ofClass: readonly Lesson[], own: readonly Lesson[] = []): Lesson[] {
  const left = own.reduce<readonly Lesson[]>((list, one) => without(list, one), ofClass);
  return [...left, ...own.filter(({ what }) => what !== "")];
}

/** All that a timetable is asked for, from what a school has said, its groups, and the children in them. */
export function weekWanted(from: {
  readonly week: SchoolWeek;
  /** Sessions that a group has in a week, where it says nothing else. */
  readonly sessionsAWeek: number;
  readonly adults: readonly { readonly id: string; readonly name: string; readonly sessions: number }[];
  readonly groups: readonly { readonly id: string; readonly name: string; readonly members: readonly string[] }[];
  readonly children: readonly { readonly id: string; readonly name: string; readonly classId: string }[];
  readonly own: ReadonlyMap<string, ChildsOwn>;
  readonly fixed?: readonly Placed[];
}): WeekWanted {
  const { week, sessionsAWeek, adults, groups, children, own, fixed = [] } = from;
  const said = new Map(week.adults.map((one) => [one.id, one]));
  const lessons = new Map(week.classes.map((one) => [one.id, one.lessons]));
  const grouped = new Set(groups.flatMap(({ members }) => members));
  const ofGroup = new Map(week.groups.map((one) => [one.id, one]));
  return {
    ...{ slots: week.slots, rooms: week.rooms, lessons: week.lessons, weights: week.weights, fixed },
    adults: adults.map(({ id, name, sessions }) => {
      const { hours, rooms, classes, mostADay } = said.get(id) ?? anyTime;
      // A room that is gone is no reason to be nowhere.
      const here = rooms.filter((room) => week.rooms.some((one) => one.id === room));
      return { id, name, hours, rooms: here, classes, mostADay, mostAWeek: sessions };
    }),
    children: children
      .filter(({ id }) => grouped.has(id))
      .map(({ id, name, classId }) => ({
        ...{ id, name, classId, away: own.get(id)?.away ?? [] },
        lessons: lessonsOf(lessons.get(classId) ?? [], own.get(id)?.lessons),
      })),
    groups: groups
      .filter(({ members }) => members.length > 0)
      .map(({ id, name, members }) => {
        const { sessions = sessionsAWeek, minutes = week.minutes } = ofGroup.get(id) ?? {};
        return { id, name, members, sessions, minutes };
      }),
  };
}

/** A timetable that runs, by the slots of the week; `lost` are sessions at times that are no slot any more. */
export function placedFrom(
  { slots, groups }: Pick<WeekWanted, "slots" | "groups">,
  placements: readonly Placement[],
): { readonly placed: readonly Placed[]; readonly fixed: readonly Placed[]; readonly lost: readonly Placement[] } {
  const placed: Placed[] = [];
  const fixed: Placed[] = [];
  const lost: Placement[] = [];
  for (const one of placements) {
    const slot = slots.find(({ day, from }) => day === one.day && from === one.from);
    if (!slot || !groups.some(({ id }) => id === one.groupId)) {
      lost.push(one);
      continue;
    }
    const at = { groupId: one.groupId, slotId: slot.id, adultId: one.adultId, roomId: one.roomId };
    placed.push(at);
    if (one.fixed) fixed.push(at);
  }
  return { placed, fixed, lost };
}

/** A timetable as it is kept: times instead of slots. */
export function placementsFrom(
  { slots, groups }: Pick<WeekWanted, "slots" | "groups">,
  placed: readonly Placed[],
  isFixed: (one: Placed) => boolean,
): Omit<Placement, "id">[] {
  return placed.flatMap((one) => {
    const slot = slots.find(({ id }) => id === one.slotId);
    const group = groups.find(({ id }) => id === one.groupId);
    if (!slot || !group) return [];
    const { day, from } = slot;
    const { groupId, adultId, roomId } = one;
    return { groupId, adultId, roomId, day, from, to: from + group.minutes, fixed: isFixed(one) };
  });
}

/** Slots of a day that is cut into equal parts, the same on the given days. @param gap minutes between two */
export function evenSlots(wanted: {
  readonly days: readonly Slot["day"][];
  readonly from: number;
  readonly to: number;
  readonly minutes: number;
  readonly gap: number;
}): Slot[] {
  const { days, from, to, minutes, gap } = wanted;
  if (minutes <= 0) return [];
  return days.flatMap((day) => {
    const list: Slot[] = [];
    for (let at = from; at + minutes <= to; at += minutes + gap)
      list.push({ id: `${day}-${at}`, day, from: at, to: at + minutes });
    return list;
  });
}
