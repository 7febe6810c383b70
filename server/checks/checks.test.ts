import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  type AnswerBody,
  addChild,
  addClass,
  type CheckView,
  eraseChild,
  evidence,
  exportChild,
  getChild,
  getGaps,
  getSchool,
  getSession,
  getSitting,
  listPresets,
  markTaught,
  type PresetView,
  planNewSession,
  previewSitting,
  removePreset,
  reportSession,
  saveAnswers,
  saveGroup,
  savePreset,
  setCheckSettings,
  shareSession,
  startSitting,
  traces,
} from "#contract";
import { asSheet, blockIds, defaultSettings, summarise } from "#core/checks";
import { kindIds, standing } from "#core/ledger";
import { childRow, codeOf, dayNumber, knownBy, type Lessons, shipped, startingSecureWhen } from "#core/mastery";
import { readWordItem } from "#core/words";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { answerTo, begin, beginOne, markAll, part, stopOf } from "./marking.ts";

let house: TestHouse;
const classId = uuid();
const ada = uuid();
const ben = uuid();
let check: CheckView;
let sittingId = "";
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
  const sitting = await begin(house, [ada], [part("card")], startedAt);
  sittingId = sitting.id;
  check = sitting.checks[0] as CheckView;
});
afterAll(() => house.close());

const given = (item: string, outcome: "right" | "none", change: Partial<AnswerBody> = {}): AnswerBody =>
  answerTo(check, item, { outcome }, { markedAt: "2026-11-20T08:31:00.000Z", ...change });
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
const sitting = (id = sittingId) => house.ask(getSitting, { params: { id } });
const log = async () => (await sitting()).checks[0]?.answers ?? [];

describe("a check", () => {
  test("is dealt from what is taught; begun twice it is the same check", async () => {
    // Nothing was asked yet: all is as doubtful, and what was taught last matters most.
    expect(check.items).toEqual(["m=m", "i=i", "n=n", "d=d", "a=a", "s=s", "p=p", "o=o", "t=t"]);
    const before = await sitting();
    const other = {
      id: sittingId,
      name: "Other",
      sections: [part("words")],
      children: [{ childId: ben, seed: 99, checkIds: [uuid()] }],
      startedAt,
    };
    expect((await house.refused(startSitting, { body: other })).status).toBe(409);
    expect(await sitting()).toEqual(before);
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
    ["an item that is not in the check", () => given("sh=sh", "right"), /not in the check/],
    ["a note on an item that is not in it", () => note("sh=sh"), /not in the check/],
    [
      "an answer of another kind",
      () => given("t=t", "right", { kind: "write" } as never),
      /another kind: Spelling cards/,
    ],
    [
      "a time before the check",
      () => given("t=t", "right", { markedAt: "2026-11-20T08:00:00.000Z" }),
      /before the check/,
    ],
    ["a time to come", () => given("t=t", "right", { markedAt: "2026-11-20T10:00:00.000Z" }), /ahead/],
    ["a foreign child", () => given("t=t", "right", { childId: ben }), /another child/],
    ["no child", () => given("t=t", "right", { childId: uuid() }), /not here/],
    [
      "no check",
      () => given("t=t", "right", { source: { kind: "check", checkId: uuid() } } as never),
      /check is not here/,
    ],
    ["undo of nothing", () => undo(uuid()), /not in the log/],
    ["an end of another child's check", () => ({ ...stopOf(check), childId: ben }), /another child/],
  ])("refuses %s, and keeps what came with it", async (_, bad, says) => {
    const before = (await log()).length;
    const good = given("d=d", "right");
    const answer = await send(bad(), good);
    expect(answer.saved).toEqual([good.id]);
    expect(answer.refused[0]?.says).toMatch(says);
    expect(await log()).toHaveLength(before + 1);
    await send(undo(good.id));
  });
  const note = (item: string | null): AnswerBody => ({
    id: uuid(),
    childId: ada,
    source: { kind: "check", checkId: check.id },
    outcome: "note",
    item,
    text: "Ben helped her",
    markedAt: "2026-11-20T08:33:00.000Z",
    day: "2026-11-20",
    markedBy: "Ms Harrow",
  });
  test("takes notes and an end; the end can be taken back, and answers that come late still count", async () => {
    const end = stopOf(check, "2026-11-20T08:40:00.000Z");
    await send(note(null), note("a=a"), end);
    expect(await sitting()).toMatchObject({ endedAt: "2026-11-20T08:40:00.000Z" });
    await send(undo(end.id, { markedAt: "2026-11-20T08:41:00.000Z" }));
    expect((await sitting()).endedAt).toBeNull();
    const late = given("t=t", "right", { markedAt: "2026-11-20T08:45:00.000Z" });
    await send(stopOf(check, "2026-11-20T08:44:00.000Z"), late);
    expect((await sitting()).endedAt).toBe("2026-11-20T08:44:00.000Z");
    expect((await log()).map((entry) => entry.id)).toContain(late.id);
  });
  test("what is secure is not due", async () => {
    const second = await beginOne(house, ada, { scope: "picked", picked: ["a=a"] }, "2026-11-20T08:55:00.000Z");
    house.now = new Date("2026-11-21T09:00:00.000Z");
    expect(second.before).toEqual([{ item: "a=a", outcome: "right" }]);
    await markAll(house, second, () => ({ outcome: "right" }), {
      markedAt: "2026-11-21T08:56:00.000Z",
    });
    const due = await beginOne(house, ada, { scope: "due" }, "2026-11-21T08:58:00.000Z");
    expect(due.items).not.toContain("a=a");
    expect((await house.ask(evidence, { params: { id: ada }, query: { gpc: "a=a" } })).state).toBe("secure");
    house.now = new Date("2026-11-20T09:00:00.000Z");
  });
  test("replaying the log gives the map that is served", async () => {
    const map = await house.ask(getGaps, { query: {} });
    const { answers } = await house.ask(exportChild, { params: { id: ada } });
    const since = new Map(
      ["t=t", "o=o", "p=p", "s=s", "a=a", "d=d", "n=n", "i=i", "m=m"].map((gpc) => [gpc, dayNumber("2026-11-02")]),
    );
    const lessons: Lessons = { taughtOn: (thing) => since.get(thing), sessions: () => [] };
    const by = { lessons, p: shipped, secureWhen: startingSecureWhen };
    const words = { lexicon: house.shipped.lexicon };
    const row = childRow(
      knownBy(standing(answers, { slowAfterMs: 3000 }), { ...by, words }),
      map.columns.map((column) => column.gpc),
      map.today,
      by,
    );
    expect(map.rows.find((one) => one.id === ada)?.cells).toBe(row.map(codeOf).join(""));
  });
});

describe("a sitting", () => {
  test("has the parts of a plan for each child in turn, and says how many items and minutes before it begins", async () => {
    const sections = [
      part("card", { scope: "all" }),
      part("words", { blocks: blockIds }),
      part("exception", { scope: "picked", picked: [] }),
    ];
    const { children } = await house.ask(previewSitting, { body: { childIds: [ben, ada], sections } });
    expect(children.map((child) => child.id)).toEqual([ben, ada]);
    expect(children[0]?.parts[0]).toEqual({ items: 9, minutes: 0.6, ownPace: false });
    const made = await begin(house, [ben, ada], sections);
    expect(made.children.map((child) => child.name)).toEqual(["Ben T.", "Ada M."]);
    expect(made.checks.map((one) => [one.childId === ben, one.kind])).toEqual([
      [true, "card"],
      [true, "words"],
      [false, "card"],
      [false, "words"],
    ]);
    expect(made.checks.map((one) => one.items.length)).toEqual(
      children.flatMap((child) => child.parts.map((one) => one.items)).filter((count) => count > 0),
    );
    for (const item of made.checks[1]?.items ?? [])
      for (const { grapheme } of readWordItem(item).units) expect("amtdopsin").toContain(grapheme[0]);
  });
  test("every kind can be begun, marked and seen", async () => {
    for (const kind of kindIds) {
      // Of what was taught there, nothing is written in two ways.
      const all = { scope: kind === "choose" ? "picked" : "all", most: 4, picked: ["c=k", "k=k", "ck=k"] } as const;
      const { id, checks } = await begin(house, [ben], [part(kind, all)]);
      const one = checks[0] as CheckView;
      if (kind === "exception" && !one) continue;
      await markAll(house, one, () => ({ outcome: "none" }));
      const seen = (await sitting(id)).checks[0] as CheckView;
      expect(seen.answers, kind).toHaveLength(seen.items.length);
    }
  });
  test("a kind that needs more than what was taught says so", async () => {
    const [name, startedAt] = ["Look", "2026-11-20T08:30:00.000Z"];
    const children = [{ childId: ben, seed: 1, checkIds: [uuid()] }];
    const sections = [part("choose", { scope: "all" })];
    const refused = await house.refused(startSitting, { body: { id: uuid(), name, sections, children, startedAt } });
    expect([refused.status, refused.detail]).toEqual([422, expect.stringContaining("two ways of writing")]);
  });
  test("on paper all have the same items, and neighbours another order of choices", async () => {
    const { checks } = await begin(house, [ada, ben], [part("paper", { scope: "all", most: 4 })]);
    expect(checks[0]?.items).toEqual(checks[1]?.items);
    const [a, b] = checks.map((one) => asSheet(one.setup));
    expect(a?.sheet).toEqual(b?.sheet);
    expect([a?.version, b?.version]).toEqual(["A", "B"]);
  });
  test("a misread word comes back explained from what was stored", async () => {
    const { id, checks } = await begin(
      house,
      [ben],
      [part("words", { scope: "picked", picked: ["s t o p", "?m o p t"] })],
    );
    const one = checks[0] as CheckView;
    await send(
      answerTo(one, "s t o p", { outcome: "wrong", heard: "/t o p/" }),
      answerTo(one, "?m o p t", { outcome: "sounded" }),
    );
    const seen = (await sitting(id)).checks[0] as CheckView;
    const result = summarise({
      kind: "words",
      answers: standing(seen.answers),
      before: new Map(),
      lexicon: house.shipped.lexicon,
      setup: seen.setup,
    });
    expect(result.parts).toEqual([{ gpc: "s=s", count: 1, items: ["stop"] }]);
    expect(result.effort.map((told) => told.shows)).toEqual(["mopt"]);
  });
  test("confusions of all kinds are counted for the child", async () => {
    const { checks } = await begin(house, [ben], [part("write", { scope: "picked", picked: ["d=d"] })]);
    await send(answerTo(checks[0] as CheckView, "d=d", { outcome: "wrong", heard: "b" }));
    const { confusions, checks: listed } = await house.ask(getChild, { params: { id: ben } });
    expect(confusions).toContainEqual(expect.objectContaining({ asked: "d", given: "b", of: "spelling", count: 1 }));
    expect(listed.some((one) => one.kind === "write" && one.asked === 1)).toBe(true);
  });
  test("the best minute before is known", async () => {
    const minute = { scope: "all", form: "minute" } as const;
    const first = await beginOne(house, ben, minute);
    expect(first.best).toBeNull();
    await markAll(house, first, (item) => ({ outcome: item === "a=a" ? "none" : "right" }));
    expect((await beginOne(house, ben, minute, "2026-11-20T08:30:00.000Z")).best).toBe(8);
  });
  test.each<[string, object, RegExp]>([
    ["an unknown spelling", { sections: [part("card", { scope: "picked", picked: ["zq=k"] })] }, /not a spelling/],
    [
      "what is no word",
      { sections: [part("words", { scope: "picked", picked: ["zz qq"] })] },
      /no item of Read words/,
    ],
    ["nothing to ask", { sections: [part("card", { scope: "picked", picked: [] })] }, /nothing to ask/],
    ["too few ids", { children: [{ childId: ada, seed: 1, checkIds: [] }] }, /needs an id/],
    ["a child twice", { children: [ada, ada].map((childId) => ({ childId, seed: 1, checkIds: [uuid()] })) }, /twice/],
    ["no such child", { children: [{ childId: uuid(), seed: 1, checkIds: [uuid()] }] }, /not here/],
    ["a time to come", { startedAt: "2026-11-20T12:00:00.000Z" }, /ahead/],
  ])("refuses %s", async (_, change, says) => {
    const children = [{ childId: ada, seed: 1, checkIds: [uuid()] }];
    const body = {
      id: uuid(),
      name: "Odd",
      sections: [part("card", { scope: "all" })],
      children,
      startedAt,
      ...change,
    };
    expect((await house.refused(startSitting, { body })).detail).toMatch(says);
  });
});

describe("the school's way", () => {
  test("settings come with the school and with every check", async () => {
    expect((await house.ask(getSchool, {})).checks).toEqual(defaultSettings);
    const body = { ...defaultSettings, answerForm: "nameSound", madeUp: false, slowAfter: 0 } as const;
    await house.ask(setCheckSettings, { body: { version: 1, checks: body } });
    expect((await sitting()).settings).toEqual(body);
    const { checks } = await begin(house, [ben], [part("words", { scope: "all" })]);
    expect(checks[0]?.items.some((item) => item.startsWith("?"))).toBe(false);
    await house.ask(setCheckSettings, { body: { version: 2, checks: defaultSettings } });
    expect(
      (await house.refused(setCheckSettings, { body: { version: 3, checks: { ...body, slowAfter: -1 } } })).status,
    ).toBe(422);
  });
  test("plans are kept, changed and removed; those that ship stay", async () => {
    const id = uuid();
    const plans = () => house.ask(listPresets, {});
    const [first] = (await plans()) as [PresetView];
    const body = { name: "Monday", purpose: "", sections: [part("find")] };
    const save = (change: object, version: number) => ({ params: { id }, body: { ...body, version, ...change } });
    for (let times = 0; times < 2; times++) await house.ask(savePreset, save({}, 0));
    await house.ask(savePreset, save({ purpose: "After the weekend." }, 1));
    const late = await house.refused(savePreset, save({ name: "Tuesday" }, 1));
    expect(late).toMatchObject({
      status: 409,
      both: { version: 2, theirs: { name: "Monday" }, mine: { name: "Tuesday" } },
    });
    expect((await plans()).at(-1)).toEqual({
      id,
      shipped: false,
      ...body,
      version: 2,
      purpose: "After the weekend.",
    });
    expect((await house.refused(savePreset, { ...save({}, 1), params: { id: first.id } })).detail).toMatch(/ships/);
    expect((await house.refused(savePreset, save({ sections: [] }, 2))).fields).toHaveLength(1);
    await house.ask(removePreset, { params: { id } });
    expect((await house.refused(removePreset, { params: { id } })).status).toBe(404);
  });
});

test("erasing a child leaves no row behind in any table", async () => {
  const groupId = uuid();
  const sessionId = uuid();
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: {
      versionId: uuid(),
      version: 0,
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
  });
  const helped = await beginOne(house, ben);
  const told = {
    id: uuid(),
    childId: ben,
    source: { kind: "check" as const, checkId: helped.id },
    outcome: "note",
    item: null,
  } as const;
  const when = { markedAt: "2026-11-20T08:20:00.000Z", day: "2026-11-20", markedBy: "Ms Harrow" };
  await send({ ...told, ...when, text: "sat by Ada M." });
  await house.ask(eraseChild, { params: { id: ada } });

  const tables = (await house.store.owner.execute(
    sql`select table_name from information_schema.tables where table_schema = 'public'`,
  )) as unknown as { rows: { table_name: string }[] };
  expect(tables.rows.length).toBeGreaterThan(10);
  for (const { table_name } of tables.rows) {
    // That the child was erased is kept, by its id alone, so that a backup from before leaves it out; so is who saw and did what.
    const id = ["erased", "trail"].includes(table_name) ? "no id" : ada;
    const found = (await house.store.owner.execute(
      sql`select count(*)::int as count from ${sql.identifier(table_name)} t where t::text like ${`%${id}%`} or t::text like '%Ada %'`,
    )) as unknown as { rows: { count: number }[] };
    expect([table_name, found.rows[0]?.count]).toEqual([table_name, 0]);
  }
  const session = await house.ask(getSession, { params: { id: sessionId } });
  expect(session.members.map((member) => member.id)).toEqual([ben]);
  expect(session.reports[0]?.note).toBe("this child and Adam read; this child's best yet.");
});
