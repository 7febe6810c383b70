import { expect, test } from "vitest";
import {
  anyTime,
  evenSlots,
  lessonsOf,
  placedFrom,
  placementsFrom,
  startingWeekWeights,
  weekWanted,
} from "./index.ts";

const lesson = (day: 1 | 2, from: number, to: number, what: string) => ({ day, from, to, what });
const slots = evenSlots({ days: [1, 2], from: 540, to: 660, minutes: 30, gap: 5 });

test("a day is cut into slots as far as they fit", () => {
  expect(slots.map(({ id, from, to }) => [id, from, to])).toEqual([
    ...[1, 2].flatMap((day) => [540, 575, 610].map((from) => [`${day}-${from}`, from, from + 30])),
  ]);
  expect(evenSlots({ days: [1], from: 540, to: 560, minutes: 30, gap: 0 })).toEqual([]);
  expect(evenSlots({ days: [1], from: 540, to: 560, minutes: 0, gap: 0 })).toEqual([]);
});

test("a child's own lessons lie over those of its class; one without a name is nothing in their place", () => {
  const ofClass = [lesson(1, 540, 600, "Maths"), lesson(2, 540, 600, "Art")];
  expect(lessonsOf(ofClass, [lesson(1, 570, 600, "Clinic"), lesson(2, 540, 600, "")])).toEqual([
    lesson(1, 540, 570, "Maths"),
    lesson(1, 570, 600, "Clinic"),
  ]);
});

const week = {
  ...{ slots, minutes: 20, rooms: [], lessons: [], weights: startingWeekWeights },
  adults: [{ id: "jo", hours: [], rooms: ["gone"], classes: ["c"], mostADay: 2 }],
  classes: [{ id: "c", lessons: [lesson(1, 540, 600, "Maths")] }],
  groups: [{ id: "g", sessions: 1, minutes: 15 }],
};
const wanted = weekWanted({
  ...{ week, sessionsAWeek: 3 },
  adults: [
    { id: "jo", name: "Jo", sessions: 4 },
    { id: "wyn", name: "Wyn", sessions: 6 },
  ],
  groups: [
    { id: "g", name: "Otters", members: ["k"] },
    { id: "h", name: "Herons", members: ["l"] },
    { id: "i", name: "Empty", members: [] },
  ],
  children: [
    { id: "k", name: "K", classId: "c" },
    { id: "l", name: "L", classId: "d" },
    { id: "m", name: "in no group", classId: "c" },
  ],
  own: new Map([["l", { lessons: [], away: [{ day: 1, from: 0, to: 600 }] }]]),
});

test("what was said is taken, what was not is as it ships, and who is in no group is left out", () => {
  expect(wanted.adults).toEqual([
    { id: "jo", name: "Jo", hours: [], rooms: [], classes: ["c"], mostADay: 2, mostAWeek: 4 },
    { id: "wyn", name: "Wyn", ...anyTime, mostAWeek: 6 },
  ]);
  expect(wanted.groups.map(({ id, sessions, minutes }) => [id, sessions, minutes])).toEqual([
    ["g", 1, 15],
    ["h", 3, 20],
  ]);
  expect(wanted.children.map(({ id, lessons, away }) => [id, lessons.length, away.length])).toEqual([
    ["k", 1, 0],
    ["l", 0, 1],
  ]);
});

test("a timetable goes to times and back; what stands at no slot any more is told", () => {
  const placed = [{ groupId: "g", slotId: "1-575", adultId: "jo", roomId: null }];
  const kept = placementsFrom(wanted, placed, () => true).map((one) => ({ ...one, id: "p" }));
  expect(kept).toEqual([
    { id: "p", groupId: "g", adultId: "jo", roomId: null, day: 1, from: 575, to: 590, fixed: true },
  ]);
  expect(placedFrom(wanted, kept)).toEqual({ placed, fixed: placed, lost: [] });
  const other = kept.map((one) => ({ ...one, from: 600 }));
  expect(placedFrom(wanted, other)).toEqual({ placed: [], fixed: [], lost: other });
});
