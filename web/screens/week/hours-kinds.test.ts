import { expect, test } from "vitest";
import { startingWeek } from "#contract";
import { evenSlots } from "#core/groups";
import {
  AS_CLASS,
  AWAY,
  adultIn,
  childAt,
  copyDay,
  FREE,
  freeAt,
  lessonAt,
  lessonNames,
  NOT_FREE,
  NOTHING,
  paintChild,
  paintFree,
  paintLessons,
  withAdult,
  withLessons,
} from "./hours-kinds.ts";

const slots = evenSlots({ days: [1, 2], from: 540, to: 600, minutes: 30, gap: 0 });
const [first, second, third] = slots as [(typeof slots)[0], (typeof slots)[0], (typeof slots)[0]];

test("who was never spoken of is free at any time; painted slots are not, and can be again", () => {
  const jo = adultIn(startingWeek, "jo");
  expect(slots.map((slot) => freeAt(jo.hours, slot))).toEqual([FREE, FREE, FREE, FREE]);
  const off = paintFree(jo.hours, [first], NOT_FREE);
  expect(slots.map((slot) => freeAt(off, slot))).toEqual([NOT_FREE, FREE, FREE, FREE]);
  expect(freeAt(paintFree(off, [first], FREE), first)).toBe(FREE);
  expect(adultIn(withAdult(startingWeek, { ...jo, hours: off }), "jo").hours).toEqual(off);
});

test("a lesson that is painted takes the place of what was there, also of part of it", () => {
  const maths = { day: 1 as const, from: 540, to: 600, what: "Maths" };
  const painted = paintLessons([maths], [second], "Art");
  expect([lessonAt(painted, first), lessonAt(painted, second)]).toEqual(["Maths", "Art"]);
  expect(lessonAt(paintLessons(painted, [first], ""), first)).toBe("");
  expect(lessonNames(withLessons(startingWeek, "c", painted))).toEqual(["Art", "Maths", "Playtime"]);
});

test("a day is laid over others", () => {
  const list = paintLessons([], [first, third], "Maths");
  expect(
    copyDay(paintLessons(list, [second], "Art"), 1, [2]).map(({ day, from, what }) => [day, from, what]),
  ).toEqual([
    [1, 540, "Maths"],
    [1, 570, "Art"],
    [2, 540, "Maths"],
    [2, 570, "Art"],
  ]);
});

test("a child is as its class is, until something is painted, and again when that is cleared", () => {
  const ofClass = paintLessons([], slots, "Maths");
  const none = { lessons: [], away: [] };
  const away = paintChild(none, [first], AWAY);
  const nothing = paintChild(away, [second], NOTHING);
  const clinic = paintChild(nothing, [third], "Clinic");
  expect(slots.map((slot) => childAt(clinic, ofClass, slot))).toEqual([AWAY, "", "Clinic", "Maths"]);
  expect(paintChild(clinic, slots, AS_CLASS)).toEqual(none);
});
