import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addOrder,
  copySession,
  getSchool,
  getSession,
  importChildren,
  listChildren,
  listSessions,
  listTexts,
  planNewSession,
  removeSession,
  removeText,
  restoreSession,
  restoreText,
  saveGroup,
  saveText,
  startSitting,
  textVersions,
} from "#contract";
import { part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

/** What is sent again because an answer was slow or lost makes nothing twice; what was removed can come back. */

let house: TestHouse;
let orderId = "";
const classId = uuid();
const [ada, ben] = [uuid(), uuid()];
const groupId = uuid();

beforeAll(async () => {
  house = await openTestHouse();
  orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId } });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
});
afterAll(() => house.close());

describe("the same id again", () => {
  test("is one class, one child, one teaching order; with other content it is refused", async () => {
    const kiln = { id: classId, name: "Kiln", yearGroup: "Year 1", orderId };
    expect((await house.ask(addClass, { body: kiln })).id).toBe(classId);
    expect(await house.refused(addClass, { body: { ...kiln, name: "Rope walk" } })).toMatchObject({ status: 409 });
    const child = { id: ada, classId, name: "Ada M.", note: "" };
    expect((await house.ask(addChild, { body: child })).name).toBe("Ada M.");
    expect(await house.refused(addChild, { body: { ...child, name: "Bea K." } })).toMatchObject({ status: 409 });
    const { content } = (await house.ask(getSchool, {})).orders[0] ?? { content: undefined };
    if (!content) throw new Error("no order");
    const order = { id: uuid(), content: { ...content, name: "Ours" } };
    await house.ask(addOrder, { body: order });
    await house.ask(addOrder, { body: order });
    const other = { ...order, content: { ...content, name: "Theirs" } };
    expect(await house.refused(addOrder, { body: other })).toMatchObject({ status: 409 });
    const { classes, orders } = await house.ask(getSchool, {});
    expect(classes).toHaveLength(1);
    expect(orders.filter((one) => one.content.name === "Ours")).toHaveLength(1);
    expect((await house.ask(listChildren, { query: {} })).map((one) => one.name)).toEqual(["Ada M.", "Ben T."]);
  });

  test("in a list takes no child in twice, and tells of another child under it", async () => {
    const children = [
      { id: ada, classId, name: "Ada M.", note: "" },
      { id: ben, classId, name: "Cy N.", note: "" },
    ];
    const answer = await house.ask(importChildren, { body: { children } });
    expect(answer).toEqual({ added: 0, refused: [{ id: ben, says: "Another child was made under it." }] });
  });

  test("is one state of a group and one session", async () => {
    const group = {
      versionId: uuid(),
      version: 0,
      name: "Heron",
      members: [{ childId: ada, locked: false }],
      targets: ["sh=sh"],
      at: "2026-11-20T08:00:00.000Z",
    };
    await house.ask(saveGroup, { params: { id: groupId }, body: group });
    await house.ask(saveGroup, { params: { id: groupId }, body: group });
    const changed = { ...group, name: "Otter" };
    expect(await house.refused(saveGroup, { params: { id: groupId }, body: changed })).toMatchObject({ status: 409 });
    const session = { id: uuid(), groupId, heldOn: "2026-11-23", target: "sh=sh", seed: 5 };
    const made = await house.ask(planNewSession, { body: session });
    expect(await house.ask(planNewSession, { body: session })).toEqual(made);
    const moved = { ...session, heldOn: "2026-11-24" };
    expect(await house.refused(planNewSession, { body: moved })).toMatchObject({ status: 409 });
    expect(await house.ask(listSessions, { query: {} })).toHaveLength(1);

    const params = { id: session.id };
    const copy = { id: uuid(), heldOn: "2026-11-30" };
    const copied = await house.ask(copySession, { params, body: copy });
    expect(copied).toMatchObject({ plan: made.plan, heldOn: "2026-11-30", state: "planned", reports: [] });
    expect(copied.members.map((member) => member.id)).toEqual([ada]);
    expect(await house.ask(copySession, { params, body: copy })).toEqual(copied);
    const elsewhen = { ...copy, heldOn: "2026-12-01" };
    expect(await house.refused(copySession, { params, body: elsewhen })).toMatchObject({ status: 409 });
    expect((await house.refused(copySession, { params: { id: uuid() }, body: copy })).status).toBe(404);
    expect(await house.ask(listSessions, { query: {} })).toHaveLength(2);
    await house.ask(removeSession, { params: { id: copy.id } });
  });

  test("is one check, with the items that were drawn first", async () => {
    const body = {
      id: uuid(),
      name: "Look",
      sections: [part("card", { scope: "picked", picked: ["b=b", "d=d"] })],
      children: [{ childId: ada, seed: 4, checkIds: [uuid()] }],
      startedAt: "2026-11-20T08:00:00.000Z",
    };
    const made = await house.ask(startSitting, { body });
    expect(await house.ask(startSitting, { body })).toEqual(made);
    const other = { ...body, children: [{ childId: ben, seed: 4, checkIds: [uuid()] }] };
    expect(await house.refused(startSitting, { body: other })).toMatchObject({ status: 409 });
  });
});

describe("what was removed", () => {
  test("a session comes back as it was", async () => {
    const [row] = await house.ask(listSessions, { query: {} });
    const id = row?.id ?? "";
    const before = await house.ask(getSession, { params: { id } });
    await house.ask(removeSession, { params: { id } });
    expect(await house.ask(listSessions, { query: {} })).toEqual([]);
    expect(await house.refused(getSession, { params: { id } })).toMatchObject({ status: 404 });
    expect(await house.ask(restoreSession, { params: { id } })).toEqual(before);
    expect(await house.ask(restoreSession, { params: { id } })).toEqual(before);
  });

  test("a text comes back with its versions", async () => {
    const id = uuid();
    const content = { title: "Mud", exceptions: [], body: "Mud on a mat.", questions: [], words: [] };
    const save = (version: number, body: string) =>
      house.ask(saveText, {
        params: { id },
        body: { content: { ...content, body }, version, savedAt: "2026-11-20T08:00:00.000Z", savedBy: "Ms Harrow" },
      });
    await save(0, "Mud on a mat.");
    await save(1, "Mud on a mat and a cap.");
    const before = await house.ask(textVersions, { params: { id } });
    await house.ask(removeText, { params: { id } });
    expect((await house.ask(listTexts, {})).some((text) => text.id === id)).toBe(false);
    expect(await house.refused(removeText, { params: { id } })).toMatchObject({ status: 404 });
    await house.ask(restoreText, { params: { id } });
    await house.ask(restoreText, { params: { id } });
    expect(await house.ask(textVersions, { params: { id } })).toEqual(before);
    expect(await house.refused(restoreText, { params: { id: uuid() } })).toMatchObject({ status: 404 });
  });
});
