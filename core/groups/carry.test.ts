import { expect, test } from "vitest";
import { carryOver, type Learner, servedBy } from "./index.ts";

const group = (id: string, members: string, targets = ["ai=ai"]) => ({ id, members: [...members], targets });
const want = (...all: string[]) => all.map((members) => ({ members: [...members] }));

test("a group goes on from the one with most of its children, each once; who is wanted elsewhere leaves the others", () => {
  const running = [group("otter", "abc"), group("heron", "defg"), group("swift", "hi")];
  expect(carryOver(want("abd", "efg"), running)).toEqual({
    carried: [
      { at: 0, from: "otter" },
      { at: 1, from: "heron" },
    ],
    thinned: [],
    emptied: [],
  });
  expect(carryOver(want("abcdefghi"), running)).toMatchObject({
    carried: [{ at: 0, from: "heron" }],
    emptied: ["otter", "swift"],
  });
  expect(carryOver(want("xyz", "h"), running)).toEqual({
    carried: [
      { at: 0, from: undefined },
      { at: 1, from: "swift" },
    ],
    thinned: [],
    emptied: [],
  });
  expect(carryOver(want("adxyz"), running)).toEqual({
    carried: [{ at: 0, from: undefined }],
    thinned: [
      { id: "otter", members: ["b", "c"], targets: ["ai=ai"] },
      { id: "heron", members: ["e", "f", "g"], targets: ["ai=ai"] },
    ],
    emptied: [],
  });
});

test("how well groups serve: beside lessons of one's own, the worst served, and who moves", () => {
  const learner = (id: string, needs: Record<string, number>, home?: string): Learner => ({
    ...{ id, needs: new Map(Object.entries(needs)), secure: new Set(["sh=sh"]) },
    ...(home === undefined ? {} : { group: home }),
  });
  const learners = [
    learner("a", { "ai=ai": 1 }, "x"),
    learner("b", { "ai=ai": 0.5, "oa=oa": 0.5 }, "x"),
    learner("c", { "oa=oa": 1 }, "y"),
    learner("d", { "oa=oa": 1 }),
    learner("e", {}),
  ];
  const served = servedBy([{ members: ["a", "b", "c"], targets: ["ai=ai"] }], learners, 1);
  expect([...served.of]).toEqual([
    ["a", 1],
    ["b", 1],
    ["c", 0],
    ["d", 0],
  ]);
  expect(served.share).toBeCloseTo(1.5 / 3.5, 9);
  expect(served.worst).toBe("c");
  expect(served.moved).toEqual(["c"]);
  // What is secure is time spent: a group can cost a child more than it gives.
  expect(servedBy([{ members: ["a"], targets: ["sh=sh"] }], learners, 1)).toMatchObject({
    share: 0,
    worst: "a",
    moved: ["b", "c"],
  });
});
