import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  eraseChild,
  exportChild,
  getSchool,
  listReadings,
  listTexts,
  type ReadingBody,
  saveReading,
  traces,
} from "#contract";
import { scoreReading } from "#core/reading";
import { openTestHouse, type TestHouse } from "./testing.ts";

let house: TestHouse;
const [ada, ben] = [uuid(), uuid()] as const;
const body = (change: Partial<ReadingBody> = {}): ReadingBody => ({
  childId: ada,
  textId: "tin-tips",
  title: "The Tin Tips",
  text: "A tin sat on top. The tin tips.",
  marks: [
    { at: 1, kind: "misread", heard: "ten" },
    { at: 7, kind: "told", heard: null },
  ],
  stoppedAt: null,
  ms: 12_000,
  voice: { phrases: 3, stops: null, pace: 2, expression: null },
  understanding: [{ ask: "What tips?", mark: "right", lookedBack: true }],
  note: "",
  readAt: "2026-11-20T08:50:00.000Z",
  day: "2026-11-20",
  markedBy: "Ms Harrow",
  ...change,
});
const readings = () => house.ask(listReadings, { params: { id: ada } });
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  const classId = uuid();
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
});
afterAll(() => house.close());

test("36 texts and more are served, each with its own address", async () => {
  const texts = await house.ask(listTexts, {});
  expect(texts.length).toBeGreaterThanOrEqual(36);
  expect(new Set(texts.map((text) => text.id)).size).toBe(texts.length);
  expect(texts[0]?.id).toBe("mop-the-mat");
});

test("a reading is kept whole with the version that was read, comes back the same, and scores the same", async () => {
  const id = uuid();
  for (let times = 0; times < 2; times++)
    expect(await house.ask(saveReading, { params: { id }, body: body() })).toEqual({ id, ...body() });
  const [kept] = await readings();
  expect(kept).toEqual({ id, ...body() });
  expect(scoreReading(kept as ReadingBody)).toMatchObject({ wordsRead: 8, wordsCorrect: 6, correctPerMinute: 30 });
  const typed = body({ marks: [{ at: 1, kind: "misread", heard: "tan" }], note: "with a finger under the line" });
  await house.ask(saveReading, { params: { id }, body: typed });
  expect(await readings()).toEqual([{ id, ...typed }]);
  await house.ask(saveReading, { params: { id: uuid() }, body: body({ readAt: "2026-11-20T08:40:00.000Z" }) });
  expect((await readings()).map((one) => one.readAt)).toEqual([
    "2026-11-20T08:50:00.000Z",
    "2026-11-20T08:40:00.000Z",
  ]);
});

test.each<[string, () => Partial<ReadingBody>, RegExp]>([
  ["a mark at no word", () => ({ marks: [{ at: 8, kind: "told", heard: null }] }), /does not have/],
  ["a stop behind the end", () => ({ stoppedAt: 8 }), /does not have/],
  ["a text without words", () => ({ text: " ... ", marks: [] }), /no words/],
  ["a time to come", () => ({ readAt: "2026-11-20T12:00:00.000Z" }), /ahead/],
])("refuses %s and keeps nothing", async (_, change, says) => {
  const before = await readings();
  expect((await house.refused(saveReading, { params: { id: uuid() }, body: body(change()) })).detail).toMatch(says);
  expect(await readings()).toEqual(before);
});

test("a reading stays with its child, an unknown child has none", async () => {
  const [kept] = await readings();
  const other = await house.refused(saveReading, { params: { id: kept?.id ?? "" }, body: body({ childId: ben }) });
  expect(other.detail).toMatch(/another child/);
  expect((await house.refused(listReadings, { params: { id: uuid() } })).status).toBe(404);
  expect((await house.refused(saveReading, { params: { id: uuid() }, body: body({ childId: uuid() }) })).status).toBe(
    404,
  );
});

test("readings are exported with the child, counted, and gone when it is erased", async () => {
  expect((await house.ask(exportChild, { params: { id: ada } })).readings).toHaveLength(2);
  expect(await house.ask(traces, { params: { id: ada } })).toMatchObject({ readings: 2 });
  await house.ask(eraseChild, { params: { id: ada } });
  expect((await house.refused(listReadings, { params: { id: ada } })).status).toBe(404);
});
