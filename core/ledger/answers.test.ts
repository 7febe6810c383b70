import fc from "fast-check";
import { describe, expect, test } from "vitest";
import {
  type Answer,
  allOutcomes,
  firstOfEach,
  type GivenAnswer,
  heardIn,
  heardOutcomes,
  inCheck,
  isGiven,
  isRight,
  isRightAtOnce,
  notesIn,
  type Outcome,
  plainOutcomes,
  standing,
  stopIn,
  type TextEntry,
  takesHeard,
} from "./index.ts";

const MINUTE = "2026-11-20T09:";
const mark = (id: string, minute: number) => ({
  id,
  childId: "c",
  markedAt: `${MINUTE}${String(minute).padStart(2, "0")}:00.000Z`,
  day: "2026-11-20",
  markedBy: "Ms H.",
});
function given(
  id: string,
  minute: number,
  outcome: Outcome = "right",
  change: Partial<GivenAnswer> = {},
): GivenAnswer {
  const base = { ...mark(id, minute), ...inCheck("card", "k"), item: "b=b", ms: 900, pass: 1, tags: [], ...change };
  return (takesHeard(outcome) ? { ...base, outcome, heard: "d", units: null } : { ...base, outcome }) as GivenAnswer;
}
const undo = (id: string, minute: number, voids: string): Answer => ({ ...mark(id, minute), outcome: "void", voids });
const check = (checkId: string) => ({ kind: "check" as const, checkId });
const note = (id: string, minute: number): Answer => ({
  ...mark(id, minute),
  outcome: "note",
  source: check("k"),
  item: null,
  text: "tired",
});
const stop = (id: string, minute: number, checkId: string): Answer => ({
  ...mark(id, minute),
  outcome: "stop",
  source: check(checkId),
  why: "done",
});
const reading = { ...mark("r", 3), outcome: "reading" } as TextEntry;
const ids = (answers: readonly { readonly id: string }[]) => answers.map((one) => one.id);

describe("what an outcome says", () => {
  test("right, right at once, and whether something was said instead", () => {
    const facts = allOutcomes.map((one) => [one, isRight(one), isRightAtOnce(one), takesHeard(one)]);
    expect(facts).toEqual([
      ["right", true, true, false],
      ["ownWay", true, true, false],
      ["slow", true, false, false],
      ["sounded", true, false, false],
      ["other", true, false, true],
      ["reversed", true, false, false],
      ["blend", false, false, true],
      ["wrong", false, false, true],
      ["none", false, false, false],
    ]);
    expect([...heardOutcomes, ...plainOutcomes].sort()).toEqual([...allOutcomes].sort());
  });

  test("what was said in place of the right answer", () => {
    expect(heardIn(given("a", 1, "wrong"))).toBe("d");
    expect(heardIn(given("a", 1, "right"))).toBeNull();
    // Kept by a version that stored it with everything.
    expect(heardIn({ ...given("a", 1, "right"), heard: "d" } as GivenAnswer)).toBeNull();
  });
});

describe("the answers that stand", () => {
  test("are in order of marking and, where two were made in one moment, of their ids", () => {
    expect(ids(standing([given("b", 2), given("a", 2), given("d", 1), given("c", 3)]))).toEqual(["d", "a", "b", "c"]);
    expect(ids(standing([given("a", 2), given("b", 2)]))).toEqual(["a", "b"]);
  });

  test("are not those that were taken back, nor undos, notes and ends", () => {
    const log = [given("a", 1), given("b", 2), undo("u", 3, "a"), note("n", 4), stop("s", 5, "k")];
    expect(ids(standing(log))).toEqual(["b"]);
    expect(log.map(isGiven)).toEqual([true, true, false, false, false]);
    expect(isGiven(reading)).toBe(false);
  });

  test("a reading says its words only when asked, and nothing once it is taken back", () => {
    const word = given("r 0", 3, "wrong");
    const inText = () => [word];
    expect(standing([reading])).toEqual([]);
    expect(ids(standing([given("a", 9), reading], { inText }))).toEqual(["r 0", "a"]);
    expect(standing([reading, undo("u", 4, "r")], { inText })).toEqual([]);
  });

  test("a timed right answer over the threshold reads as slow; on it, without a time, untimed or not right it stays", () => {
    const told = (change: Partial<GivenAnswer>, outcome: Outcome = "right", slowAfterMs = 900) =>
      standing([given("a", 1, outcome, change)], { slowAfterMs })[0]?.outcome;
    expect(told({ ms: 901 })).toBe("slow");
    expect(told({ ms: 900 })).toBe("right");
    expect(told({ ms: null })).toBe("right");
    expect(told({ ms: 901 }, "ownWay")).toBe("ownWay");
    expect(told({ ms: 901 }, "none")).toBe("none");
    expect(told({ ms: 901, kind: "write" })).toBe("right");
    expect(told({ ms: 901 }, "right", 0)).toBe("right");
    expect(standing([given("a", 1, "right", { ms: 99_999 })])[0]?.outcome).toBe("right");
  });

  test("do not depend on the order in which the log came", () => {
    const log: Answer[] = [given("a", 1), given("b", 2, "none"), given("c", 2), undo("u", 3, "b"), note("n", 4)];
    const whole = standing(log);
    fc.assert(
      fc.property(fc.shuffledSubarray(log, { minLength: log.length }), (mixed) => {
        expect(standing(mixed)).toEqual(whole);
      }),
    );
  });
});

test("notes that stand, in their order", () => {
  const log = [note("n1", 1), given("a", 2), note("n2", 3), undo("u", 4, "n1")];
  expect(ids(notesIn(log))).toEqual(["n2"]);
  expect(ids(notesIn(log.slice(0, 3)))).toEqual(["n1", "n2"]);
});

test("the end of a check is the last that stands and is its own", () => {
  const log = [stop("s1", 1, "k"), stop("s2", 2, "other"), stop("s3", 3, "k")];
  expect(stopIn(log, "k")?.id).toBe("s3");
  expect(stopIn([...log, undo("u", 4, "s3")], "k")?.id).toBe("s1");
  expect(stopIn([...log, undo("u", 4, "s3"), undo("v", 5, "s1")], "k")).toBeUndefined();
  expect(stopIn([given("a", 1)], "k")).toBeUndefined();
});

test("an item is asked once, whoever marked it again", () => {
  const log = [given("a", 1), given("b", 2, "none"), given("c", 3, "right", { item: "d=d" })];
  expect(ids(firstOfEach(log))).toEqual(["a", "c"]);
});
