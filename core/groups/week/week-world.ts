import fc from "fast-check";
import type { Lesson, Slot, Weekday } from "./times.ts";
import { startingWeekWeights, type WeekAdult, type WeekChild, type WeekRoom, type WeekWanted } from "./wanted.ts";

/** Five mornings with three slots each, at 9, 10 and 11; afternoons at 1. */
export const slots: readonly Slot[] = ([1, 2, 3, 4, 5] as const).flatMap((day) =>
  [9, 10, 11, 13].map((hour): Slot => ({ id: `${day}-${hour}`, day, from: hour * 60, to: hour * 60 + 30 })),
);
const schoolHours = ([1, 2, 3, 4, 5] as const).map((day) => ({ day, from: 8 * 60, to: 16 * 60 }));

export function adult(id: string, change: Partial<WeekAdult> = {}): WeekAdult {
  return { id, name: id, hours: schoolHours, rooms: [], classes: [], mostADay: 9, mostAWeek: 30, ...change };
}
export function room(id: string, change: Partial<WeekRoom> = {}): WeekRoom {
  return { id, name: id, fits: 6, closed: [], ...change };
}
export function child(id: string, change: Partial<WeekChild> = {}): WeekChild {
  return { id, name: id, classId: "c", lessons: [], away: [], ...change };
}
export function lesson(day: Weekday, hour: number, what: string): Lesson {
  return { day, from: hour * 60, to: hour * 60 + 60, what };
}

/** A school of one group of two, one adult, no rooms, with what is said in its place. */
export function school(change: Partial<WeekWanted> = {}): WeekWanted {
  const children = change.children ?? [child("k1"), child("k2")];
  return {
    ...{ slots, adults: [adult("A")], rooms: [], children, lessons: [], weights: startingWeekWeights },
    groups: [{ id: "g", name: "Kingfishers", members: children.map(({ id }) => id), sessions: 3, minutes: 20 }],
    ...change,
  };
}

const days = fc.constantFrom<Weekday>(1, 2, 3, 4, 5);
const someHours = fc.array(
  fc.record({ day: days, from: fc.constantFrom(480, 540, 600), length: fc.constantFrom(60, 150, 400) }),
  { minLength: 3, maxLength: 8 },
);
const stretches = someHours.map((list) => list.map(({ day, from, length }) => ({ day, from, to: from + length })));
const someTimes = fc.oneof({ weight: 3, arbitrary: fc.constant([]) }, { weight: 1, arbitrary: stretches });
const whats = ["Maths", "Story", "Play"];

/** Small schools of every kind, many of which cannot have all that they want. */
export const anySchool: fc.Arbitrary<WeekWanted> = fc
  .record({
    slots: fc.subarray([...slots], { minLength: 3 }),
    adults: fc.array(
      fc.record({
        hours: stretches,
        rooms: fc.subarray(["r0", "r1"]),
        classes: fc.subarray(["c0", "c1"]),
        mostADay: fc.integer({ min: 0, max: 4 }),
        mostAWeek: fc.integer({ min: 0, max: 20 }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    rooms: fc.array(fc.record({ fits: fc.integer({ min: 2, max: 5 }), closed: someTimes }), { maxLength: 2 }),
    children: fc.array(
      fc.record({
        classId: fc.constantFrom("c0", "c1"),
        lessons: fc.array(
          fc.record({ day: days, hour: fc.constantFrom(9, 10, 11, 13), what: fc.constantFrom(...whats) }),
          {
            maxLength: 6,
          },
        ),
        away: someTimes,
      }),
      { minLength: 6, maxLength: 6 },
    ),
    groups: fc.array(
      fc.record({
        members: fc.subarray(["k0", "k1", "k2", "k3", "k4", "k5"], { maxLength: 4 }),
        sessions: fc.integer({ min: 0, max: 4 }),
        minutes: fc.constantFrom(15, 20, 20, 30, 45),
      }),
      { minLength: 1, maxLength: 4 },
    ),
    most: fc.integer({ min: 0, max: 2 }),
    must: fc.boolean(),
    weights: fc.record({
      ...{ adult: fc.nat(4), time: fc.nat(3), morning: fc.nat(3), apart: fc.nat(3), turns: fc.nat(2) },
    }),
  })
  .map(
    ({ slots: some, adults, rooms, children, groups, most, must, weights }): WeekWanted => ({
      ...{ slots: some, weights },
      adults: adults.map((one, at) => ({ ...one, id: `a${at}`, name: `A${at}` })),
      rooms: rooms.map((one, at) => ({ ...one, id: `r${at}`, name: `R${at}` })),
      children: children.map(({ lessons, ...one }, at) => ({
        ...{ ...one, id: `k${at}`, name: `K${at}` },
        lessons: lessons.map(({ day, hour, what }) => lesson(day, hour, what)),
      })),
      groups: groups.map((one, at) => ({ ...one, id: `g${at}`, name: `G${at}` })),
      lessons: [
        { what: "Play", must, most: null },
        { what: "Maths", must: false, most },
      ],
    }),
  );
