import { randomUUID as uuid } from "node:crypto";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  eraseChild,
  evidence,
  exportChild,
  getChild,
  getGaps,
  getSchool,
  listReadings,
  listTexts,
  markTaught,
  type ReadingBody,
  readingFigures,
  saveAnswers,
  saveGroup,
  saveReading,
  setReadingSettings,
  startSitting,
  traces,
} from "#contract";
import { standing } from "#core/ledger";
import { cellAt } from "#core/mastery";
import { answersInText, scoreReading, startingReadingSettings } from "#core/reading";
import { begin, beginOne, markAll, part } from "../checks/marking.ts";
import * as schema from "../store/schema.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [ada, ben, cy] = [uuid(), uuid(), uuid()] as const;
const classId = uuid();
const body = (change: Partial<ReadingBody> = {}): ReadingBody => ({
  childId: ada,
  how: "alone",
  textId: "tin-tips",
  title: "The Tin Tips",
  text: "A tin sat on top. The tin tips.",
  marks: [
    { at: 1, kind: "misread", heard: "ten" },
    { at: 7, kind: "told", heard: null },
  ],
  stoppedAt: null,
  ms: 12_000,
  turns: [{ at: 5, ms: 7000 }],
  fit: 0.875,
  voice: { phrases: 3, stops: null, pace: 2, expression: null },
  understanding: [{ ask: "What tips?", mark: "right", lookedBack: true }],
  note: "",
  readAt: "2026-11-20T08:50:00.000Z",
  day: "2026-11-20",
  markedBy: "Ms Harrow",
  ...change,
});
const sittingOf = (childId: string, scope: "due" | "all") => ({
  id: uuid(),
  name: "Check",
  sections: [part("card", { scope })],
  children: [{ childId, seed: 3, checkIds: [uuid()] }],
  startedAt: "2026-11-20T08:00:00.000Z",
});
const readings = () => house.ask(listReadings, { params: { id: ada } });
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s3", taughtOn: "2026-11-02", at: "2026-11-20T08:00:00.000Z" },
  });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
    [cy, "Cy R."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
});
afterAll(() => house.close());

test("36 texts and more are served, each with its own address", async () => {
  const texts = await house.ask(listTexts, {});
  expect(texts.length).toBeGreaterThanOrEqual(36);
  expect(new Set(texts.map((text) => text.id)).size).toBe(texts.length);
  expect(texts[0]?.id).toBe("ants-on-the-sand");
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
  ["a line that begins at no word", () => ({ turns: [{ at: 8, ms: 1 }] }), /does not have/],
  ["a time for a text that was read together", () => ({ how: "together" as const }), /no time/],
  ["a stop behind the end", () => ({ stoppedAt: 8 }), /does not have/],
  ["a text without words", () => ({ text: " ... ", marks: [] }), /no words/],
  ["a time to come", () => ({ readAt: "2026-11-20T12:00:00.000Z" }), /ahead/],
])("refuses %s and keeps nothing", async (_, change, says) => {
  const before = await readings();
  expect((await house.refused(saveReading, { params: { id: uuid() }, body: body(change()) })).detail).toMatch(says);
  expect(await readings()).toEqual(before);
});

describe("what went wrong in a text", () => {
  const id = uuid();
  const put = (change: Partial<ReadingBody>) =>
    house.ask(saveReading, {
      params: { id },
      body: body({ childId: cy, readAt: "2026-11-20T08:00:00.000Z", ...change }),
    });
  const misread = (at: number, heard: string | null) => ({ at, kind: "misread" as const, heard });
  const log = async () => (await house.ask(exportChild, { params: { id: cy } })).answers;
  /** What stands of the readings of the log, word by word: item, outcome and what was said. */
  const stands = async () => {
    const wanted = { lexicon: house.shipped.lexicon };
    return standing(await log(), { inText: (entry) => answersInText(entry, wanted) }).map((entry) => [
      entry.item,
      entry.outcome,
      "heard" in entry ? entry.heard : null,
      entry.source.kind === "reading" ? entry.source.readingId : null,
    ]);
  };

  test("is one entry of the log, follows what is typed in later, and never loses an entry", async () => {
    await put({ marks: [misread(1, null), { at: 6, kind: "told", heard: null }] });
    expect(await stands()).toEqual([
      ["t i n", "wrong", null, id],
      ["t i n", "none", null, id],
    ]);
    const typed = { marks: [misread(1, "ten"), { at: 6, kind: "told" as const, heard: null }] };
    await put(typed);
    const after = await log();
    expect(await stands()).toEqual([
      ["t i n", "wrong", "ten", id],
      ["t i n", "none", null, id],
    ]);
    await put(typed);
    expect(await log()).toEqual(after);
    // The reading, taken back, and the reading as it was typed.
    expect(after.map((entry) => entry.outcome).sort()).toEqual(["reading", "reading", "void"]);
    await put({ marks: [] });
    expect(await stands()).toEqual([]);
  });
  test("counts among the confusions, moves the map, and goes with the reading's marks", async () => {
    const cell = async () => {
      const map = await house.ask(getGaps, { query: { classId } });
      const at = map.columns.findIndex((column) => column.gpc === "i=i");
      return cellAt(map.rows.find((row) => row.id === cy)?.cells ?? "", at);
    };
    // Each word that was read right speaks for its spellings, a little.
    const { chance: clean } = await cell();
    await put({ marks: [misread(1, "ten")] });
    const { chance: once } = await cell();
    expect(once).toBeLessThan(clean);
    expect((await house.ask(getChild, { params: { id: cy } })).confusions).toMatchObject([
      { asked: "i", given: "e", count: 1, items: ["tin"] },
    ]);
    await put({ marks: [misread(1, "ten"), misread(7, "teps")] });
    const { chance: twice } = await cell();
    expect(twice).toBeLessThan(once);
    const { why, pieces } = await house.ask(evidence, { params: { id: cy }, query: { gpc: "i=i" } });
    expect(why).toMatch(/^\d+% likely to be said at sight today/);
    const says = pieces.map((piece) => piece.says);
    expect(says).toContain("went wrong in “tin” in a text, read as “ten”");
    expect(says).toContain("went wrong in “tips” in a text, read as “teps”");
    await put({ marks: [misread(1, "ten"), misread(7, "teps"), { at: 7, kind: "putRight", heard: null }] });
    expect((await cell()).chance).toBeGreaterThan(twice);
  });
  test("what was secure on cards comes into the deck of what is due again; a check is not compared with a text", async () => {
    const dy = uuid();
    await house.ask(addChild, { body: { id: dy, classId, name: "Dy S.", note: "" } });
    for (const day of ["2026-11-10", "2026-11-17"]) {
      const check = await beginOne(house, dy, { scope: "all" }, `${day}T08:00:00.000Z`);
      await markAll(house, check, () => ({ outcome: "right" }), { day, markedAt: `${day}T08:05:00.000Z` });
    }
    const due = async () => (await beginOne(house, dy, { scope: "due" })).items;
    expect(await house.refused(startSitting, { body: sittingOf(dy, "due") })).toMatchObject({ status: 422 });
    const marks = [misread(1, "ten"), misread(7, "teps")];
    await house.ask(saveReading, { params: { id: uuid() }, body: body({ childId: dy, marks }) });
    expect(await due()).toEqual(["i=i"]);
    const words = await begin(house, [dy], [part("words", { scope: "picked", picked: ["t i n", "t i p"] })]);
    expect(words.checks[0]?.before).toEqual([]);
  });
  test("no one but the server writes it", async () => {
    await put({ marks: [misread(1, "ten")] });
    const entry = (await log()).find((one) => one.outcome === "reading");
    if (entry?.outcome !== "reading") throw new Error("no entry");
    const { refused } = await house.ask(saveAnswers, { body: { answers: [{ ...entry, id: uuid() }] } });
    expect(refused[0]?.says).toMatch(/needs the check/);
  });
  test("what stopped a group together is not one child's", async () => {
    await put({ how: "together", ms: null, marks: [misread(1, "ten")] });
    expect(await stands()).toEqual([]);
  });
  test("goes with the child", async () => {
    await put({ marks: [misread(1, "ten")] });
    await house.ask(eraseChild, { params: { id: cy } });
    const rows = await house.store.owner.select().from(schema.answers).where(eq(schema.answers.childId, cy));
    expect(rows).toEqual([]);
  });
});

describe("the figures of a class and of a group", () => {
  test("are those of each reading, without its text; one done together has none", async () => {
    const id = uuid();
    await house.ask(saveReading, {
      params: { id },
      body: body({ childId: ben, how: "together", ms: null, marks: [] }),
    });
    const figures = await house.ask(readingFigures, { query: { classId } });
    expect(figures.filter((one) => one.name === "Ada M.")).toHaveLength(2);
    expect(figures.find((one) => one.id === id)).toEqual({
      id,
      childId: ben,
      name: "Ben T.",
      title: "The Tin Tips",
      day: "2026-11-20",
      how: "together",
      fit: 0.875,
      correctPerMinute: null,
      accuracy: null,
    });
    expect(figures[0]).not.toHaveProperty("text");
    const groupId = uuid();
    const saved = { versionId: uuid(), version: 0, name: "Reeds", at: "2026-11-20T08:00:00.000Z", targets: [] };
    await house.ask(saveGroup, {
      params: { id: groupId },
      body: { ...saved, members: [{ childId: ben, locked: false }] },
    });
    expect((await house.ask(readingFigures, { query: { groupId } })).map((one) => one.id)).toEqual([id]);
  });
  test("one of the two must be asked for, and be there", async () => {
    expect((await house.refused(readingFigures, { query: {} })).detail).toMatch(/one class or one group/);
    expect((await house.refused(readingFigures, { query: { groupId: uuid() } })).status).toBe(404);
  });
});

describe("what readings are measured against", () => {
  const settings = {
    teaching: 92,
    easy: 97,
    wait: 5,
    yearBegins: 8,
    aims: [{ yearGroup: "Year 2", start: 30, middle: 45, end: 60 }],
  };
  test("is as it ships until the school sets its own", async () => {
    expect((await house.ask(getSchool, {})).reading).toEqual(startingReadingSettings);
    await house.ask(setReadingSettings, { body: { version: 1, reading: settings } });
    expect((await house.ask(getSchool, {})).reading).toEqual(settings);
  });
  test.each([
    ["easy below teaching", { easy: 80 }, /Easy begins/],
    [
      "a year group twice",
      { aims: [...settings.aims, { yearGroup: "year 2", start: 1, middle: 2, end: 3 }] },
      /one line of aims/,
    ],
    ["a month that is none", { yearBegins: 13 }, /yearBegins/],
  ])("refuses %s", async (_, change, says) => {
    const refused = await house.refused(setReadingSettings, {
      body: { version: 2, reading: { ...settings, ...change } },
    });
    expect(refused.detail).toMatch(says);
    expect((await house.ask(getSchool, {})).reading).toEqual(settings);
  });
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
