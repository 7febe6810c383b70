import fc from "fast-check";
import { expect, test } from "vitest";
import { type MarkKind, pressMark, type ReadingMark, scoreReading, withHeard } from "./index.ts";

const press = (...presses: [number, MarkKind][]) =>
  presses.reduce<readonly ReadingMark[]>((marks, [at, kind]) => pressMark(marks, at, kind), []);
const kindsAt = (marks: readonly ReadingMark[], at: number) =>
  marks.filter((mark) => mark.at === at).map((mark) => mark.kind);

test("pressed again a mark goes", () => {
  expect(press([2, "misread"], [2, "misread"])).toEqual([]);
  expect(press([2, "endMark"], [2, "endMark"])).toEqual([]);
});
test("another way takes the place of the one before", () => {
  expect(kindsAt(press([2, "misread"], [2, "leftOut"]), 2)).toEqual(["leftOut"]);
  expect(kindsAt(press([2, "told"], [2, "ownWay"]), 2)).toEqual(["ownWay"]);
  expect(kindsAt(press([2, "leftOut"], [2, "sounded"]), 2)).toEqual(["sounded"]);
});
test("put right belongs to a misread: it brings one, and goes with it", () => {
  expect(kindsAt(press([2, "putRight"]), 2)).toEqual(["misread", "putRight"]);
  expect(kindsAt(press([2, "misread"], [2, "putRight"]), 2)).toEqual(["misread", "putRight"]);
  expect(press([2, "putRight"], [2, "misread"])).toEqual([]);
  expect(kindsAt(press([2, "putRight"], [2, "told"]), 2)).toEqual(["misread", "told"]);
});
test("what is seen besides stays beside it", () => {
  expect(kindsAt(press([2, "misread"], [2, "again"], [2, "waited"], [2, "endMark"], [2, "putIn"]), 2)).toHaveLength(
    5,
  );
});
test("a word that was misread and then told keeps what had been said, and is told", () => {
  const marks = pressMark(withHeard(press([2, "misread"]), 2, "misread", "shick"), 2, "told");
  expect(marks.map(({ kind, heard }) => [kind, heard])).toEqual([
    ["misread", "shick"],
    ["told", null],
  ]);
  expect(scoreReading({ text: "a b c", marks, stoppedAt: null, ms: null })).toMatchObject({ errors: 1 });
  expect(kindsAt(press([2, "misread"], [2, "told"]), 2), "nothing had been noted").toEqual(["misread", "told"]);
  expect(kindsAt(pressMark(marks, 2, "told"), 2)).toEqual(["misread"]);
});
test("sounded out and then wrong, left out and put right: both stand, in either order", () => {
  expect(kindsAt(press([2, "sounded"], [2, "misread"]), 2)).toEqual(["sounded", "misread"]);
  expect(kindsAt(press([2, "misread"], [2, "sounded"]), 2)).toEqual(["misread", "sounded"]);
  expect(kindsAt(press([2, "leftOut"], [2, "putRight"]), 2)).toEqual(["leftOut", "putRight"]);
  expect(press([2, "leftOut"], [2, "putRight"], [2, "leftOut"])).toEqual([]);
  const score = (...presses: [number, MarkKind][]) =>
    scoreReading({ text: "a b c", marks: press(...presses), stoppedAt: null, ms: null });
  expect(score([2, "leftOut"], [2, "putRight"])).toMatchObject({ errors: 0, mended: 1, selfCorrection: 100 });
  expect(score([2, "sounded"], [2, "misread"])).toMatchObject({ errors: 1, hesitations: 1 });
});
test("before the first word a word can be put in, and nothing else", () => {
  const marks = press([-1, "misread"], [-1, "told"], [-1, "putIn"]);
  expect(marks.map(({ at, kind }) => [at, kind])).toEqual([[-1, "putIn"]]);
  const score = scoreReading({ text: "a b c", marks, stoppedAt: 0, ms: null });
  expect(score).toMatchObject({ wordsRead: 1, wordsCorrect: 1, errors: 1, kinds: { putIn: 1 } });
  const odd = scoreReading({
    text: "a b",
    marks: [{ at: -1, kind: "told", heard: null }],
    stoppedAt: null,
    ms: null,
  });
  expect(odd).toMatchObject({ errors: 0 });
});
test("what was said belongs to its mark", () => {
  const marks = withHeard(press([2, "misread"], [3, "putIn"]), 2, "misread", "shick");
  expect(marks.map((mark) => mark.heard)).toEqual(["shick", null]);
});
test("whatever is pressed, a word comes out in one way, and no mark stands twice", () => {
  const kinds: MarkKind[] = [
    "misread",
    "leftOut",
    "told",
    "skipped",
    "ownWay",
    "putRight",
    "sounded",
    "again",
    "endMark",
    "putIn",
  ];
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(3), fc.constantFrom(...kinds)), { maxLength: 40 }), (presses) => {
      const marks = press(...presses);
      for (const at of [0, 1, 2, 3]) {
        const here = kindsAt(marks, at);
        expect(new Set(here).size).toBe(here.length);
        const ways = here.filter((kind) => ["misread", "leftOut", "told", "skipped", "ownWay"].includes(kind));
        expect([0, 1, "misread told"]).toContain(ways.length < 2 ? ways.length : ways.sort().join(" "));
        if (here.includes("putRight")) expect(["misread", "leftOut"]).toContain(ways.join(" "));
      }
      const score = scoreReading({ text: "one two three four", marks, stoppedAt: null, ms: 1000 });
      expect(score.wordsRead).toBe(4);
    }),
  );
});
