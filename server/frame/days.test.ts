import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  exportChild,
  getSchool,
  getToday,
  listReadings,
  saveAnswers,
  saveReading,
  setTimeZone,
} from "#contract";
import { answerTo, beginOne } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

/** Days are the school's, wherever the server and the devices are. */

let house: TestHouse;
const childId = uuid();

beforeAll(async () => {
  house = await openTestHouse();
  const { orders } = await house.ask(getSchool, {});
  const classId = uuid();
  const orderId = orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId } });
  await house.ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
});
/** Sets the zone over whatever the settings are now. */
async function setZone(timeZone: string): Promise<void> {
  const { version } = await house.ask(getSchool, {});
  await house.ask(setTimeZone, { body: { version, timeZone } });
}
afterAll(() => house.close());

async function dayOf(id: string): Promise<string | undefined> {
  const { answers } = await house.ask(exportChild, { params: { id: childId } });
  return answers.find((one) => one.id === id)?.day;
}

/** Marks one card at an instant, with a day that the device made up. */
async function markAt(markedAt: string, day = "2001-01-01") {
  house.now = new Date(markedAt);
  const startedAt = new Date(Date.parse(markedAt) - 60_000).toISOString();
  const picked = { scope: "picked" as const, picked: ["b=b"] };
  const check = await beginOne(house, childId, picked, startedAt);
  const answer = answerTo(check, "b=b", { outcome: "right" }, { markedAt, day });
  const answered = await house.ask(saveAnswers, { body: { answers: [answer] } });
  return { answer, answered };
}

describe("the day of a mark", () => {
  test.each([
    ["Pacific/Honolulu", "2026-11-25T05:00:00.000Z", "2026-11-24"],
    ["Europe/London", "2026-03-29T00:30:00.000Z", "2026-03-29"],
    ["Europe/London", "2026-10-25T23:30:00.000Z", "2026-10-25"],
    ["Australia/Adelaide", "2026-11-24T13:45:00.000Z", "2026-11-25"],
    ["Pacific/Kiritimati", "2026-11-24T19:00:00.000Z", "2026-11-25"],
  ])("in %s, marked at %s, is %s, whatever the device says", async (timeZone, markedAt, day) => {
    await setZone(timeZone);
    const { answer, answered } = await markAt(markedAt);
    expect(answered.saved).toEqual([answer.id]);
    expect(await dayOf(answer.id)).toBe(day);
    const today = await house.ask(getToday, {});
    expect(today.today).toBe(day);
    expect((await house.ask(getSchool, {})).today).toBe(day);
  });

  test("stays as it was stored when the zone changes", async () => {
    await setZone("Pacific/Honolulu");
    const { answer } = await markAt("2026-11-26T05:00:00.000Z");
    await setZone("Pacific/Kiritimati");
    expect(await dayOf(answer.id)).toBe("2026-11-25");
    // Sent once more, as a device does that did not hear the answer.
    const again = await house.ask(saveAnswers, { body: { answers: [answer] } });
    expect(again.saved).toEqual([answer.id]);
    expect(await dayOf(answer.id)).toBe("2026-11-25");
  });

  test("that lies ahead of the server's clock is refused with its reason, and a neighbour is kept", async () => {
    const { answer } = await markAt("2026-11-27T09:00:00.000Z");
    const late = { ...answer, id: uuid(), markedAt: "2026-11-27T09:05:01.000Z" };
    const near = { ...answer, id: uuid(), markedAt: "2026-11-27T09:04:59.000Z" };
    const { saved, refused } = await house.ask(saveAnswers, { body: { answers: [late, near] } });
    expect(saved).toEqual([near.id]);
    expect(refused).toEqual([{ id: late.id, says: "The time lies ahead of the server's clock." }]);
  });
});

test("a reading keeps the day on which it first came", async () => {
  await setZone("Pacific/Honolulu");
  house.now = new Date("2026-11-28T06:00:00.000Z");
  const id = uuid();
  const body = {
    childId,
    how: "alone" as const,
    textId: "mud",
    title: "Mud",
    text: "Mud on a mat.",
    marks: [],
    stoppedAt: null,
    ms: 9000,
    turns: [],
    fit: null,
    voice: { phrases: null, stops: null, pace: null, expression: null },
    understanding: [],
    note: "",
    readAt: "2026-11-28T05:00:00.000Z",
    day: "2001-01-01",
    markedBy: "Ms Harrow",
  };
  await house.ask(saveReading, { params: { id }, body });
  await setZone("Pacific/Kiritimati");
  await house.ask(saveReading, { params: { id }, body: { ...body, note: "Smiled." } });
  const [reading] = await house.ask(listReadings, { params: { id: childId } });
  expect(reading).toMatchObject({ id, day: "2026-11-27", note: "Smiled." });
});

test("a zone that there is not is refused, and the one before stays", async () => {
  await setZone("Europe/London");
  const problem = await house.refused(setTimeZone, { body: { version: 1, timeZone: "Marlpit/Lock" } });
  expect(problem).toMatchObject({ status: 422, fields: [{ field: "timeZone" }] });
  expect(await house.ask(getSchool, {})).toMatchObject({ timeZone: "Europe/London", zoneChosen: true });
});
