import { afterAll, beforeAll, expect, test } from "vitest";
import {
  evidence,
  exportChild,
  getChild,
  getSchool,
  getSession,
  getShared,
  getToday,
  listChildren,
  markTaught,
  setAbsent,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { type OneOfEach, oneOfEach } from "../testing-school.ts";

let house: TestHouse;
let one: OneOfEach;
beforeAll(async () => {
  house = await openTestHouse();
  one = await oneOfEach(house.ask, "Reed");
});
afterAll(() => house.close());

const say = (absent: boolean) => house.ask(setAbsent, { params: { id: one.childId }, body: { absent } });
const inList = async () => (await house.ask(listChildren, {})).find((child) => child.id === one.childId);
const inToday = async () => (await house.ask(getToday, {})).toCheck.some((child) => child.id === one.childId);

test("absent today: the list, Today, the session of the day and its card follow, and it can be taken back", async () => {
  expect((await inList())?.absentOn).toBeNull();
  expect(await inToday()).toBe(true);
  const { version } = await say(true);
  expect((await say(true)).absentOn).toBe("2026-11-20");
  // It is no edit of the child: who has its form open is not asked anything.
  expect((await inList())?.version).toBe(version);
  expect(await inToday()).toBe(false);
  const session = await house.ask(getSession, { params: { id: one.sessionId } });
  const onItsDay = session.heldOn === "2026-11-20";
  expect(session.members.map((member) => [member.id, member.absent])).toEqual([[one.childId, onItsDay]]);
  const shared = await house.ask(getShared, { params: { token: one.token } });
  expect(shared.members.map((member) => member.absent)).toEqual([onItsDay]);
  expect((await say(false)).absentOn).toBeNull();
  expect(await inToday()).toBe(true);
});

test("it is of the day and no more", async () => {
  await say(true);
  house.now = new Date("2026-11-21T09:00:00.000Z");
  expect(await inToday()).toBe(true);
  house.now = new Date("2026-11-20T09:00:00.000Z");
  expect(await inToday()).toBe(false);
});

test("a child that is not here is told so", async () => {
  const params = { id: crypto.randomUUID() };
  expect(await house.refused(setAbsent, { params, body: { absent: true } })).toMatchObject({ status: 404 });
});

test("a day before can be said and taken back; what was taught on it is missed, told on the child's page, and asked again first", async () => {
  const params = { id: one.childId };
  const away = async () => (await house.ask(getChild, { params })).away;
  const on = (day: string, absent: boolean) => house.ask(setAbsent, { params, body: { absent, day } });
  const { child } = await house.ask(getChild, { params });
  const { classes, orders } = await house.ask(getSchool, {});
  const order = orders.find(({ id }) => id === classes.find((its) => its.id === child.classId)?.orderId);
  const step = order?.content.steps[20];
  const mark = {
    id: crypto.randomUUID(),
    stepId: step?.id ?? "",
    taughtOn: "2026-11-12",
    at: "2026-11-12T08:00:00.000Z",
  };
  await house.ask(markTaught, { params: { id: child.classId }, body: mark });
  const [gpc = ""] = step?.gpcs ?? [];
  const asked = () => house.ask(evidence, { params, query: { gpc } });
  const chance = async () => (await asked()).chance;
  const before = await chance();

  await on("2026-11-13", true);
  await on("2026-11-12", true);
  await on("2026-11-12", true);
  expect((await away()).map(({ day }) => day).slice(-2)).toEqual(["2026-11-13", "2026-11-12"]);
  expect((await away()).find(({ day }) => day === "2026-11-12")?.gpcs).toContain(gpc);
  expect((await away()).find(({ day }) => day === "2026-11-13")).toMatchObject({ gpcs: [], words: [] });
  // It says nothing of today.
  expect((await inList())?.absentOn).not.toBe("2026-11-12");
  expect(await chance()).toBeLessThan(before);
  expect((await asked()).why).toContain("on which the child was away");
  const { format, awayOn } = await house.ask(exportChild, { params });
  expect(format).toBe("keen-sapling child 3");
  expect(awayOn).toEqual(expect.arrayContaining(["2026-11-12", "2026-11-13"]));

  await on("2026-11-12", false);
  await on("2026-11-13", false);
  expect(await chance()).toBe(before);
  const ahead = await house.refused(setAbsent, { params, body: { absent: true, day: "2026-11-30" } });
  expect(ahead).toMatchObject({ status: 422 });
  expect(ahead.detail).toContain("still ahead");
});
