import type { OwnHours, Week } from "#contract";
import {
  anyTime,
  cover,
  type Lesson,
  lessonsOf,
  overlap,
  type Slot,
  type Stretch,
  type Weekday,
  without,
} from "#core/groups";

/** A stretch without what else a slot has. */
const bare = ({ day, from, to }: Stretch): Stretch => ({ day, from, to });

/** What a slot is for those who are free or not. */
export const FREE = "free";
export const NOT_FREE = "not free";

export function freeAt(hours: readonly Stretch[], slot: Slot): string {
  return cover(hours, bare(slot)) ? FREE : NOT_FREE;
}

/** Hours with these slots free, or not. */
export function paintFree(hours: readonly Stretch[], slots: readonly Slot[], value: string): Stretch[] {
  return slots.reduce<Stretch[]>(
    (list, slot) => (value === FREE ? [...without(list, slot), bare(slot)] : without(list, slot)),
    [...hours],
  );
}

/** What lessons have at a slot, the names of all that meet it. */
export function lessonAt(lessons: readonly Lesson[], slot: Slot): string {
  return [...new Set(lessons.filter((one) => overlap(one, slot)).map(({ what }) => what))].join(", ");
}

/** Lessons with these slots painted; an empty name leaves nothing there. */
export function paintLessons(lessons: readonly Lesson[], slots: readonly Slot[], what: string): Lesson[] {
  return slots.reduce<Lesson[]>(
    (list, slot) => [...without(list, slot), ...(what === "" ? [] : [{ ...bare(slot), what }])],
    [...lessons],
  );
}

/** A day laid over others: what they had is gone. */
export function copyDay<One extends Stretch>(list: readonly One[], from: Weekday, to: readonly Weekday[]): One[] {
  const source = list.filter(({ day }) => day === from);
  return [
    ...list.filter(({ day }) => !to.includes(day)),
    ...to.flatMap((day) => source.map((one) => ({ ...one, day }))),
  ];
}

type WeekAdult = Week["adults"][number];

/** What is kept of an adult; of one of whom nothing was said, what holds then. */
export function adultIn(week: Week, id: string): WeekAdult {
  return (
    week.adults.find((one) => one.id === id) ?? { id, ...anyTime, hours: [...anyTime.hours], rooms: [], classes: [] }
  );
}

export function withAdult(week: Week, adult: WeekAdult): Week {
  return { ...week, adults: [...week.adults.filter(({ id }) => id !== adult.id), adult] };
}

export function withRoom(week: Week, room: Week["rooms"][number]): Week {
  return { ...week, rooms: week.rooms.map((one) => (one.id === room.id ? room : one)) };
}

export function lessonsIn(week: Week, classId: string): Lesson[] {
  return week.classes.find(({ id }) => id === classId)?.lessons ?? [];
}

export function withLessons(week: Week, classId: string, lessons: readonly Lesson[]): Week {
  return {
    ...week,
    classes: [...week.classes.filter(({ id }) => id !== classId), { id: classId, lessons: [...lessons] }],
  };
}

export const AWAY = "not here";
export const AS_CLASS = "as its class";
export const NOTHING = "nothing then";

/** What a child has at a slot: its own, or what its class has. */
export function childAt(own: OwnHours, ofClass: readonly Lesson[], slot: Slot): string {
  if (own.away.some((one) => overlap(one, slot))) return AWAY;
  return lessonAt(lessonsOf(ofClass, own.lessons), slot);
}

/** The hours of a child with these slots painted. */
export function paintChild(own: OwnHours, slots: readonly Slot[], value: string): OwnHours {
  const away = paintFree(own.away, slots, value === AWAY ? FREE : NOT_FREE);
  const cut = slots.reduce<Lesson[]>((list, slot) => without(list, slot), [...own.lessons]);
  if (value === AWAY || value === AS_CLASS) return { away, lessons: cut };
  const what = value === NOTHING ? "" : value;
  return { away, lessons: [...cut, ...slots.map((slot) => ({ ...bare(slot), what }))] };
}

/** Names of lessons that the school has anywhere, in the order of the alphabet. */
export function lessonNames(week: Week): string[] {
  const all = [
    ...week.lessons.map(({ what }) => what),
    ...week.classes.flatMap(({ lessons }) => lessons.map(({ what }) => what)),
  ];
  return [...new Set(all)].filter(Boolean).sort((one, other) => one.localeCompare(other));
}
