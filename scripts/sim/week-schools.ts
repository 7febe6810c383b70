import {
  type Lesson,
  type LessonRule,
  type Slot,
  type Stretch,
  startingWeekWeights,
  type WeekAdult,
  type WeekChild,
  type Weekday,
  type WeekRoom,
  type WeekWanted,
} from "#core/groups";
import { dice } from "#core/words";

/** How a made-up school is: what is asked of its week. */
export interface SchoolSize {
  readonly groups: number;
  readonly adults: number;
  readonly rooms: number;
  /** Slots of each of the five days. */
  readonly slotsADay: number;
  readonly classes: number;
}

export const MIDDLE: SchoolSize = { groups: 8, adults: 4, rooms: 3, slotsADay: 5, classes: 4 };
const LESSONS = ["Maths", "Writing", "Science", "Music", "Art", "Games", "History", "Story"];
const DAYS: readonly Weekday[] = [1, 2, 3, 4, 5];

/** A school with classes that have a timetable, adults who are there at some hours, rooms, and groups of three to five. */
export function madeUpSchool(seed: number, size: SchoolSize = MIDDLE): WeekWanted {
  const from = dice(seed * 7919 + 13);
  const next = () => from.share();
  const below = (most: number) => from.pick(most);
  const oneOf = <One>(list: readonly One[]) => list[below(list.length)] as One;
  const slots: Slot[] = DAYS.flatMap((day) =>
    Array.from({ length: size.slotsADay }, (_, at) => {
      const from = 9 * 60 + Math.round((at * 330) / size.slotsADay / 5) * 5;
      return { id: `d${day}s${at}`, day, from, to: from + 25 };
    }),
  );
  const playtimes = DAYS.map((day): Lesson => ({ day, from: 10 * 60 + 30, to: 10 * 60 + 45, what: "Playtime" }));
  const lessonsOf = Array.from({ length: size.classes }, () => [
    ...slots.map(({ id: _, ...slot }): Lesson => ({ ...slot, what: oneOf(LESSONS) })),
    ...playtimes,
  ]);
  const rules: LessonRule[] = [
    { what: "Playtime", must: true, most: null },
    { what: "Games", must: next() < 0.5, most: null },
    { what: "Maths", must: false, most: 1 },
    { what: "Writing", must: false, most: 2 },
  ];
  const rooms = Array.from({ length: size.rooms }, (_, at): WeekRoom => {
    const closed = slots.filter(() => next() < 0.15).map(({ day, from, to }) => ({ day, from, to }));
    return { id: `r${at}`, name: `Room ${at + 1}`, fits: 4 + below(4), closed };
  });
  const adults = Array.from({ length: size.adults }, (_, at): WeekAdult => {
    const part = next();
    const hours: Stretch[] = DAYS.flatMap((day) => {
      if (part < 0.3 && next() < 0.4) return [];
      const morning = { day, from: 8 * 60 + 30, to: 12 * 60 + 15 };
      const afternoon = { day, from: 12 * 60 + 15, to: 15 * 60 + 30 };
      if (part < 0.5) return [morning];
      return part < 0.6 ? [afternoon] : [morning, afternoon];
    });
    return {
      ...{ id: `a${at}`, name: `Adult ${at + 1}`, hours, mostADay: 2 + below(3), mostAWeek: 8 + below(8) },
      rooms: next() < 0.3 && rooms.length > 1 ? [`r${below(rooms.length)}`, `r${below(rooms.length)}`] : [],
      classes: next() < 0.2 ? [`c${below(size.classes)}`, `c${below(size.classes)}`, `c${below(size.classes)}`] : [],
    };
  });
  const children: WeekChild[] = [];
  const groups = Array.from({ length: size.groups }, (_, at) => {
    const classAt = below(size.classes);
    const count = 3 + below(3);
    const members = Array.from({ length: count }, (__, place) => {
      const own = next() < 0.15 ? (classAt + 1) % size.classes : classAt;
      const id = `k${at}-${place}`;
      const away = next() < 0.05 ? [{ day: oneOf(DAYS), from: 0, to: 24 * 60 }] : [];
      children.push({ id, name: `Child ${id}`, classId: `c${own}`, lessons: lessonsOf[own] ?? [], away });
      return id;
    });
    // Now and then a child is in two groups.
    if (at > 0 && next() < 0.2) members[0] = `k${at - 1}-0`;
    return {
      id: `g${at}`,
      name: `Group ${at + 1}`,
      members,
      sessions: 2 + below(3),
      minutes: next() < 0.3 ? 15 : 20,
    };
  });
  return { slots, adults, rooms, children, groups, lessons: rules, weights: startingWeekWeights };
}
