import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  editChild,
  editClass,
  getChild,
  getGaps,
  getSchool,
  getToday,
  markTaught,
  planNewSession,
  reportSession,
  saveAnswers,
  saveGroup,
} from "#contract";
import { cellAt } from "#core/mastery";
import { beginOne, markAll, stopOf } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const kiln = uuid();
const towpath = uuid();
const [ada, ben, cy] = [uuid(), uuid(), uuid()] as const;
const groupId = uuid();
const at = (time: string) => `2026-11-20T${time}:00.000Z`;
beforeAll(async () => {
  house = await openTestHouse();
  const { orders } = await house.ask(getSchool, {});
  const [mixed, letters] = orders;
  await house.ask(addClass, { body: { id: kiln, name: "Kiln", yearGroup: "Year 1", orderId: mixed?.id ?? "" } });
  await house.ask(addClass, {
    body: { id: towpath, name: "Towpath", yearGroup: "Year 2", orderId: letters?.id ?? "" },
  });
  for (const [classId, stepId] of [
    [kiln, "s3"],
    [towpath, "s1"],
  ] as const) {
    await house.ask(markTaught, {
      params: { id: classId },
      body: { id: uuid(), stepId, taughtOn: "2026-11-02", at: at("07:00") },
    });
  }
  for (const [id, classId, name] of [
    [ada, kiln, "Ada M."],
    [ben, kiln, "Ben T."],
    [cy, towpath, "Cy F."],
  ] as const) {
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  }
});
afterAll(() => house.close());
const today = () => house.ask(getToday, {});

async function check(childId: string, outcomes: Record<string, "right" | "none">, end: boolean): Promise<string> {
  const one = await beginOne(house, childId, { scope: "picked", picked: Object.keys(outcomes) });
  await markAll(house, one, (item) => ({ outcome: outcomes[item] ?? "right" }), { markedAt: at("08:05") });
  if (end) await house.ask(saveAnswers, { body: { answers: [stopOf(one, at("08:10"))] } });
  return one.id;
}

describe("Today", () => {
  test("at first no one was checked: everyone waits, by name", async () => {
    const { toCheck, openSittings, sessions, groups, lastDone } = await today();
    expect(toCheck.map((child) => [child.name, child.className, child.lastChecked])).toEqual([
      ["Ada M.", "Kiln", null],
      ["Ben T.", "Kiln", null],
      ["Cy F.", "Towpath", null],
    ]);
    expect([openSittings, sessions, groups, lastDone]).toEqual([[], [], [], []]);
  });
  test("a check that was not ended waits, an ended one was done; the child moves down the list", async () => {
    await check(ada, { "a=a": "right", "m=m": "none" }, false);
    await check(ben, { "a=a": "none", "t=t": "none" }, true);
    const view = await today();
    expect(view.openSittings).toMatchObject([{ children: ["Ada M."], asked: 2, items: 2 }]);
    expect(view.lastDone).toMatchObject([
      { kind: "check", childId: ben, childName: "Ben T.", sittingId: expect.stringMatching(/^[\w-]{36}$/) },
    ]);
    expect(view.toCheck.map((child) => child.name)).toEqual(["Cy F.", "Ada M.", "Ben T."]);
  });
  test("a group shows its next session until that was held, then the last", async () => {
    const members = [ada, ben].map((childId) => ({ childId, locked: false }));
    await house.ask(saveGroup, {
      params: { id: groupId },
      body: { versionId: uuid(), version: 0, name: "Otters", members, targets: ["m=m", "t=t"], at: at("08:20") },
    });
    expect((await today()).groups).toMatchObject([{ name: "Otters", members: 2, lastHeld: null, next: null }]);
    const id = uuid();
    await house.ask(planNewSession, { body: { id, groupId, heldOn: "2026-11-19", target: "m=m", seed: 1 } });
    let view = await today();
    expect(view.sessions).toMatchObject([{ id, state: "planned", target: "m=m" }]);
    expect(view.groups[0]?.next).toEqual({ id, heldOn: "2026-11-19" });
    await house.ask(reportSession, {
      params: { id },
      body: { id: uuid(), by: "Wyn D.", at: at("08:40"), came: [ada], reached: "teach", marks: [], note: "Short." },
    });
    view = await today();
    expect(view.sessions).toEqual([]);
    expect(view.groups).toMatchObject([{ lastHeld: "2026-11-19", next: null }]);
    expect(view.reports).toMatchObject([{ by: "Wyn D.", came: 1, of: 2, note: "Short." }]);
    expect(view.lastDone[0]).toMatchObject({ kind: "session", by: "Wyn D.", groupName: "Otters", sessionId: id });
  });
  test("sessions far ahead do not wait yet", async () => {
    await house.ask(planNewSession, { body: { id: uuid(), groupId, heldOn: "2026-12-18", target: "m=m", seed: 1 } });
    expect((await today()).sessions).toEqual([]);
    expect((await today()).groups[0]?.next?.heldOn).toBe("2026-12-18");
  });
  test("of what was held long ago the last day is told, and what is told of it late", async () => {
    house.now = new Date("2027-02-01T09:00:00.000Z");
    const before = await today();
    expect([before.reports, before.sessions]).toEqual([[], []]);
    expect(before.groups).toMatchObject([{ lastHeld: "2026-11-19", next: { heldOn: "2026-12-18" } }]);
    const report = { id: uuid(), by: "Wyn D.", at: "2027-02-01T08:40:00.000Z", came: [ada, ben] };
    await house.ask(reportSession, {
      params: { id: before.groups[0]?.next?.id ?? "" },
      body: { ...report, reached: "teach", marks: [], note: "Late." },
    });
    const after = await today();
    expect(after.reports).toMatchObject([{ groupName: "Otters", came: 2, of: 2, note: "Late." }]);
    expect(after.groups).toMatchObject([{ lastHeld: "2026-12-18", next: null }]);
    expect(after.sessions).toEqual([]);
    // One of today stands there when it is held, too.
    const id = uuid();
    await house.ask(planNewSession, { body: { id, groupId, heldOn: "2027-02-01", target: "m=m", seed: 1 } });
    await house.ask(reportSession, {
      params: { id },
      body: { ...report, id: uuid(), reached: "teach", marks: [], note: "" },
    });
    expect((await today()).sessions).toMatchObject([{ id, state: "held" }]);
    house.now = new Date("2026-11-20T09:00:00.000Z");
  });
});

describe("the map over classes with different orders", () => {
  test("has the columns of both, each once, and each child's own taught", async () => {
    const { columns, rows } = await house.ask(getGaps, { query: {} });
    const gpcs = columns.map((column) => column.gpc);
    expect(new Set(gpcs).size).toBe(gpcs.length);
    expect(gpcs.slice(0, 4)).toEqual(["t=t", "o=o", "p=p", "s=s"]);
    const cell = (name: string, gpc: string) =>
      cellAt(rows.find((row) => row.name === name)?.cells ?? "", gpcs.indexOf(gpc)).state;
    expect(["not sure yet", "unsteady"]).toContain(cell("Ada M.", "a=a"));
    expect(cell("Ada M.", "m=m")).toBe("not sure yet");
    expect(cell("Ben T.", "d=d")).toBe("not checked");
    expect(cell("Ben T.", "b=b")).toBe("not taught");
    expect(cell("Cy F.", "b=b")).toBe("not checked");
    expect(cell("Cy F.", "m=m")).toBe("not taught");
  });
  test("one class alone has its own columns in its own order", async () => {
    const { columns, rows } = await house.ask(getGaps, { query: { classId: towpath } });
    expect(columns.slice(0, 4).map((column) => column.gpc)).toEqual(["a=a", "b=b", "c=k", "d=d"]);
    expect(rows.map((row) => row.name)).toEqual(["Cy F."]);
  });
  test("a spelling that was asked and is in no order stands at the end", async () => {
    await check(cy, { "eo=ee": "none" }, true);
    const { columns } = await house.ask(getGaps, { query: {} });
    expect(columns.at(-1)).toMatchObject({ gpc: "eo=ee", step: 0 });
  });
  test("archived children and classes are left out, and come back", async () => {
    const names = async () => (await house.ask(getGaps, { query: {} })).rows.map((row) => row.name);
    await house.ask(editChild, { params: { id: ben }, body: { version: 1, archived: true } });
    expect(await names()).toEqual(["Ada M.", "Cy F."]);
    await house.ask(editClass, { params: { id: towpath }, body: { archived: true } });
    expect(await names()).toEqual(["Ada M."]);
    expect((await today()).toCheck.map((child) => child.name)).toEqual(["Ada M."]);
    await house.ask(editChild, { params: { id: ben }, body: { version: 2, archived: false } });
    await house.ask(editClass, { params: { id: towpath }, body: { archived: false } });
    expect(await names()).toHaveLength(3);
  });
});

test("a child's page has its checks, its groups and its confusions", async () => {
  const view = await house.ask(getChild, { params: { id: ada } });
  expect(view.checks).toMatchObject([{ cards: 2, asked: 2, right: 1, endedAt: null }]);
  expect(view.groups).toEqual([{ id: groupId, name: "Otters" }]);
  expect(view.confusions).toEqual([]);
  expect(view.child.lastChecked).toBe("2026-11-20");
});
