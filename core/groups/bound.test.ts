import fc from "fast-check";
import highs from "highs";
import { expect, test } from "vitest";
import { boundOf, chooseTargets, findGroups, type Learner, type Limits, WASTE } from "./index.ts";

const order = ["a=a", "b=b", "d=d", "ai=ai", "oa=oa"];
const ids = ["p", "q", "r", "s", "t", "u", "v"];
const learners = fc
  .array(fc.record({ gaps: fc.subarray(order, { minLength: 1, maxLength: 3 }), shaky: fc.subarray(order) }), {
    minLength: ids.length,
    maxLength: ids.length,
  })
  .map((list) =>
    list.map(({ gaps, shaky }, at): Learner => {
      const needs = new Map([...shaky.map((gpc) => [gpc, 0.4] as const), ...gaps.map((gpc) => [gpc, 1] as const)]);
      return { id: ids[at] as string, needs, secure: new Set(order.filter((gpc) => !needs.has(gpc))), year: at % 3 };
    }),
  );

function worth(members: readonly Learner[], most: number): number {
  return chooseTargets(members, order, most).reduce((sum, gpc) => {
    const need = members.reduce((total, member) => total + (member.needs.get(gpc) ?? 0), 0);
    return sum + need - WASTE * members.filter((member) => member.secure.has(gpc)).length;
  }, 0);
}

/** The best of all ways to put everyone into groups of 2 to 3, at most three groups; undefined when there is none. */
function best(list: readonly Learner[], most: number, limits: Limits): number | undefined {
  let found: number | undefined;
  const put = (at: number, groups: readonly (readonly Learner[])[]) => {
    if (at === list.length) {
      if (groups.some((group) => group.length === 1)) return;
      found = Math.max(
        found ?? 0,
        groups.reduce((sum, group) => sum + worth(group, most), 0),
      );
      return;
    }
    const child = list[at] as Learner;
    for (const [place, group] of groups.entries()) {
      const apart = limits.apart?.some(
        (pair) => pair.includes(child.id) && group.some(({ id }) => pair.includes(id)),
      );
      const years = [...group, child].map(({ year = 0 }) => year);
      if (group.length === 3 || apart || Math.max(...years) - Math.min(...years) > (limits.yearsApart ?? 9)) continue;
      put(
        at + 1,
        groups.map((one, other) => (other === place ? [...one, child] : one)),
      );
    }
    if (groups.length < 3) put(at + 1, [...groups, [child]]);
  };
  put(0, []);
  return found;
}

test("the bound is never below the best of all ways, and no gap means that it was found", async () => {
  const solver = await highs();
  fc.assert(
    fc.property(
      learners,
      fc.integer({ min: 1, max: 3 }),
      fc.constantFrom<Limits>(
        {},
        {
          apart: [
            ["p", "q"],
            ["r", "s"],
          ],
        },
        { yearsApart: 1 },
      ),
      fc.nat(50),
      (list, mostTargets, limits, seed) => {
        const finder = findGroups({
          learners: list,
          order,
          shape: { by: "size", least: 2, most: 3 },
          mostTargets,
          limits,
          seed,
        });
        finder.again(30);
        const bounds = boundOf(finder, solver);
        let told = bounds.next();
        while (!told.done) told = bounds.next();
        const all = best(list, mostTargets, limits);
        if (all === undefined) return;
        const { search } = finder.inside;
        // In a class so small everyone finds a place where there is one.
        expect(search.children()).toBe(list.length);
        const need = finder.need();
        expect(need * (1 + told.value.gap)).toBeGreaterThanOrEqual(all - 1e-4);
        if (told.value.gap < 1e-6) expect(need).toBeCloseTo(all, 4);
      },
    ),
    { numRuns: 120 },
  );
});

test("the bound comes down round by round, and no children or no group has none", async () => {
  const solver = await highs();
  const list = Array.from({ length: 18 }, (_, at): Learner => {
    const needs = new Map(order.filter((_, column) => (at * 5 + column * 3) % 7 < 3).map((gpc) => [gpc, 1]));
    return { id: `k${at}`, needs, secure: new Set(order.filter((gpc) => !needs.has(gpc))) };
  });
  const shape = { by: "size", least: 3, most: 5 } as const;
  const gaps = [...boundOf(findGroups({ learners: list, order, shape, mostTargets: 2, seed: 1 }), solver)].map(
    ({ gap }) => gap,
  );
  expect(gaps).toEqual([...gaps].sort((one, other) => other - one));
  expect(gaps.at(-1)).toBeLessThan(0.05);
  for (const none of [
    findGroups({ learners: [], order, shape, seed: 1 }),
    findGroups({ learners: list, order, shape, limits: { mostGroups: 0 }, seed: 1 }),
  ])
    expect(boundOf(none, solver).next()).toEqual({ done: true, value: { gap: 0, done: true } });
});
