import { randomUUID as uuid } from "node:crypto";
import { formatISO, parseISO, subDays } from "date-fns";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addChild, addClass, getOtherNeeds, getSchool, saveReading, setReadingSettings } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { readingOf } from "../testing-school.ts";

/** The rate in texts as a need, from the readings and the aims of the school. */

let house: TestHouse;
const [classId, childId] = [uuid(), uuid()];
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 2", orderId } });
  await house.ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
});
afterAll(() => house.close());

const rates = async () =>
  (await house.ask(getOtherNeeds, { query: { classId } })).children.flatMap(({ needs }) =>
    needs.filter(({ kind }) => kind === "rate"),
  );
/** Four words, right, in so many seconds. */
const read = (day: string, seconds: number, id = uuid()) =>
  house.ask(saveReading, {
    params: { id },
    body: { ...readingOf(childId, "Mud"), day, readAt: `${day}T09:00:00.000Z`, ms: seconds * 1000 },
  });

test("texts that come right and too slowly are a need, until one is as fast as the school wishes, and by its aims", async () => {
  const { today, version, reading } = await house.ask(getSchool, {});
  const dayOf = (back: number) => formatISO(subDays(parseISO(today), back), { representation: "date" });
  await read(dayOf(9), 12);
  expect(await rates()).toEqual([]);
  await read(dayOf(5), 10);
  const [found, ...more] = await rates();
  expect(more).toEqual([]);
  expect(found).toMatchObject({
    id: "rate texts",
    name: "the rate in texts",
    misses: 2,
    answers: 2,
    lastDay: dayOf(5),
  });
  expect(found?.items[0]).toMatch(/^“Mud title”: 24 words a minute, \d+ are the aim$/);

  const fast = uuid();
  await read(dayOf(2), 2, fast);
  expect(await rates()).toEqual([]);
  // The same words in another time: nothing is other in the log.
  await read(dayOf(2), 11, fast);
  expect(await rates()).toHaveLength(1);

  const aims = [{ yearGroup: "Year 2", start: 20, middle: 20, end: 20 }];
  await house.ask(setReadingSettings, { body: { version, reading: { ...reading, aims } } });
  expect(await rates()).toEqual([]);
});
