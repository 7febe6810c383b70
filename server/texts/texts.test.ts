import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  eraseChild,
  getPreparation,
  getSchool,
  listTexts,
  type PreparationBody,
  removeText,
  savePreparation,
  saveText,
  type TextContentBody,
  textVersions,
} from "#contract";
import * as schema from "../store/schema.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

/** When no removal can be taken back any more. */
const LATER = "2027-01-01T00:00:00.000Z";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const content = (change: Partial<TextContentBody> = {}): TextContentBody => ({
  title: "Fog on the cut",
  exceptions: [],
  body: "Fog sat on the cut.\n\nA duck hid in it.",
  questions: [{ kind: "who", depth: "found", ask: "Who hid?", answers: ["a duck"], where: "A duck hid" }],
  words: [{ word: "fog", means: "cloud near the ground" }],
  ...change,
});
const put = (id: string, version: number, change: Partial<TextContentBody> = {}) => ({
  params: { id },
  body: { content: content(change), version, savedAt: "2026-11-20T08:00:00.000Z", savedBy: "Ms Harrow" },
});
const own = async () => (await house.ask(listTexts, {})).filter((text) => text.own);

describe("a text of the school's own", () => {
  const id = uuid();
  test("is kept, stands behind those that ship, and the same words again change nothing", async () => {
    for (const version of [0, 0, 1])
      expect(await house.ask(saveText, put(id, version))).toEqual({ id, own: true, version: 1, ...content() });
    const all = await house.ask(listTexts, {});
    expect(all.at(-1)).toEqual({ id, own: true, version: 1, ...content() });
    expect(all.filter((text) => !text.own).length).toBeGreaterThanOrEqual(36);
  });
  test("an edit is the next version; every version before is kept", async () => {
    await house.ask(saveText, put(id, 1, { body: "Fog sat on the lock.", questions: [] }));
    expect(await own()).toMatchObject([{ version: 2, body: "Fog sat on the lock." }]);
    const versions = await house.ask(textVersions, { params: { id } });
    expect(versions.map(({ version, content: one }) => [version, one.body])).toEqual([
      [2, "Fog sat on the lock."],
      [1, content().body],
    ]);
  });
  test("an edit of an older version is refused and writes nothing over", async () => {
    const refused = await house.refused(saveText, put(id, 1, { title: "Mist" }));
    expect(refused).toMatchObject({
      status: 409,
      detail: expect.stringMatching(/changed this text meanwhile/),
      both: { version: 2, mine: { content: { title: "Mist" } }, theirs: { content: { title: "Fog on the cut" } } },
    });
    expect(await own()).toMatchObject([{ version: 2, title: "Fog on the cut" }]);
  });
  test("two edits at once: one is kept, the other told", async () => {
    const tries = await Promise.allSettled(["One", "Two"].map((title) => house.ask(saveText, put(id, 2, { title }))));
    expect(tries.filter((one) => one.status === "fulfilled")).toHaveLength(1);
    expect(await own()).toMatchObject([{ version: 3 }]);
  });
  test("markup is kept as it is written", async () => {
    const body = "<script>alert(1)</script> A duck & a hen.";
    const script = uuid();
    await house.ask(saveText, put(script, 0, { title: "<b>Duck</b>", body, questions: [] }));
    expect((await own()).find((text) => text.id === script)).toMatchObject({ title: "<b>Duck</b>", body });
    await house.ask(removeText, { params: { id: script } });
  });
  test.each<[string, Partial<TextContentBody>, RegExp]>([
    ["without a word", { body: "… 🙂", questions: [] }, /at least one sentence/],
    ["in another script", { body: "Это дом.", questions: [] }, /Latin/],
    ["with an endless word", { body: "a".repeat(60), questions: [] }, /more than 40 letters/],
    ["without a title", { title: "" }, /title/],
    ["that is too long", { body: "a cat ".repeat(4000) }, /At most 20000/],
  ])("%s is refused with the reason", async (_, change, says) => {
    const before = await own();
    expect((await house.refused(saveText, put(uuid(), 0, change))).detail).toMatch(says);
    expect(await own()).toEqual(before);
  });
  test("two megabytes are refused in words", async () => {
    const refused = await house.refused(saveText, put(uuid(), 0, { body: "a cat ".repeat(350_000) }));
    expect(refused).toMatchObject({ status: 413, detail: expect.stringMatching(/Nothing was changed/) });
  });
  test("is removed with its versions; one that ships is not", async () => {
    await house.ask(removeText, { params: { id } });
    expect(await own()).toEqual([]);
    await house.school.texts.forgetRemoved(LATER);
    expect(await house.store.owner.select().from(schema.textVersions)).toEqual([]);
    expect((await house.refused(removeText, { params: { id } })).status).toBe(404);
    expect((await house.refused(textVersions, { params: { id } })).status).toBe(404);
    expect((await house.refused(saveText, put(id, 3))).detail).toMatch(/not here any more/);
  });
});

describe("what was prepared", () => {
  const prepared: PreparationBody = {
    focus: ["oa=oa"],
    first: ["boat", "goat"],
    longer: ["frozen"],
    wholes: ["old"],
    meanings: [{ word: "oak", means: "a strong hard wood" }],
    watch: ["Cole speaks."],
    note: "Show a picture of a lock.",
  };
  const at = (forKey: string, textId = "the-slow-boat") => ({ params: { textId, forKey } });
  const keptFor = async (forKey: string) => (await house.ask(getPreparation, at(forKey))).preparation;
  test("is kept for these readers and no others, and taken back", async () => {
    const group = `group:${uuid()}`;
    expect(await keptFor(group)).toBeNull();
    for (let times = 0; times < 2; times++)
      await house.ask(savePreparation, { ...at(group), body: { version: 0, preparation: prepared } });
    const other = { version: 0, preparation: { ...prepared, note: "Mine." } };
    expect((await house.refused(savePreparation, { ...at(group), body: other })).both?.theirs).toEqual({
      preparation: prepared,
    });
    expect(await keptFor(group)).toEqual(prepared);
    expect(await keptFor("all")).toBeNull();
    await house.ask(savePreparation, {
      ...at(group),
      body: { version: (await house.ask(getPreparation, at(group))).version, preparation: null },
    });
    expect(await keptFor(group)).toBeNull();
  });
  test("of an own text goes with the text, of a child with the child", async () => {
    const id = uuid();
    await house.ask(saveText, put(id, 0));
    await house.ask(savePreparation, { ...at("all", id), body: { version: 0, preparation: prepared } });
    await house.ask(removeText, { params: { id } });
    const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
    const [classId, childId] = [uuid(), uuid()];
    await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
    await house.ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
    await house.ask(savePreparation, { ...at(`child:${childId}`), body: { version: 0, preparation: prepared } });
    await house.ask(eraseChild, { params: { id: childId } });
    await house.school.texts.forgetRemoved(LATER);
    const rows = await house.store.owner.select().from(schema.preparations);
    expect(rows.filter((row) => row.textId === id || row.forKey === `child:${childId}`)).toEqual([]);
  });
  test("is refused for a text, a child or a group that is none", async () => {
    const body = { version: 0, preparation: prepared };
    expect((await house.refused(savePreparation, { ...at("all", "no-such-text"), body })).status).toBe(404);
    expect((await house.refused(savePreparation, { ...at(`child:${uuid()}`), body })).status).toBe(404);
    expect((await house.refused(savePreparation, { ...at("everyone"), body })).status).toBe(404);
  });
});
