import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  type AnswerBody,
  addChild,
  addClass,
  countCards,
  endCheck,
  eraseChild,
  evidence,
  exportChild,
  getCheck,
  getGaps,
  getSchool,
  getSession,
  markTaught,
  planNewSession,
  reportSession,
  saveAnswers,
  saveGroup,
  shareSession,
  startCheck,
  traces,
} from "#contract";
import { standing } from "#core/checks";
import { childRow, codeOf } from "#core/mastery";
import { openTestHouse, type TestHouse } from "./testing.ts";

let house: TestHouse;
const classId = uuid();
const ada = uuid();
const ben = uuid();
const checkId = uuid();
const startedAt = "2026-11-20T08:30:00.000Z";
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s3", taughtOn: "2026-11-02", at: startedAt },
  });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  await house.ask(startCheck, { body: { id: checkId, childId: ada, scope: "due", seed: 4, startedAt } });
});
afterAll(() => house.close());

const given = (item: string, outcome: "right" | "none", change: object = {}): AnswerBody =>
  ({
    id: uuid(),
    childId: ada,
    item,
    ms: 900,
    checkId,
    pass: 1,
    markedAt: "2026-11-20T08:31:00.000Z",
    day: "2026-11-20",
    markedBy: "Ms Harrow",
    outcome,
    ...change,
  }) as AnswerBody;
const undo = (voids: string, change: object = {}): AnswerBody => ({
  id: uuid(),
  childId: ada,
  markedAt: "2026-11-20T08:32:00.000Z",
  day: "2026-11-20",
  markedBy: "Ms Harrow",
  outcome: "void",
  voids,
  ...change,
});
const send = (...answers: AnswerBody[]) => house.ask(saveAnswers, { body: { answers } });
const log = async () => (await house.ask(getCheck, { params: { id: checkId } })).answers;

describe("a check", () => {
  test("is dealt from what is taught; begun twice it is the same check", async () => {
    const check = await house.ask(getCheck, { params: { id: checkId } });
    expect(check.items).toEqual(["a=a", "m=m", "t=t", "d=d", "o=o", "p=p", "s=s", "i=i", "n=n"]);
    await house.ask(startCheck, { body: { id: checkId, childId: ada, scope: "all", seed: 99, startedAt } });
    expect(await house.ask(getCheck, { params: { id: checkId } })).toEqual(check);
    expect((await house.ask(countCards, { params: { id: ada } })).recent).toHaveLength(9);
  });
  test("keeps an answer once, however often it is sent", async () => {
    const answer = given("a=a", "right");
    for (let times = 0; times < 3; times++) expect((await send(answer)).saved).toEqual([answer.id]);
    expect((await log()).filter((one) => one.id === answer.id)).toHaveLength(1);
  });
  test("undo is a later entry; the first answer stays in the log", async () => {
    const answer = given("m=m", "none");
    const taken = undo(answer.id);
    await send(answer);
    await send(taken);
    expect((await log()).map((one) => one.id)).toEqual(expect.arrayContaining([answer.id, taken.id]));
    expect(standing(await log()).map((one) => one.id)).not.toContain(answer.id);
    expect((await send(undo(answer.id))).refused[0]?.says).toMatch(/taken back already/);
  });
  test.each<[string, () => AnswerBody, RegExp]>([
    ["a card that is not in the check", () => given("sh=sh", "right"), /not in the check/],
    ["a spelling that does not exist", () => given("zq=k", "right"), /not a spelling/],
    [
      "a time before the check",
      () => given("t=t", "right", { markedAt: "2026-11-20T08:00:00.000Z" }),
      /before the check/,
    ],
    ["a time to come", () => given("t=t", "right", { markedAt: "2026-11-20T10:00:00.000Z" }), /ahead/],
    ["a foreign child", () => given("t=t", "right", { childId: ben }), /another child/],
    ["no child", () => given("t=t", "right", { childId: uuid() }), /not here/],
    ["no check", () => given("t=t", "right", { checkId: uuid() }), /check is not here/],
    ["undo of nothing", () => undo(uuid()), /not in the log/],
  ])("refuses %s, and keeps what came with it", async (_, bad, says) => {
    const before = (await log()).length;
    const good = given("d=d", "right");
    const answer = await send(bad(), good);
    expect(answer.saved).toEqual([good.id]);
    expect(answer.refused[0]?.says).toMatch(says);
    expect(await log()).toHaveLength(before + 1);
    await send(undo(good.id));
  });
  test("ends, and can be ended twice", async () => {
    for (const at of ["2026-11-20T08:40:00.000Z", "2026-11-20T08:50:00.000Z"])
      await house.ask(endCheck, { params: { id: checkId }, body: { at } });
    expect((await house.ask(getCheck, { params: { id: checkId } })).endedAt).toBe("2026-11-20T08:40:00.000Z");
  });
  test("what is secure is not due", async () => {
    const second = uuid();
    await house.ask(startCheck, {
      body: {
        id: second,
        childId: ada,
        scope: "picked",
        picked: ["a=a"],
        seed: 1,
        startedAt: "2026-11-20T08:55:00.000Z",
      },
    });
    await send(given("a=a", "right", { checkId: second, day: "2026-11-21", markedAt: "2026-11-20T08:56:00.000Z" }));
    expect((await house.ask(countCards, { params: { id: ada } })).due).not.toContain("a=a");
    expect((await house.ask(evidence, { params: { id: ada }, query: { gpc: "a=a" } })).state).toBe("secure");
  });
  test("replaying the log gives the map that is served", async () => {
    const map = await house.ask(getGaps, { query: {} });
    const { answers } = await house.ask(exportChild, { params: { id: ada } });
    const taught = new Set(["a=a", "m=m", "t=t", "d=d", "o=o", "p=p", "s=s", "i=i", "n=n"]);
    const row = childRow(
      { id: ada, taught, answers: standing(answers) },
      map.columns.map((column) => column.gpc),
      map.today,
    );
    expect(map.rows.find((one) => one.id === ada)?.cells).toBe(row.map(codeOf).join(""));
  });
});

test("erasing a child leaves no row behind in any table", async () => {
  const groupId = uuid();
  const sessionId = uuid();
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: {
      versionId: uuid(),
      name: "Otters",
      members: [ada, ben].map((childId) => ({ childId, locked: false })),
      targets: ["a=a"],
      at: startedAt,
    },
  });
  await house.ask(planNewSession, { body: { id: sessionId, groupId, heldOn: "2026-11-20", target: null, seed: 1 } });
  await house.ask(shareSession, { params: { id: sessionId }, body: { endsOn: "2026-11-27" } });
  const report = {
    id: uuid(),
    by: "Wyn D.",
    at: "2026-11-20T08:58:00.000Z",
    came: [ada, ben],
    reached: null,
    marks: [{ id: uuid(), childId: ada, gpc: "a=a", outcome: "right" as const }],
    note: "Ada and Adam read; Ada's best yet.",
  };
  await house.ask(reportSession, { params: { id: sessionId }, body: report });
  expect(await house.ask(traces, { params: { id: ada } })).toMatchObject({
    groups: 1,
    sessions: 1,
    notesNaming: 1,
    checks: 2,
  });
  await house.ask(eraseChild, { params: { id: ada } });

  const tables = (await house.store.db.execute(
    sql`select table_name from information_schema.tables where table_schema = 'public'`,
  )) as unknown as { rows: { table_name: string }[] };
  expect(tables.rows.length).toBeGreaterThan(10);
  for (const { table_name } of tables.rows) {
    const found = (await house.store.db.execute(
      sql`select count(*)::int as count from ${sql.identifier(table_name)} t where t::text like ${`%${ada}%`} or t::text like '%Ada %'`,
    )) as unknown as { rows: { count: number }[] };
    expect([table_name, found.rows[0]?.count]).toEqual([table_name, 0]);
  }
  const session = await house.ask(getSession, { params: { id: sessionId } });
  expect(session.members.map((member) => member.id)).toEqual([ben]);
  expect(session.reports[0]?.note).toBe("this child and Adam read; this child's best yet.");
});
