import { expect, test } from "vitest";
import { isNeedFamily, needFamilyName } from "#core/mastery";
import { everyCorrespondence } from "#core/phonics";
import {
  chooseTargets,
  groupFitOf,
  heeding,
  type Learner,
  movesFor,
  proposeGroups,
  servedBy,
  whyGroup,
  withOthers,
} from "./index.ts";

const learner = (
  id: string,
  needs: Readonly<Record<string, number>> = {},
  secure: readonly string[] = [],
): Learner => ({
  id,
  needs: new Map(Object.entries(needs)),
  secure: new Set(secure),
});
const others = (by: Readonly<Record<string, readonly (readonly [string, number])[]>>) =>
  new Map(Object.entries(by).map(([id, needs]) => [id, needs.map(([one, need]) => ({ id: one, need }))]));
const shown = {
  points: (targets: readonly string[]) =>
    targets.map((one) => ({ name: isNeedFamily(one) ? needFamilyName(one) : one, gpcs: [one] })),
  name: (id: string) => id,
};

test("no correspondence is written like a need that is no spelling, and every family has a name", () => {
  expect(everyCorrespondence.filter(({ gpc }) => isNeedFamily(gpc))).toEqual([]);
  const written = ["contrast sound b/d", "blending start", "exception words", "writing words", "rate texts"];
  expect(written.map(isNeedFamily)).toEqual(written.map(() => true));
  expect(["read said", "blend CCVC", "contrast", "spell ai=ai", "ai=ai", ""].filter(isNeedFamily)).toEqual([]);
  expect(written.map(needFamilyName)).toEqual([
    "“b” and “d” told apart",
    "blending a cluster at the start",
    "exception words",
    "writing exception words",
    "the rate in texts",
  ]);
});

test("what is taught together is one need, the greatest of it counts, as much as a spelling's in the mean", () => {
  const plain = [learner("a", { "ai=ai": 1 }), learner("b", { "oa=oa": 0.5, "ee=ee": 0.5 })];
  const weighed = [learner("a", { "ai=ai": 0.5 }), learner("b", { "oa=oa": 0.25, "ee=ee": 0.25 })];
  const [a, b] = withOthers(weighed, {
    plain,
    others: others({
      a: [
        ["read said", 0.4],
        ["read was", 0.8],
        ["blend CCVC", 1],
      ],
    }),
  });
  // The needs weigh 1 of 2 in all.
  expect([...(a?.needs ?? [])]).toEqual([
    ["ai=ai", 0.5],
    ["exception words", 0.4],
    ["blending start", 0.5],
  ]);
  expect(b).toBe(weighed[1]);
});

test("what was put off or struck out is no need, and what is pinned counts as much as anything can", () => {
  const [a] = withOthers([learner("a")], {
    plain: [learner("a")],
    others: others({
      a: [
        ["read said", 0.4],
        ["blend CCVC", 1],
        ["contrast sound b/d", 0.2],
        ["rate texts", 0.3],
      ],
    }),
    said: new Map([
      [
        "a",
        [
          { gpc: "read said", how: "struck" },
          { gpc: "blend CCVC", how: "later" },
          { gpc: "contrast sound b/d", how: "pinned" },
        ],
      ],
    ]),
  });
  expect([...(a?.needs ?? [])]).toEqual([
    ["contrast sound b/d", 1],
    ["rate texts", 0.3],
  ]);
});

test("what is said of it adds nothing to the spellings", () => {
  const said = [{ gpc: "read said", how: "pinned" as const }];
  expect([...heeding(learner("a", { "ai=ai": 0.5 }), said).needs]).toEqual([["ai=ai", 0.5]]);
});

test("children who share what is no spelling come together, and the group works on it", () => {
  const mixes = ["a", "c", "e"].map((id) => learner(id, { "contrast sound b/d": 0.9, "ai=ai": 0.2 }));
  const blends = ["b", "d", "f"].map((id) => learner(id, { "blending start": 0.9, "ai=ai": 0.2 }));
  const { groups } = proposeGroups({
    learners: [...mixes, ...blends].sort((one, other) => one.id.localeCompare(other.id)),
    order: ["ai=ai"],
    shape: { by: "count", count: 2 },
    seed: 5,
  });
  expect(groups.map(({ members, targets }) => [[...members].sort().join(""), targets])).toEqual(
    expect.arrayContaining([
      ["ace", ["ai=ai", "contrast sound b/d"]],
      ["bdf", ["ai=ai", "blending start"]],
    ]),
  );
});

test("who does not need it sits through it: it is no target of a group where only one of four does", () => {
  const members = [
    learner("a", { "exception words": 1 }),
    ...["b", "c", "d"].map((id) => learner(id, { "oa=oa": 0.5 })),
  ];
  expect(chooseTargets(members, ["oa=oa"], 4)).toEqual(["oa=oa"]);
  const two = [...members.slice(0, 2), learner("e", { "exception words": 1 })];
  expect(chooseTargets(two, ["oa=oa"], 4)).toEqual(["oa=oa", "exception words"]);
  const { worst } = servedBy([{ members: ["a", "b"], targets: ["oa=oa"] }], members, 1);
  expect(worst).toBe("a");
});

test("the sentence of a group says what is no spelling by its name; not needing it is not having it", () => {
  const members = [learner("a", { "exception words": 1, "oa=oa": 1 }), learner("b", { "oa=oa": 1 })];
  const fit = groupFitOf(members, ["oa=oa", "exception words"]);
  expect(fit.members[1]).toMatchObject({ fits: ["oa=oa"], has: [], unsure: ["exception words"] });
  expect(whyGroup(fit, shown)).toBe("All 2 need oa=oa; 1 of 2 needs exception words.");
});

test("a child leaves when its spellings are secure and nothing calls for the rest, and comes back when it does", () => {
  const group = { id: "g", members: ["a", "b"], targets: ["oa=oa", "blending start"] };
  const both = [learner("a", { "blending start": 0.6 }, ["oa=oa"]), learner("b", {}, ["oa=oa"])];
  const asked = { most: 5, rule: { by: "targets" } as const, left: [], order: ["oa=oa"] };
  expect(movesFor({ ...asked, groups: [group], learners: both })).toEqual([
    { kind: "leave", childId: "b", groupId: "g", secure: 2, of: 2 },
  ]);
  const left = [{ childId: "a", groupId: "g", on: "2026-11-02", targets: group.targets }];
  expect(movesFor({ ...asked, groups: [{ ...group, members: [] }], learners: both.slice(0, 1), left })).toEqual([
    { kind: "again", childId: "a", groupId: "g", gpcs: ["blending start"] },
  ]);
});
