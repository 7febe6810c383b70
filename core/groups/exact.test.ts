import fc from "fast-check";
import { expect, test } from "vitest";
import { chooseTargets, type Learner, proposeGroups, WASTE } from "./index.ts";

const order = ["a=a", "b=b", "d=d", "ai=ai", "oa=oa", "ee=ee"];
const learners = fc
  .array(fc.record({ gaps: fc.subarray(order, { minLength: 1, maxLength: 4 }), shaky: fc.subarray(order) }), {
    minLength: 6,
    maxLength: 6,
  })
  .map((list) =>
    list.map(({ gaps, shaky }, at): Learner => {
      const needs = new Map([...shaky.map((gpc) => [gpc, 0.4] as const), ...gaps.map((gpc) => [gpc, 1] as const)]);
      return { id: `k${at}`, needs, secure: new Set(order.filter((gpc) => !needs.has(gpc))) };
    }),
  );

/** What a group is worth, written out plainly: the need its targets meet, less what they waste. */
function worth(members: readonly Learner[], most: number): number {
  return chooseTargets(members, order, most).reduce((sum, gpc) => {
    const need = members.reduce((total, member) => total + (member.needs.get(gpc) ?? 0), 0);
    return sum + need - WASTE * members.filter((member) => member.secure.has(gpc)).length;
  }, 0);
}

/** The best of all ten ways to put six children into two groups of three. */
function best(list: readonly Learner[], most: number): number {
  let found = 0;
  for (let second = 1; second < 6; second++) {
    for (let third = second + 1; third < 6; third++) {
      const one = [0, second, third];
      const other = [0, 1, 2, 3, 4, 5].filter((at) => !one.includes(at));
      const take = (places: readonly number[]) => places.flatMap((at) => list[at] ?? []);
      found = Math.max(found, worth(take(one), most) + worth(take(other), most));
    }
  }
  return found;
}

test("for six children in two groups the proposal is as good as the best of all ways", () => {
  fc.assert(
    fc.property(learners, fc.integer({ min: 1, max: 3 }), fc.nat(50), (list, most, seed) => {
      const proposal = proposeGroups({
        learners: list,
        order,
        shape: { by: "count", count: 2 },
        mostTargets: most,
        seed,
      });
      expect(proposal.worth).toBeCloseTo(best(list, most), 6);
    }),
    { numRuns: 150 },
  );
});

test("the worth that is told is the worth of the groups that are shown", () => {
  fc.assert(
    fc.property(learners, fc.nat(50), (list, seed) => {
      const { groups, worth: told } = proposeGroups({
        learners: list,
        order,
        shape: { by: "size", least: 2, most: 4 },
        mostTargets: 2,
        seed,
      });
      const shown = groups.reduce(
        (sum, group) =>
          sum +
          worth(
            list.filter((one) => group.members.includes(one.id)),
            2,
          ),
        0,
      );
      expect(told).toBeCloseTo(shown, 6);
    }),
  );
});

test("locked children stay in their groups, whoever they are", () => {
  fc.assert(
    fc.property(
      learners,
      fc.uniqueArray(fc.tuple(fc.nat(5), fc.nat(1)), { maxLength: 4, selector: ([at]) => at }),
      fc.nat(9),
      (list, locks, seed) => {
        const locked = new Map(locks.map(([at, group]) => [`k${at}`, group]));
        const { groups, unplaced } = proposeGroups({
          learners: list,
          order,
          shape: { by: "count", count: 2 },
          limits: { locked },
          seed,
        });
        for (const [id, group] of locked) expect(groups[group]?.members).toContain(id);
        const placed = groups.flatMap((group) => group.members);
        expect([...placed, ...unplaced.keys()].sort()).toEqual(list.map((one) => one.id));
      },
    ),
  );
});
