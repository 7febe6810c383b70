import { describe, expect, test } from "vitest";
import { bestGain, gainOf, type Learner, leavingsIn, looksDue, movesFor } from "./index.ts";

const learner = (id: string, needs: readonly string[], secure: readonly string[] = []): Learner => ({
  id,
  needs: new Map(needs.map((gpc) => [gpc, 0.9])),
  secure: new Set(secure),
  taught: 10,
});
const otter = { id: "otter", members: ["p", "q"], targets: ["ai=ai", "ay=ai"] };
const heron = { id: "heron", members: ["r"], targets: ["oa=oa", "ow=oa"] };
const by = {
  groups: [otter, heron],
  most: 3,
  rule: { by: "targets" },
  left: [],
  order: ["ai=ai", "ay=ai", "oa=oa", "ow=oa"],
} as const;

describe("moves", () => {
  test("leaves when every target is secure, and not when one only is", () => {
    const done = learner("p", ["oa=oa"], ["ai=ai", "ay=ai"]);
    expect(movesFor({ ...by, learners: [done] })).toEqual([
      { kind: "leave", childId: "p", groupId: "otter", secure: 2, of: 2 },
    ]);
    expect(movesFor({ ...by, learners: [learner("p", ["ay=ai"], ["ai=ai"])] })).toEqual([]);
  });
  test("by a share of what was taught: none of the targets is needed, and enough is secure", () => {
    const rule = { by: "share", percent: 80 } as const;
    const eight = ["ai=ai", "b=b", "c=k", "d=d", "e=e", "f=f", "g=g", "h=h"];
    const who = (secure: readonly string[], needs: readonly string[] = []) =>
      movesFor({ ...by, rule, learners: [learner("p", needs, secure)] }).map(({ kind }) => kind);
    expect(who(eight)).toEqual(["leave"]);
    expect(who(eight.slice(1))).toEqual([]);
    expect(who(eight, ["ay=ai"])).toEqual([]);
  });
  test("moves where more is gained and there is room, not for little, not to whom it is kept apart from", () => {
    const companion = learner("q", ["ai=ai", "ay=ai"], ["oa=oa", "ow=oa"]);
    const torn = learner("p", ["oa=oa", "ow=oa"], ["ai=ai"]);
    const move = { kind: "move", childId: "p", groupId: "otter", toId: "heron", here: 0, there: ["oa=oa", "ow=oa"] };
    expect(movesFor({ ...by, learners: [torn, companion] })).toEqual([move]);
    expect(movesFor({ ...by, learners: [torn, companion], most: 1 })).toEqual([]);
    expect(movesFor({ ...by, learners: [torn, companion], apart: [["r", "p"]] })).toEqual([]);
    const beside = learner("q", ["ai=ai", "ay=ai"], ["oa=oa", "ow=oa"]);
    const two = [learner("p", ["ai=ai", "oa=oa", "ow=oa"], ["ay=ai"]), beside];
    expect(movesFor({ ...by, learners: two })).toMatchObject([{ kind: "move", childId: "p", here: 1 }]);
    expect(movesFor({ ...by, learners: [learner("p", ["ai=ai", "ay=ai", "oa=oa", "ow=oa"])] })).toEqual([]);
  });
  test("where a group would do better with other targets, no one moves for that", () => {
    const both = ["p", "q"].map((id) => learner(id, ["oa=oa", "ow=oa"], ["ai=ai", "ay=ai"]));
    expect(movesFor({ ...by, rule: { by: "share", percent: 100 }, learners: both })).toEqual([]);
  });
  test("joins when it is in none, and comes back when what it left for goes again", () => {
    expect(movesFor({ ...by, learners: [learner("z", ["oa=oa"])] })).toEqual([
      { kind: "join", childId: "z", toId: "heron", there: ["oa=oa"] },
    ]);
    const left = [{ childId: "z", groupId: "gone", on: "2026-10-01", targets: ["sh=sh", "ch=ch"] }];
    expect(movesFor({ ...by, left, learners: [learner("z", ["sh=sh"])] })).toEqual([
      { kind: "again", childId: "z", groupId: "gone", gpcs: ["sh=sh"] },
    ]);
    expect(movesFor({ ...by, left, learners: [learner("z", [], ["sh=sh"])] })).toEqual([]);
    expect(movesFor({ ...by, groups: [], learners: [learner("z", ["oa=oa"])] })).toEqual([]);
  });
  test("what a group gives a child, beside lessons of its own", () => {
    const one = learner("p", ["ai=ai", "oa=oa", "ow=oa"], ["ay=ai"]);
    expect(gainOf(one, otter.targets)).toBeCloseTo(0.9 - 0.35, 9);
    expect(bestGain(one, 2)).toBeCloseTo(1.8, 9);
  });
});

describe("who left, and the looks after it", () => {
  const state = (groupId: string, on: string, members: readonly string[], targets = ["ai=ai"]) => ({
    groupId,
    on,
    members,
    targets,
  });
  test("by the states of the groups: gone from one and in none now", () => {
    const states = [
      state("otter", "2026-09-01", ["p", "q", "r"]),
      state("otter", "2026-10-01", ["q", "r"], ["oa=oa"]),
      state("heron", "2026-10-02", ["r"]),
      state("otter", "2026-10-03", ["q"]),
    ];
    expect(leavingsIn(states)).toEqual([{ childId: "p", groupId: "otter", on: "2026-10-01", targets: ["ai=ai"] }]);
    expect(leavingsIn([...states, state("heron", "2026-10-05", ["r", "p"])])).toEqual([]);
    expect(leavingsIn(states, new Set(["heron"])).map(({ childId }) => childId)).toEqual(["p", "r"]);
  });
  test("after two, four and eight weeks, until every target was asked since", () => {
    const left = [{ childId: "p", groupId: "otter", on: "2026-10-01", targets: ["ai=ai", "ay=ai"] }];
    const due = (today: string, asked: Record<string, string> = {}) =>
      looksDue(left, today, (_, gpc) => asked[gpc]).map(({ weeks, due: on, gpcs }) => [weeks, on, gpcs.join(" ")]);
    expect(due("2026-10-14")).toEqual([]);
    expect(due("2026-10-15")).toEqual([[2, "2026-10-15", "ai=ai ay=ai"]]);
    expect(due("2026-10-20", { "ai=ai": "2026-10-15" })).toEqual([[2, "2026-10-15", "ay=ai"]]);
    expect(due("2026-10-20", { "ai=ai": "2026-10-15", "ay=ai": "2026-10-16" })).toEqual([]);
    expect(due("2026-10-29", { "ai=ai": "2026-10-15", "ay=ai": "2026-10-16" })).toEqual([
      [4, "2026-10-29", "ai=ai ay=ai"],
    ]);
    expect(due("2027-01-10", { "ai=ai": "2026-11-26", "ay=ai": "2026-11-26" })).toEqual([]);
    expect(due("2027-01-10")).toEqual([[8, "2026-11-26", "ai=ai ay=ai"]]);
  });
});
