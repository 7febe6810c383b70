import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addChild, addClass, getNumbers, getSchool, markTaught, saveAnswers, saveGroup } from "#contract";
import { begin, markAll, part, stopOf } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const classes = [
  { id: uuid(), name: "Kiln", children: 12 },
  { id: uuid(), name: "Towpath", children: 7 },
  { id: uuid(), name: "Nook", children: 4 },
].map((one) => ({ ...one, ids: Array.from({ length: one.children }, () => uuid()) }));

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  const order = (await house.ask(getSchool, {})).orders[0];
  for (const { id, name, ids } of classes) {
    await house.ask(addClass, { body: { id, name, yearGroup: "", orderId: order?.id ?? "" } });
    const stepId = order?.content.steps[4]?.id ?? "";
    const taught = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
    await house.ask(markTaught, { params: { id }, body: taught });
    for (const [at, child] of ids.entries())
      await house.ask(addChild, { body: { id: child, classId: id, name: `Secret${name}${at} X.`, note: "" } });
  }
  const [kiln, towpath] = classes;
  const checked: string[] = [...(kiln?.ids.slice(0, 8) ?? []), ...(towpath?.ids.slice(0, 3) ?? [])];
  // Two days, so that what is right is secure; the first five of them miss everything.
  for (const day of ["2026-11-03", "2026-11-17"]) {
    const { checks } = await begin(house, checked, [part("card", { scope: "all" })], `${day}T08:00:00.000Z`);
    for (const check of checks) {
      const outcome = checked.indexOf(check.childId) < 5 ? ("none" as const) : ("right" as const);
      await markAll(house, check, () => ({ outcome }), { day, markedAt: `${day}T08:10:00.000Z` });
      const stop = { ...stopOf(check, `${day}T08:20:00.000Z`), day };
      await house.ask(saveAnswers, { body: { answers: [stop as never] } });
    }
  }
  const members = (kiln?.ids.slice(0, 6) ?? []).map((childId) => ({ childId, locked: false }));
  await house.ask(saveGroup, {
    params: { id: uuid() },
    body: { versionId: uuid(), version: 0, name: "Otters", members, targets: [], at: "2026-11-09T08:00:00.000Z" },
  });
});
afterAll(() => house.close());

test("children are counted in fives, of the school and of each class of five and more, and no name is in it", async () => {
  const told = await house.ask(getNumbers, {});
  expect(told).toMatchObject({ today: "2026-11-20", since: "2026-10-09" });
  expect(told.rows).toEqual([
    { className: null, children: 25, checked: 10, inGroup: 5, mostSecure: 5, manyGaps: 5, sessions: 0 },
    { className: "Kiln", children: 10, checked: 10, inGroup: 5, mostSecure: null, manyGaps: 5, sessions: 0 },
    {
      className: "Towpath",
      children: 5,
      checked: null,
      inGroup: null,
      mostSecure: null,
      manyGaps: null,
      sessions: 0,
    },
  ]);
  expect(JSON.stringify(told)).not.toMatch(/Secret|Nook/);
});

test("what is told moves by five or not at all", async () => {
  const before = await house.ask(getNumbers, {});
  const [kiln] = classes;
  await house.ask(addChild, { body: { id: uuid(), classId: kiln?.id ?? "", name: "SecretLate Y.", note: "" } });
  const after = await house.ask(getNumbers, {});
  // 23 children and 24, 12 and 13.
  expect([before, after].map(({ rows }) => rows.map(({ children }) => children))).toEqual([
    [25, 10, 5],
    [25, 15, 5],
  ]);
});
