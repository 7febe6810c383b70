import { describe, expect, test } from "vitest";
import { sentAnswer } from "./answers.ts";

const id = (number: number) => `7d0c5a1e-2f0b-4c1a-9e55-0a6f3b6f${String(number).padStart(4, "0")}`;
const mark = {
  id: id(1),
  childId: id(2),
  markedAt: "2026-11-23T09:00:00.000Z",
  day: "2026-11-23",
  markedBy: "Ms Harrow",
};
const source = { kind: "check", checkId: id(3) };
const today = { ...mark, kind: "card", item: "b=b", outcome: "right", ms: 800, source, help: "none", way: "seen" };

describe("a mark that a version before made", () => {
  test.each<[string, object, object]>([
    [
      "the first, with cards alone",
      { ...mark, kind: "say", item: "b=b", outcome: "right", ms: 800, checkId: id(3), pass: 1, tags: [] },
      { ...today, pass: 1, tags: [] },
    ],
    [
      "the first, with what was heard",
      { ...mark, kind: "say", item: "b=b", outcome: "wrong", heard: "/d/", ms: 800, checkId: id(3), pass: 1 },
      { ...today, outcome: "wrong", heard: "/d/", units: null, pass: 1, tags: [] },
    ],
    [
      "the one with all kinds",
      {
        ...mark,
        kind: "dictation",
        item: "m a p",
        outcome: "reversed",
        ms: null,
        checkId: id(3),
        pass: 2,
        tags: ["reversed"],
      },
      {
        ...today,
        kind: "dictation",
        item: "m a p",
        outcome: "reversed",
        ms: null,
        way: "heard",
        pass: 2,
        tags: ["reversed"],
      },
    ],
    [
      "a note of before",
      { ...mark, outcome: "note", checkId: id(3), item: null, text: "tired" },
      { ...mark, outcome: "note", source, item: null, text: "tired" },
    ],
    [
      "an end of before",
      { ...mark, outcome: "stop", checkId: id(3), why: "tired" },
      { ...mark, outcome: "stop", source, why: "tired" },
    ],
    [
      "an undo, which is as it was",
      { ...mark, outcome: "void", voids: id(4) },
      { ...mark, outcome: "void", voids: id(4) },
    ],
    ["one of today", { ...today, pass: 1, tags: [] }, { ...today, pass: 1, tags: [] }],
  ])("%s is read", (_, old, now) => {
    expect(sentAnswer.parse(old)).toEqual(now);
    expect(sentAnswer.parse(sentAnswer.parse(old))).toEqual(now);
  });
  test.each([[null], [7], ["mark"], [[]], [{}], [{ ...mark, kind: "say", outcome: "right" }]])(
    "what is no mark is none: %j",
    (value) => {
      expect(sentAnswer.safeParse(value).success).toBe(false);
    },
  );
});
