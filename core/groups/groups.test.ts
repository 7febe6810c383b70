import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Point, pointsAmong } from "#core/order";
import { chooseTargets, type GroupsWanted, groupFitOf, type Learner, proposeGroups, whyGroup } from "./index.ts";

const order = ["a=a", "b=b", "d=d", "ai=ai", "oa=oa", "ee=ee", "ar=ar", "or=or"];
const learner = (id: string, needs: string[], secure: string[] = []): Learner => ({
  id,
  needs: new Map(needs.map((gpc) => [gpc, 1])),
  secure: new Set(secure),
});
const bySize = { by: "size", least: 3, most: 5 } as const;

describe("proposals", () => {
  test("puts together who shares gaps", () => {
    const learners = [
      ...["v1", "v2", "v3", "v4"].map((id) => learner(id, ["ai=ai", "oa=oa"], ["b=b"])),
      ...["c1", "c2", "c3", "c4"].map((id) => learner(id, ["b=b", "d=d"], ["ai=ai"])),
    ];
    const mixed = [0, 4, 1, 5, 2, 6, 3, 7].map((at) => learners[at] as Learner);
    const { groups } = proposeGroups({ learners: mixed, order, shape: { by: "count", count: 2 }, seed: 1 });
    expect(groups.map((group) => [...group.members].sort())).toEqual([
      ["c1", "c2", "c3", "c4"],
      ["v1", "v2", "v3", "v4"],
    ]);
    expect(groups.map((group) => group.targets)).toEqual([
      ["b=b", "d=d"],
      ["ai=ai", "oa=oa"],
    ]);
  });
  test("leaves out who needs nothing, and says so", () => {
    const wanted: GroupsWanted = {
      learners: [learner("x", ["a=a"]), learner("done", [])],
      order,
      shape: bySize,
      seed: 1,
    };
    expect(proposeGroups(wanted)).toMatchObject({ groups: [{ members: ["x"] }] });
    expect(proposeGroups({ ...wanted, learners: [learner("done", [])] })).toEqual({
      groups: [],
      unplaced: new Map([["done", "no need"]]),
      unkept: [],
      worth: 0,
    });
  });

  const anyLearners = fc.array(fc.subarray(order, { minLength: 1 }), { minLength: 1, maxLength: 24 }).map((needs) =>
    needs.map((list, at) =>
      learner(
        `k${at}`,
        list,
        order.filter((gpc) => !list.includes(gpc)),
      ),
    ),
  );
  test("every child once or left out with a reason, no one in a group of which it needs nothing, sizes and targets in bounds, the same for the same seed", () => {
    fc.assert(
      fc.property(anyLearners, fc.integer({ min: 0, max: 99 }), (learners, seed) => {
        const wanted: GroupsWanted = { learners, order, shape: bySize, mostTargets: 3, seed };
        const { groups, unplaced, unkept } = proposeGroups(wanted);
        const placed = groups.flatMap((group) => group.members);
        expect([...placed, ...unplaced.keys()].sort()).toEqual(learners.map((one) => one.id).sort());
        expect(unkept).toEqual([]);
        for (const group of groups) {
          const idle = group.members.filter((id) => {
            const needs = learners.find((one) => one.id === id)?.needs;
            return !group.targets.some((gpc) => needs?.has(gpc));
          });
          if (group.members.length > 3) expect(idle).toEqual([]);
          expect(group.members.length).toBeLessThanOrEqual(5);
          if (learners.length >= 6) expect(group.members.length).toBeGreaterThanOrEqual(3);
          expect(group.targets.length).toBeLessThanOrEqual(3);
        }
        expect(proposeGroups(wanted).groups).toEqual(groups);
      }),
      { numRuns: 40 },
    );
  });
  test("a count asked for is kept, sizes differ by one at most", () => {
    fc.assert(
      fc.property(anyLearners, fc.integer({ min: 1, max: 6 }), (learners, count) => {
        const { groups } = proposeGroups({ learners, order, shape: { by: "count", count }, seed: 3 });
        expect(groups).toHaveLength(Math.min(count, learners.length));
        const sizes = groups.map((group) => group.members.length);
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
      }),
      { numRuns: 40 },
    );
  });
  test("a locked child stays", () => {
    const learners = [learner("p", ["ai=ai"]), learner("q", ["ai=ai"]), learner("r", ["b=b"]), learner("s", ["b=b"])];
    const { groups } = proposeGroups({
      learners,
      order,
      shape: { by: "count", count: 2 },
      limits: {
        locked: new Map([
          ["p", 1],
          ["r", 1],
        ]),
      },
      seed: 2,
    });
    expect(groups[1]?.members).toEqual(expect.arrayContaining(["p", "r"]));
  });
  test("is at least as good as cutting a sorted list", () => {
    const learners = Array.from({ length: 20 }, (_, at) =>
      learner(
        `k${at}`,
        order.filter((_, column) => (at * 5 + column * 3) % 7 < 3),
      ),
    );
    const { worth } = proposeGroups({ learners, order, shape: bySize, mostTargets: 2, seed: 4 });
    let plain = 0;
    for (let at = 0; at < 20; at += 5) {
      const members = learners.slice(at, at + 5);
      plain += chooseTargets(members, order, 2).reduce(
        (sum, gpc) => sum + members.filter((one) => one.needs.has(gpc)).length,
        0,
      );
    }
    expect(worth).toBeGreaterThanOrEqual(plain);
  });
});

describe("fit and reason", () => {
  const members = [
    learner("x", ["ai=ai", "oa=oa"]),
    learner("y", ["ai=ai", "ee=ee"]),
    learner("z", ["ar=ar"], ["ai=ai", "oa=oa"]),
  ];
  test("names what fits and what does not", () => {
    const fit = groupFitOf(members, ["ai=ai", "oa=oa"]);
    expect(fit.members[1]).toMatchObject({
      fits: ["ai=ai"],
      has: [],
      unsure: ["oa=oa"],
      unserved: ["ee=ee"],
      share: 0.5,
    });
    expect(fit.members[2]).toMatchObject({ fits: [], has: ["ai=ai", "oa=oa"], share: 0 });
    expect(fit.share).toBeCloseTo(0.5);
  });
  test("one sentence with the numbers, by teaching point", () => {
    let points: readonly Point[] = [];
    const why = (targets: string[], who = members) =>
      whyGroup(groupFitOf(who, targets), {
        points: (gpcs) => pointsAmong(points, gpcs),
        name: (id) => id.toUpperCase(),
      });
    expect(why(["ai=ai", "oa=oa"])).toBe("2 of 3 need ai; 1 of 3 needs oa. Z fits least: 0 of 2.");
    expect(why(["ai=ai"], members.slice(0, 2))).toBe("All 2 need ai.");
    expect(why(["sh=sh"])).toBe("None is known to need sh. X fits least: 0 of 1.");
    points = [{ id: "ai=ai", name: "ai and oa", gpcs: ["ai=ai", "oa=oa"], own: true }];
    expect(why(["ai=ai", "oa=oa", "ar=ar"], members)).toBe(
      "2 of 3 need ai and oa; 1 of 3 needs ar. Y fits least: 1 of 3.",
    );
    expect(why([])).toMatch(/Nothing/);
    expect(why([], [])).toMatch(/No one/);
  });
  test("waste counts against a target", () => {
    expect(chooseTargets(members, order, 1)).toEqual(["ai=ai"]);
    expect(
      chooseTargets([learner("x", ["ai=ai"]), ...[1, 2, 3].map((at) => learner(`h${at}`, [], ["ai=ai"]))], order, 4),
    ).toEqual([]);
  });
});
