import { describe, expect, test } from "vitest";
import type { GroupView } from "#contract";
import type { Proposal } from "#core/groups";
import type { BoardGroup } from "./board.tsx";
import { boardFrom, keptOn, placedLearners } from "./proposed.ts";

const proposal = (...groups: string[]): Proposal => ({
  ...{ unplaced: new Map(), unkept: [], worth: 1 },
  groups: groups.map((members) => ({ members: [...members], targets: ["ai=ai"] })),
});
const running = (id: string, members: string, closed = false): GroupView => ({
  ...{
    id,
    name: `${id} group`,
    closed,
    version: 3,
    savedAt: "2026-11-20T08:00:00.000Z",
    ...{ targets: ["oa=oa"], besides: [] },
    reads: "all",
    routine: "usual",
  },
  members: [...members].map((childId) => ({ childId, locked: false, name: childId, classId: "k" })),
});
const onBoard = (id: string, members: string, more: Partial<BoardGroup> = {}): BoardGroup => ({
  ...{ id, name: id, targets: [], chosenTargets: false, barred: [] },
  members: [...members].map((one) => ({ id: one, locked: false })),
  ...more,
});

describe("a board from a proposal", () => {
  test("goes on from running groups, and gives what is new a name that is free", () => {
    const board = boardFrom(
      proposal("abd", "xyz"),
      [],
      [running("otter", "abc"), running("Heron", "h"), running("gone", "xyz", true)],
    );
    expect(board.map(({ id, name }) => [id === "otter", name])).toEqual([
      [true, "otter group"],
      [false, "Heron"],
    ]);
    expect(board[0]?.members.map(({ id }) => id)).toEqual(["a", "b", "d"]);
  });
  test("keeps the groups and their places where children are locked in or kept out", () => {
    const before = [onBoard("one", "ab"), onBoard("two", "cd", { barred: ["a"] })];
    const locked = [onBoard("one", "", { members: [{ id: "a", locked: true }] }), onBoard("two", "b")];
    expect(keptOn(before)).toEqual({ locked: new Map(), barred: new Map([["a", [1]]]) });
    expect(keptOn(locked)).toEqual({ locked: new Map([["a", 0]]), barred: new Map() });
    const next = boardFrom(proposal("bc", "ad", "ef"), before, [running("two", "ef")]);
    expect(next.map(({ id, barred }) => [id, barred])).toMatchObject([
      ["one", []],
      ["two", ["a"]],
      [expect.not.stringMatching(/^(one|two)$/), []],
    ]);
    expect(boardFrom(proposal("a", "b"), locked, [])[0]?.members).toEqual([{ id: "a", locked: true }]);
  });
});

test("children are seen with their year, their class and the open group that they are in", () => {
  const map = {
    ...{ today: "2026-11-20", columns: [{ gpc: "ai=ai", step: 1, stepId: "s1", title: "" }], points: [] },
    rows: ["a", "b"].map((id) => ({ id, name: id, classId: id === "a" ? "k" : "t", cells: "g10" })),
  };
  const one = (id: string, yearGroup: string) => ({
    ...{
      id,
      name: id,
      yearGroup,
      orderId: "o",
      stepId: null,
      taughtOn: null,
      children: 1,
      archived: false,
      version: 1,
    },
  });
  const from = {
    map,
    worth: undefined,
    said: undefined,
    others: undefined,
    grouping: { weights: { words: 1, texts: 0, next: 0, fades: 0, mixed: 0 } },
  };
  const learners = placedLearners({
    ...from,
    running: [running("otter", "a"), running("gone", "b", true)],
    classes: [one("k", "Year 3"), one("t", "Reception")] as never,
  });
  expect(learners).toMatchObject([{ id: "a", classId: "k", year: 3, group: "otter" }, { id: "b" }]);
  expect(learners[1]).not.toHaveProperty("group");
  expect(learners[1]).not.toHaveProperty("year");
});
