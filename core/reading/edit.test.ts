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
  expect(kindsAt(press([2, "misread"], [2, "sounded"]), 2)).toEqual(["sounded"]);
});
test("put right belongs to a misread: it brings one, and goes with it", () => {
  expect(kindsAt(press([2, "putRight"]), 2)).toEqual(["misread", "putRight"]);
  expect(kindsAt(press([2, "misread"], [2, "putRight"]), 2)).toEqual(["misread", "putRight"]);
  expect(press([2, "putRight"], [2, "misread"])).toEqual([]);
  expect(kindsAt(press([2, "putRight"], [2, "told"]), 2)).toEqual(["told"]);
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
  expect(kindsAt(press([2, "misread"], [2, "told"]), 2), "nothing had been noted").toEqual(["told"]);
  expect(kindsAt(pressMark(marks, 2, "told"), 2)).toEqual(["misread"]);
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
        expect(
          here.filter((kind) => ["misread", "leftOut", "told", "skipped", "ownWay"].includes(kind)).length,
        ).toBeLessThan(2);
        if (here.includes("putRight")) expect(here).toContain("misread");
      }
      const score = scoreReading({ text: "one two three four", marks, stoppedAt: null, ms: 1000 });
      expect(score.wordsRead).toBe(4);
    }),
  );
});
