import { expect, test } from "vitest";
import type { GroupingView } from "#contract";
import type { Learner } from "#core/groups";
import { changedBy } from "./changed-by.ts";
import { groupsFor, waysFor } from "./ways.ts";

const adult = (sessions: number) => ({ id: `a${sessions}`, name: "Jo P.", sessions });
const grouping: GroupingView["grouping"] = {
  ...{
    least: 3,
    most: 5,
    targets: 4,
    sessionsAWeek: 2,
    adults: [],
    withinClasses: false,
    yearsApart: null,
    stay: 0.25,
  },
  weights: { words: 4, texts: 1, next: 1, fades: 1, mixed: 1 },
  leaving: { by: "targets" },
};
const learners = Array.from(
  { length: 12 },
  (_, at): Learner => ({ id: `k${at}`, needs: new Map([["ai=ai", 1]]), secure: new Set() }),
);
const view = (change: Partial<typeof grouping> = {}, wishes: GroupingView["wishes"] = []) => ({
  grouping: { ...grouping, ...change },
  wishes,
});
const by = {
  learners,
  order: ["ai=ai"],
  count: null,
  locked: new Map<string, number>(),
  barred: new Map<string, number[]>(),
  seed: 1,
};

test("adults take as many groups as fit their week; without adults the number is open", () => {
  expect(groupsFor(grouping)).toBeUndefined();
  expect(groupsFor({ ...grouping, adults: [adult(6), adult(3), adult(1)] })).toBe(4);
});

test("a way is proposed where it makes a difference: moves where groups run, adults where some can be spared", () => {
  expect(Object.keys(waysFor({ ...by, view: view() }))).toEqual(["closest"]);
  const running = learners.map((one) => ({ ...one, group: "otter" }));
  const calm = waysFor({ ...by, learners: running, view: view() });
  expect(Object.keys(calm)).toEqual(["closest", "calm"]);
  expect(calm.calm?.stay).toBeGreaterThan(calm.closest?.stay ?? 9);
  // Twelve children fit into three groups of five.
  const few = waysFor({ ...by, view: view({ adults: [adult(12)] }) });
  expect([few.closest?.limits?.mostGroups, few.few?.limits?.mostGroups]).toEqual([6, 3]);
  expect(waysFor({ ...by, view: view({ adults: [adult(6)] }) }).few).toBeUndefined();
});

test("wishes become limits, and a number of groups that was asked for is kept", () => {
  const wish = (kind: "apart" | "together" | "alone", childId: string, otherId: string | null) => ({
    ...{ id: `${kind}${childId}`, kind, childId, otherId, by: "D.", since: "2026-11-20" },
  });
  const all = [wish("apart", "k0", "k1"), wish("together", "k2", "k3"), wish("alone", "k4", null)];
  const { closest } = waysFor({ ...by, count: 3, view: view({ yearsApart: 1 }, all) });
  expect(closest?.shape).toEqual({ by: "count", count: 3 });
  expect(closest?.limits).toMatchObject({
    apart: [["k0", "k1"]],
    together: [["k2", "k3"]],
    alone: ["k4"],
    yearsApart: 1,
  });
});

test("what a move gains and loses is told for each child whom it touches, and the whole", () => {
  const two: readonly Learner[] = [
    { id: "p", needs: new Map([["ai=ai", 1]]), secure: new Set() },
    { id: "q", needs: new Map([["oa=oa", 1]]), secure: new Set(["ai=ai"]) },
  ];
  const group = (id: string, members: readonly string[], targets: readonly string[]) => ({
    ...{
      id,
      name: id,
      targets,
      chosenTargets: false,
      barred: [],
      members: members.map((one) => ({ id: one, locked: false })),
    },
  });
  const before = [group("g", ["p", "q"], ["ai=ai"]), group("h", [], ["oa=oa"])];
  const after = [group("g", ["p"], ["ai=ai"]), group("h", ["q"], ["oa=oa"])];
  const told = { learners: two, targets: 1, name: (id: string) => id.toUpperCase() };
  expect(changedBy({ before, after, ...told })).toBe(
    "Now 100% of what lessons of their own would give (before 50%): Q +100.",
  );
  expect(changedBy({ before: after, after: before, ...told })).toMatch(/Now 50% .*: Q −100\.$/);
  expect(changedBy({ before, after: before, ...told })).toMatch(/; no one gains or loses\.$/);
});
