import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { findGroups, type GroupsWanted, type Learner, type Limits, proposeGroups } from "./index.ts";

const order = ["a=a", "b=b", "d=d", "ai=ai", "oa=oa", "ee=ee", "ar=ar", "or=or"];
const learner = (id: string, needs: readonly string[], more: Partial<Learner> = {}): Learner => ({
  id,
  needs: new Map(needs.map((gpc) => [gpc, 1])),
  secure: new Set(order.filter((gpc) => !needs.includes(gpc))),
  ...more,
});
const six = ["p", "q", "r", "s", "t", "u"].map((id) => learner(id, ["ai=ai", "oa=oa"]));
const propose = (limits: Limits, more: Partial<GroupsWanted> = {}) =>
  proposeGroups({ learners: six, order, shape: { by: "size", least: 2, most: 3 }, limits, seed: 1, ...more });
const groupWith = (groups: readonly { readonly members: readonly string[] }[], id: string) =>
  groups.find(({ members }) => members.includes(id))?.members ?? [];

describe("each limit is kept", () => {
  test("apart, together, alone", () => {
    const { groups, unkept } = propose({ apart: [["p", "q"]], together: [["p", "r"]], alone: ["s"] });
    expect(unkept).toEqual([]);
    expect(groupWith(groups, "p")).not.toContain("q");
    expect(groupWith(groups, "p")).toContain("r");
    expect(groupWith(groups, "s")).toEqual(["s"]);
  });
  test("who is to be together with someone comes along without a need", () => {
    const learners = [...six.slice(0, 5), learner("done", [])];
    const { groups, unplaced } = propose({ together: [["p", "done"]] }, { learners });
    expect(groupWith(groups, "p")).toContain("done");
    expect(unplaced.size).toBe(0);
    expect([...propose({}, { learners }).unplaced]).toEqual([["done", "no need"]]);
  });
  test("with many targets too no one who needs one of them is left out while there is room", () => {
    const all = [...order, ..."efgh".split("").map((letter) => `${letter}=${letter}`)];
    const rest = all.slice(0, 8);
    const five = ["p", "q", "r", "s"].map((id) => ({
      id,
      needs: new Map(rest.map((gpc) => [gpc, 1])),
      secure: new Set<string>(),
    }));
    const little = { id: "v", needs: new Map([[rest[0] as string, 0.3]]), secure: new Set(rest.slice(1)) };
    const { unplaced } = proposeGroups({
      ...{ learners: [...five, little], order: all, mostTargets: 8, seed: 1 },
      shape: { by: "size", least: 3, most: 5 },
    });
    expect(unplaced.size).toBe(0);
  });
  test("locked in and out", () => {
    const { groups } = propose({ locked: new Map([["p", 1]]), barred: new Map([["q", [1]]]) });
    expect(groups[1]?.members).toContain("p");
    expect(groups[1]?.members).not.toContain("q");
  });
  test("within classes, and years", () => {
    const learners = six.map((one, at) => ({ ...one, classId: at < 3 ? "x" : "y", year: at < 3 ? 1 : 3 }));
    for (const limits of [{ withinClasses: true }, { yearsApart: 1 }]) {
      const { groups, unkept } = propose(limits, { learners });
      expect(unkept).toEqual([]);
      expect(groups.map(({ members }) => [...members].sort().join(""))).toEqual(
        expect.arrayContaining(["pqr", "stu"]),
      );
    }
  });
  test("who stays counts: as much as it is said to be worth, and no more", () => {
    const learners = [
      ...["p", "q", "r"].map((id) => learner(id, ["ai=ai"], { group: "one" })),
      learner("x", ["ai=ai"], { group: "two" }),
      {
        ...learner("s", ["or=or"], { group: "one" }),
        needs: new Map([["or=or", 1] as const, ["ai=ai", 0.4] as const]),
      },
      ...["t", "u"].map((id) => learner(id, ["or=or"], { group: "two" })),
    ];
    const wanted = { learners, shape: { by: "size", least: 3, most: 4 } } as const;
    const free = propose({}, wanted).groups;
    expect([...groupWith(free, "s")].sort()).toEqual(["s", "t", "u"]);
    const kept = propose({}, { ...wanted, stay: 3 }).groups;
    expect([...groupWith(kept, "s")].sort()).toEqual(["p", "q", "r", "s"]);
  });
  test("with adults for fewer groups the places go to those who gain most, and who has none is told why", () => {
    const learners = [...six.slice(0, 4), learner("v", ["ar=ar"]), learner("w", ["a=a"])];
    const { groups, unplaced, unkept } = propose(
      { mostGroups: 1 },
      { learners, shape: { by: "size", least: 2, most: 4 } },
    );
    expect([...(groups[0]?.members ?? [])].sort()).toEqual(["p", "q", "r", "s"]);
    expect([...unplaced]).toEqual([
      ["v", "no room"],
      ["w", "no room"],
    ]);
    expect(unkept).toMatchObject([{ limit: "room", children: ["v", "w"] }]);
    expect(unkept[0]?.why).toBe(
      "2 children have no place: 1 group holds 4 of the 6 who need something; they go to those who gain most.",
    );
    expect(unkept[0]?.helps).toEqual(["One group more would do, or groups of up to 6."]);
  });
});

describe("what cannot be kept is named, with what would help, and there is a proposal all the same", () => {
  const whys = (limits: Limits, more: Partial<GroupsWanted> = {}) =>
    propose(limits, more).unkept.map(({ why, children }) =>
      why.replace(/\{(\d)\}/g, (_, at) => children[Number(at)] ?? ""),
    );
  test("limits that stand against each other", () => {
    const pq = ["p", "q"] as const;
    expect(whys({ apart: [pq], together: [pq] })).toEqual([
      "p and q are to be together, which brings two together who are to be kept apart.",
    ]);
    expect(whys({ apart: [["p", "r"]], together: [pq, ["q", "r"]] })).toHaveLength(1);
    expect(
      whys({
        apart: [pq],
        locked: new Map([
          ["p", 0],
          ["q", 0],
        ]),
      }),
    ).toEqual(["p and q are to be kept apart, and both are locked in the same group."]);
    expect(
      whys({
        together: [pq],
        locked: new Map([
          ["p", 0],
          ["q", 1],
        ]),
      }),
    ).toEqual(["p and q are to be together, and they are locked in two groups."]);
    expect(whys({ together: [pq], alone: ["p"] })).toHaveLength(1);
    expect(whys({ together: [pq], barred: new Map([["p", [0]]]), locked: new Map([["q", 0]]) })).toHaveLength(1);
    expect(
      whys({
        together: [
          ["p", "q"],
          ["q", "r"],
          ["r", "s"],
        ],
      }),
    ).toEqual(["r and s are to be together with others, 4 in all, and a group holds 3."]);
    const years = six.map((one, at) => ({ ...one, classId: `${at}`, year: at }));
    expect(
      whys(
        { together: [["p", "u"]], withinClasses: true },
        { learners: years, shape: { by: "size", least: 1, most: 3 } },
      ),
    ).toHaveLength(1);
    expect(whys({ together: [["p", "u"]], yearsApart: 1 }, { learners: years })[0]).toMatch(/too many years apart/);
  });
  test("who would come along to a child that is locked where it breaks a limit", () => {
    const locked = new Map([
      ["p", 0],
      ["q", 0],
    ]);
    const learners = six.map((one, at) => ({ ...one, classId: at === 1 ? "y" : "x", year: at === 1 ? 3 : 0 }));
    const along = { locked, together: [["p", "r"]] } as const;
    const said = "p and r are to be together, and one of them is locked in a group";
    expect(whys({ ...along, withinClasses: true }, { learners })).toEqual([`${said} with another class.`]);
    expect(whys({ ...along, yearsApart: 1 }, { learners })).toEqual([`${said} that is too many years apart.`]);
    expect(whys({ ...along, apart: [["q", "r"]] })).toEqual([`${said} with a child to be kept apart from.`]);
    expect(whys(along, { shape: { by: "size", least: 2, most: 2 } })).toEqual([
      `${said} that would hold 3, and a group holds 2.`,
    ]);
    expect(whys(along)).toEqual([]);
  });
  test("one group for two who are kept apart", () => {
    const { unkept, unplaced } = propose(
      { mostGroups: 1, apart: [["p", "q"]] },
      { learners: six.slice(0, 2), shape: { by: "size", least: 1, most: 5 } },
    );
    expect(unplaced.size).toBe(1);
    expect(unkept).toMatchObject([{ limit: "apart", helps: ["Make 2 groups, or put {0} in no group for now."] }]);
    expect(unkept[0]?.why).toBe("{0} has no place: the one group with room holds a child to be kept apart from.");
  });
  test("no adult, too many alone, too few for a group", () => {
    expect(whys({ mostGroups: 0 })).toEqual(["6 children have no place: there is no adult to take a group."]);
    expect(whys({ mostGroups: 1, alone: ["p", "q"] })[0]).toMatch(
      /2 children are to be taught alone, and there are adults for 1/,
    );
    const learners = six.map((one, at) => ({ ...one, classId: at < 5 ? "x" : "y" }));
    expect(
      whys({ withinClasses: true, mostGroups: 2 }, { learners, shape: { by: "size", least: 3, most: 5 } }),
    ).toEqual(["1 child has no place: with these limits too few are left to make a group of 3."]);
  });
});

const ids = Array.from({ length: 14 }, (_, at) => `k${at}`);
const id = fc.constantFrom(...ids);
const anyWanted = fc.record({
  needs: fc.array(fc.subarray(order, { minLength: 1 }), { minLength: ids.length, maxLength: ids.length }),
  apart: fc.array(fc.tuple(id, id), { maxLength: 5 }),
  together: fc.array(fc.tuple(id, id), { maxLength: 4 }),
  alone: fc.uniqueArray(id, { maxLength: 2 }),
  locked: fc.uniqueArray(fc.tuple(id, fc.nat(2)), { maxLength: 3, selector: ([one]) => one }),
  barred: fc.uniqueArray(fc.tuple(id, fc.array(fc.nat(2), { minLength: 1, maxLength: 2 })), {
    maxLength: 3,
    selector: ([one]) => one,
  }),
  withinClasses: fc.boolean(),
  yearsApart: fc.option(fc.nat(2), { nil: undefined }),
  mostGroups: fc.option(fc.nat(6), { nil: undefined }),
  most: fc.integer({ min: 2, max: 6 }),
});

test("whatever is asked, no group breaks a limit that was not named, and every child is placed once or told why not", () => {
  fc.assert(
    fc.property(anyWanted, fc.nat(9), ({ needs, most, locked, barred, yearsApart, mostGroups, ...rest }, seed) => {
      const learners = needs.map((its, at) =>
        learner(ids[at] as string, its, { classId: `c${at % 2}`, year: at % 4 }),
      );
      const limits: Limits = {
        ...rest,
        locked: new Map(locked),
        barred: new Map(barred),
        ...(yearsApart === undefined ? {} : { yearsApart }),
        ...(mostGroups === undefined ? {} : { mostGroups }),
      };
      const { groups, unplaced, unkept } = proposeGroups(
        { learners, order, shape: { by: "size", least: 2, most }, limits, seed },
        5,
      );
      const placed = groups.flatMap(({ members }) => members);
      expect([...placed, ...unplaced.keys()].sort()).toEqual([...ids].sort());
      const named = (one: string, other: string) =>
        unkept.some(({ children }) => children.includes(one) && children.includes(other));
      for (const { members } of groups) {
        for (const [one, other] of rest.apart)
          if (one !== other && members.includes(one) && members.includes(other)) expect(named(one, other)).toBe(true);
        for (const [one, other] of rest.together)
          if (one !== other && members.includes(one) && placed.includes(other) && !members.includes(other))
            expect(named(one, other)).toBe(true);
        const its = members.map((member) => learners.find((one) => one.id === member) as Learner);
        const free = its.filter((one) => !limits.locked?.has(one.id));
        // A lock wins over what a class or a year forbids; among those who are not locked it holds.
        if (rest.withinClasses) expect(new Set(free.map(({ classId }) => classId)).size).toBeLessThanOrEqual(1);
        const years = free.map(({ year = 0 }) => year);
        if (yearsApart !== undefined && years.length > 0)
          expect(Math.max(...years) - Math.min(...years)).toBeLessThanOrEqual(yearsApart);
        expect(members.length).toBeLessThanOrEqual(Math.max(most, its.length - free.length));
      }
      if (mostGroups !== undefined && locked.length === 0)
        expect(groups.filter(({ members }) => members.length > 0).length).toBeLessThanOrEqual(mostGroups);
      for (const [one, group] of barred)
        if (
          locked.length > 0 &&
          !limits.locked?.has(one) &&
          !rest.alone.includes(one) &&
          !unkept.some(({ children }) => children.includes(one))
        )
          for (const number of group) expect(groups[number]?.members ?? []).not.toContain(one);
    }),
    { numRuns: 1000 },
  );
});

test("looking on never makes it worse, and the same rounds give the same", () => {
  const learners = ids.map((one, at) =>
    learner(
      one,
      order.filter((_, column) => (at * 5 + column * 3) % 7 < 3),
    ),
  );
  const wanted: GroupsWanted = { learners, order, shape: { by: "size", least: 3, most: 5 }, mostTargets: 2, seed: 4 };
  const finder = findGroups(wanted);
  let before = finder.need();
  for (let round = 0; round < 20; round++) {
    finder.again(3);
    expect(finder.need()).toBeGreaterThanOrEqual(before - 1e-9);
    before = finder.need();
  }
  const again = findGroups(wanted);
  again.again(60);
  expect(again.proposal()).toEqual(finder.proposal());
});
