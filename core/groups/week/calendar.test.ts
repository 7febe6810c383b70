import fc from "fast-check";
import { expect, test } from "vitest";
import { timeInWords } from "#core/saying";
import {
  calendarFaults,
  carriedPlacements,
  cover,
  faultsOf,
  joined,
  type Meeting,
  meetingsDue,
  minutesOf,
  mondayOf,
  offOn,
  overlap,
  type Placement,
  type Stretch,
  schoolDaysIn,
  slotInWords,
  thoughtDays,
  without,
} from "./index.ts";

const autumn = { name: "Autumn", from: "2026-09-02", to: "2026-12-18" };
const half = { name: "half-term", from: "2026-10-26", to: "2026-10-30" };
const calendar = { terms: [autumn], off: [half] };
let made = 0;
const newId = () => `m${++made}`;
const placement = (change: Partial<Placement> = {}): Placement => ({
  ...{ id: "p", groupId: "g", day: 2, from: 555, to: 575, adultId: "A", roomId: null, fixed: false },
  ...change,
});
const due = (placements: readonly Placement[], existing: readonly Meeting[] = [], from = "2026-10-19") =>
  meetingsDue({ placements, calendar, from, existing, newId });

test("times are read as people write them, and said in one way", () => {
  expect(["9:15", "09.15", "9h15", "9", "12:05 am", "1:30pm", "24:00", "15:00:00"].map(minutesOf)).toEqual([
    ...[555, 555, 555, 540, 5, 810, 1440, 900],
  ]);
  for (const text of ["", "24:01", "9:75", "nine", "13 pm", "-1", "0 am"]) expect(minutesOf(text)).toBeUndefined();
  expect([timeInWords(555), slotInWords({ day: 1, from: 600 })]).toEqual(["9:15", "Monday 10:00"]);
});

const stretch = fc
  .record({ day: fc.constantFrom<1 | 2>(1, 2), from: fc.nat(30), length: fc.nat(12) })
  .map(({ day, from, length }): Stretch => ({ day, from, to: from + length }));
const holds = (list: readonly Stretch[], day: number, minute: number) =>
  list.some((one) => one.day === day && one.from <= minute && minute < one.to);

test("stretches joined and cut hold the same minutes", () => {
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 6 }), stretch, (list, hole) => {
      const whole = joined(list);
      const cut = without(list, hole);
      for (const day of [1, 2])
        for (let minute = 0; minute < 45; minute++) {
          expect(holds(whole, day, minute)).toBe(holds(list, day, minute));
          expect(holds(cut, day, minute)).toBe(holds(list, day, minute) && !holds([hole], day, minute));
        }
      for (const [at, one] of whole.entries())
        for (const other of whole.slice(at + 1)) expect(overlap(one, other)).toBe(false);
      if (hole.to > hole.from)
        expect(cover(list, hole)).toBe(
          Array.from({ length: hole.to - hole.from }, (_, at) => holds(list, hole.day, hole.from + at)).every(
            Boolean,
          ),
        );
    }),
  );
});

test("faults of hours are told, each with what to do", () => {
  const at = (day: 1 | 2, from: number, to: number) => ({ day, from, to });
  const says = (...list: Stretch[]) => faultsOf(list, (one) => slotInWords(one));
  expect(says(at(1, 540, 570), at(1, 570, 600), at(2, 540, 570))).toEqual([]);
  expect(says(at(1, 540, 570), at(1, 560, 600))).toEqual([
    "Monday 9:00 and Monday 9:20 overlap from 9:20 to 9:30. Change one of them.",
  ]);
  expect(says(at(1, 540, 540))).toEqual(["Monday 9:00 has no length. Set when it ends."]);
  expect(says(at(1, 1430, 1450))).toEqual(["Monday 23:50 goes past midnight. End it on the same day."]);
  expect(says(at(1, 600, 540))).toEqual(["Monday 10:00 ends before it begins. Swap the two times."]);
});

test("school is in term, and not on a day off", () => {
  expect([offOn(calendar, "2026-10-27"), offOn(calendar, "2026-08-31"), offOn(calendar, "2026-09-02")]).toEqual([
    ...["half-term", "no term", undefined],
  ]);
  expect(offOn({ terms: [], off: [half] }, "2026-08-01")).toBeUndefined();
  expect(schoolDaysIn(calendar, "2026-10-23", "2026-11-01")).toEqual([
    "2026-10-23",
    "2026-10-24",
    "2026-10-25",
    "2026-10-31",
    "2026-11-01",
  ]);
  expect(mondayOf("2026-11-01")).toBe("2026-10-26");
  expect(calendarFaults(calendar)).toEqual([]);
  expect(
    calendarFaults({
      terms: [{ ...autumn, from: "2026-12-18", to: "2026-09-02" }, autumn, { ...autumn, name: "Late" }],
      off: [],
    }),
  ).toEqual(["Autumn ends before it begins. Swap the two days.", "Autumn and Late overlap. Change one of them."]);
  expect(calendarFaults({ terms: [{ name: "Long", from: "2026-01-01", to: "2028-01-01" }], off: [] })).toHaveLength(
    1,
  );
});

test("each week of the term gets its meeting, none in the holiday, the last before the term ends", () => {
  const { added, changed } = due([placement()]);
  expect(changed).toEqual([]);
  expect(added.map(({ on }) => on)).toEqual([
    ...[
      "2026-10-20",
      "2026-11-03",
      "2026-11-10",
      "2026-11-17",
      "2026-11-24",
      "2026-12-01",
      "2026-12-08",
      "2026-12-15",
    ],
  ]);
  expect(added[0]).toMatchObject({ from: 555, to: 575, sequence: 0, cancelled: false });
});

test("the same again changes nothing, however often", () => {
  const { added } = due([placement()]);
  expect(due([placement()], added)).toEqual({ added: [], changed: [] });
});

test("a session that moves keeps its id and goes up in its sequence; one that is gone is cancelled; it comes back", () => {
  const { added } = due([placement()], [], "2026-12-01");
  const moved = due([placement({ from: 600, to: 620 })], added, "2026-12-01");
  expect(moved.added).toEqual([]);
  expect(moved.changed.map(({ id, from, sequence }) => ({ id, from, sequence }))).toEqual(
    added.map(({ id }) => ({ id, from: 600, sequence: 1 })),
  );
  const gone = due([], moved.changed, "2026-12-01");
  expect(gone.changed.every(({ cancelled, sequence }) => cancelled && sequence === 2)).toBe(true);
  expect(due([], gone.changed, "2026-12-01").changed).toEqual([]);
  const back = due([placement()], gone.changed, "2026-12-01");
  expect(back.changed.every(({ cancelled, sequence }) => !cancelled && sequence === 3)).toBe(true);
});

test("what was changed for its day stays when the timetable is made anew, until that day is off", () => {
  const { added } = due([placement()], [], "2026-12-08");
  const [first, second] = added as [Meeting, Meeting];
  const byHand = { ...first, on: "2026-12-10", byHand: true };
  expect(
    due([placement({ from: 600, to: 620 })], [byHand, second], "2026-12-08").changed.map(({ id }) => id),
  ).toEqual([second.id]);
  const off = { terms: [autumn], off: [{ name: "trip", from: "2026-12-10", to: "2026-12-10" }] };
  const then = meetingsDue({
    placements: [placement()],
    calendar: off,
    from: "2026-12-08",
    existing: [byHand, second],
    newId,
  });
  expect(then.changed).toEqual([{ ...first, byHand: false, sequence: 1 }]);
});

test("a new holiday cancels what falls into it", () => {
  const { added } = due([placement()]);
  const off = { terms: [autumn], off: [half, { name: "snow", from: "2026-11-10", to: "2026-11-10" }] };
  const { changed } = meetingsDue({
    placements: [placement()],
    calendar: off,
    from: "2026-10-19",
    existing: added,
    newId,
  });
  expect(changed.map(({ on, cancelled }) => [on, cancelled])).toEqual([["2026-11-10", true]]);
});

test("sessions of a new timetable are those of the old one where the group goes on, each once", () => {
  const before = [
    placement({ id: "p1", day: 1 }),
    placement({ id: "p2", day: 3 }),
    placement({ id: "p3", groupId: "h" }),
  ];
  const wanted = [
    placement({ day: 4 }),
    placement({ day: 3, from: 600 }),
    placement({ groupId: "h" }),
    placement({ groupId: "h", day: 5 }),
  ];
  expect(carriedPlacements(wanted, before, () => "new").map(({ id }) => id)).toEqual(["p1", "p2", "p3", "new"]);
});

test("a school that has no terms gets twelve weeks", () => {
  const { added } = meetingsDue({
    placements: [placement()],
    calendar: { terms: [], off: [] },
    from: "2026-10-19",
    existing: [],
    newId,
  });
  expect(added).toHaveLength(12);
});

test("a group without a time in the week is thought to meet on days of school, spread over each week", () => {
  const days = (aWeek: number) => thoughtDays(calendar, { from: "2026-10-19", to: "2026-11-06", aWeek });
  // The week of half-term has none.
  expect(days(2)).toEqual(["2026-10-19", "2026-10-22", "2026-11-02", "2026-11-05"]);
  expect(days(1)).toEqual(["2026-10-20", "2026-11-03"]);
  expect([0, 3, 5, 9].map((aWeek) => days(aWeek).length)).toEqual([0, 6, 10, 10]);
});
