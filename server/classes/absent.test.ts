import { afterAll, beforeAll, expect, test } from "vitest";
import { getSession, getShared, getToday, listChildren, setAbsent } from "#contract";
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
