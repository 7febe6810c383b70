import { expect, test } from "vitest";
import { missedOf, type OrderContent, taughtAtOwnPlace, taughtSince } from "./index.ts";

const step = (id: string, gpcs: string[], exceptionWords: string[] = []) => ({ id, title: id, gpcs, exceptionWords });
const order: OrderContent = {
  name: "Short",
  kind: "",
  why: "",
  steps: [step("a", ["s=s", "a=a"]), step("b", ["t=t"], ["The"]), step("c", ["p=p"])],
};
const marks = [
  { stepId: "a", taughtOn: "2026-09-07" },
  { stepId: "c", taughtOn: "2026-10-05" },
];

test("each thing was taught on the day of the first mark that reached it; words in small letters", () => {
  expect(Object.fromEntries(taughtSince(marks, order))).toEqual({
    "s=s": "2026-09-07",
    "a=a": "2026-09-07",
    "t=t": "2026-10-05",
    the: "2026-10-05",
    "p=p": "2026-10-05",
  });
  const back = taughtSince([...marks, { stepId: "a", taughtOn: "2026-11-02" }], order);
  expect([...back.keys()]).toEqual(["s=s", "a=a"]);
  expect(taughtSince(marks, undefined).size).toBe(0);
  expect(taughtSince([{ stepId: null, taughtOn: "2026-11-02" }], order).size).toBe(0);
});
test("the first time through, what the class had before counts from then, and what lies beyond was not taught", () => {
  const own = taughtSince([{ stepId: "b", taughtOn: "2026-11-02" }], order);
  const since = taughtAtOwnPlace(own, taughtSince(marks, order), false);
  expect(since.get("s=s")).toBe("2026-09-07");
  expect(since.get("t=t")).toBe("2026-10-05");
  expect(since.has("p=p")).toBe(false);
  // Ahead of the class: on its own day.
  const ahead = taughtAtOwnPlace(taughtSince([{ stepId: "c", taughtOn: "2026-11-02" }], order), new Map(), false);
  expect(ahead.get("p=p")).toBe("2026-11-02");
});
test("a second time through, its own lessons are the newer ones, and what lies beyond was taught before", () => {
  const own = taughtSince([{ stepId: "a", taughtOn: "2026-11-02" }], order);
  const since = taughtAtOwnPlace(own, taughtSince(marks, order), true);
  expect(since.get("s=s")).toBe("2026-11-02");
  expect(since.get("p=p")).toBe("2026-10-05");
});

test("what was taught on a day on which a child was away it missed", () => {
  const since = taughtSince(marks, order);
  expect([...missedOf(since, new Set(["2026-10-05", "2026-10-06"]))]).toEqual(["t=t", "the", "p=p"]);
  expect(missedOf(since, new Set()).size).toBe(0);
});
