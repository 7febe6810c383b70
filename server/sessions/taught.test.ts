import { randomUUID as uuid } from "node:crypto";
import { readFileSync } from "node:fs";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  type AnswerBody,
  addChild,
  addClass,
  exportChild,
  getAfresh,
  getChanges,
  getSchool,
  getSession,
  getShared,
  listReadings,
  planNewSession,
  removeReport,
  replanSession,
  reportSession,
  reportShared,
  saveAnswers,
  saveGroup,
  shareSession,
} from "#contract";
import { answerOf, teachState } from "#core/plans";
import { readLexicon } from "#core/words";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, otters, ada, ben, cy, sessionId] = [uuid(), uuid(), uuid(), uuid(), uuid(), uuid()];
const now = "2026-10-19T08:00:00.000Z";
const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date(now);
  const order = (await house.ask(getSchool, {})).orders[0];
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  for (const id of [ada, ben, cy])
    await house.ask(addChild, { body: { id, classId, name: `Child ${id.slice(0, 4)}`, note: "" } });
  await house.ask(saveGroup, {
    params: { id: otters },
    body: {
      ...{ versionId: uuid(), version: 0, name: "Otters", targets: ["m=m"], at: now, why: "" },
      members: [ada, ben].map((childId) => ({ childId, locked: false })),
    },
  });
  await house.ask(planNewSession, {
    body: { id: sessionId, groupId: otters, heldOn: "2026-10-19", target: "m=m", seed: 3 },
  });
});
afterAll(() => house.close());

/** A mark as the screen that teaches makes it. */
function mark(childId: string, change: { outcome?: string; together?: boolean; id?: string } = {}): AnswerBody {
  const { outcome = "got", together = false, id = uuid() } = change;
  const parts = [{ kind: "lastLook" as const, minutes: 1, items: ["m=m"], how: "" }];
  const members = [ada, ben, cy].map((one) => ({ id: one, absent: false }));
  const at = Date.parse(now) - 60_000;
  const steps = [
    { id: uuid(), at, do: "begin" },
    { id, at, do: "mark", childId, outcome, said: null, marks: false, together },
  ] as never;
  const [made] = teachState({ parts, members, seed: 1 }, steps).marks;
  if (!made) throw new Error("no mark");
  const from = { kind: "lastLook" as const, lexicon, sessionId, day: "2026-10-19", markedBy: "Jo P." };
  return answerOf(made, from) as unknown as AnswerBody;
}
const send = async (...answers: AnswerBody[]) =>
  (await house.ask(saveAnswers, { body: { answers } })).fates.map(({ fate, says }) => (says ? says : fate));
const kept = async (id: string) => (await house.ask(exportChild, { params: { id } })).answers;

test("marks come while a session is taught, each once, with how they were made", async () => {
  const [one, other] = [mark(ada), mark(ben, { outcome: "notYet", together: true })];
  expect(await send(one, other)).toEqual(["kept", "kept"]);
  expect(await send(one, other)).toEqual(["there", "there"]);
  expect(await kept(ada)).toMatchObject([
    { item: "m=m", outcome: "right", help: "none", source: { kind: "session", sessionId, reportId: null } },
  ]);
  expect(await kept(ben)).toMatchObject([{ outcome: "wrong", help: "together" }]);
  const undo = { id: uuid(), childId: ben, markedAt: now, day: "2026-10-19", markedBy: "Jo P." };
  expect(await send({ ...undo, outcome: "void", voids: other.id })).toEqual(["kept"]);
});

test("a child without a place, a session that is not here, a mark that says it was reported: refused with a reason", async () => {
  const stranger = { ...mark(cy), source: { kind: "session" as const, sessionId, reportId: null } };
  const nowhere = { ...mark(ada), source: { kind: "session" as const, sessionId: uuid(), reportId: null } };
  const reported = { ...mark(ada), source: { kind: "session" as const, sessionId, reportId: uuid() } };
  expect(await send(stranger as AnswerBody, nowhere as AnswerBody, reported as AnswerBody, mark(ada))).toEqual([
    "This child has no place in the session.",
    "The session is not here any more.",
    "A mark that comes alone needs the check or the session that it was made in.",
    "kept",
  ]);
});

test("what it changed on the map is told, before and after; of a child that had no mark, nothing", async () => {
  const changed = (id: string) => house.ask(getChanges, { params: { id }, query: { sessionId } });
  const { changes, skills } = await changed(ada);
  expect(skills).toBe(1);
  const [one] = changes;
  expect(one?.skill).toBe("say m=m");
  expect(one?.after.chance ?? 0).toBeGreaterThan(one?.before.chance ?? 1);
  expect(await changed(cy)).toEqual({ changes: [], skills: 0 });
  const both = { sessionId, sittingId: sessionId };
  expect((await house.refused(getChanges, { params: { id: ada }, query: both })).status).toBe(422);
});

test("the report says who came; taken away, what was marked while it ran stays", async () => {
  const report = {
    id: uuid(),
    by: "Jo P.",
    at: now,
    came: [ada, ben],
    reached: "lastLook" as const,
    marks: [],
    note: "",
  };
  await house.ask(reportSession, { params: { id: sessionId }, body: report });
  const before = await kept(ada);
  await house.ask(removeReport, { params: { id: sessionId, reportId: report.id } });
  expect(await kept(ada)).toEqual(before);
});

test("a mark of a session on what is no item of its kind is refused by itself; the others are kept", async () => {
  const odd = { ...mark(ada), item: "no=such" } as AnswerBody;
  const good = mark(ada);
  const { fates } = await house.ask(saveAnswers, { body: { answers: [odd, good] } });
  expect(fates.map(({ fate }) => fate)).toEqual(["refused", "kept"]);
  expect(fates[0]?.says).toContain("no=such");
});

test("taught from a link: its marks come with the report, are evidence of their kind, and go with it", async () => {
  const answersOf = async (child: string) => {
    const { answers } = (await house.ask(exportChild, { params: { id: child } })) as unknown as {
      answers: { id: string; kind?: string; item?: string; help?: string; markedBy: string; voids?: string }[];
    };
    return answers;
  };
  const { token } = await house.ask(shareSession, { params: { id: sessionId }, body: { endsOn: "2026-10-22" } });
  const card = await house.ask(getShared, { params: { token } });
  expect(card.sessionId).toBe(sessionId);
  expect(card.texts).toEqual([]);
  const at = "2026-10-19T07:40:00.000Z";
  const taught = (change: object) => ({
    ...{ id: uuid(), childId: ada, kind: "words", item: "m a t", outcome: "right", heard: null, help: "none", at },
    ...change,
  });
  const marks = [
    taught({}),
    taught({ kind: "dictation", item: "mat", outcome: "wrong", heard: "mad" }),
    taught({ kind: "card", item: "m=m", help: "together" }),
    taught({ childId: ben, kind: "exception", item: "the", help: "hint" }),
  ];
  const report = (change: object = {}) => ({
    ...{ id: uuid(), by: "Wyn D.", at, came: [ada, ben], reached: "lastLook", marks: [], note: "It went well." },
    ...{ taught: marks, ...change },
  });
  type Body = Parameters<typeof house.ask<typeof reportShared>>[1]["body"];
  const send = (body: object) => house.ask(reportShared, { params: { token }, body: body as Body });
  const refused = (body: object) => house.refused(reportShared, { params: { token }, body: body as Body });

  // Who has no place there, a mark from long ago, one that is twice, one that is no item: nothing of it is kept.
  expect((await refused(report({ taught: [taught({ childId: cy })] }))).detail).toMatch(/no place/);
  expect((await refused(report({ taught: [taught({ at: "2026-01-10T08:00:00.000Z" })] }))).detail).toMatch(/14 days/);
  expect((await refused(report({ taught: [marks[0], marks[0]] }))).detail).toMatch(/same id/);
  expect((await refused(report({ taught: [taught({ kind: "words", item: "?" })] }))).detail).toMatch(
    /Nothing was kept/,
  );
  expect((await house.ask(getSession, { params: { id: sessionId } })).reports).toHaveLength(0);

  const body = report();
  for (let times = 0; times < 2; times++) await send(body);
  const mine = (await answersOf(ada)).filter(({ markedBy }) => markedBy === "Wyn D.");
  expect(mine.map(({ kind, item, help }) => [kind, item, help]).sort()).toEqual([
    ["card", "m=m", "together"],
    ["dictation", "mat", "none"],
    ["words", "m a t", "none"],
  ]);
  const [kept] = (await house.ask(getSession, { params: { id: sessionId } })).reports;
  // What was said of words is in the answers; the report names spellings.
  expect(kept?.marks.map(({ gpc }) => gpc)).toEqual(["m=m"]);
  await house.ask(removeReport, { params: { id: sessionId, reportId: body.id } });
  const after = await answersOf(ada);
  const voided = new Set(after.flatMap(({ voids }) => voids ?? []));
  expect(mine.every(({ id }) => voided.has(id))).toBe(true);
});

test("texts that were read from a link come with the report, are readings of the child, and go with it", async () => {
  const { token } = await house.ask(shareSession, { params: { id: sessionId }, body: { endsOn: "2026-10-22" } });
  const at = "2026-10-19T07:45:00.000Z";
  const read = (change: object = {}) => ({
    ...{ id: uuid(), childId: ada, textId: "our-own", title: "Tam and the Pan", text: "Tam sat on a pan.", at },
    ...{ marks: [{ at: 4, kind: "misread", heard: "pin" }], stoppedAt: null, ...change },
  });
  const report = (readings: object[]) => ({
    ...{ id: uuid(), by: "Wyn D.", at, came: [ada], reached: "text", marks: [], note: "", readings },
  });
  type Body = Parameters<typeof house.ask<typeof reportShared>>[1]["body"];
  const send = (body: object) => house.ask(reportShared, { params: { token }, body: body as Body });
  const refused = async (...readings: object[]) =>
    (await house.refused(reportShared, { params: { token }, body: report(readings) as Body })).detail;
  const readings = () => house.ask(listReadings, { params: { id: ada } });

  expect(await refused(read({ childId: cy }))).toMatch(/no place/);
  expect(await refused(read({ marks: [{ at: 5, kind: "told", heard: null }] }))).toMatch(/word that this text/);
  expect(await refused(read({ text: "…" }))).toMatch(/no words/);
  expect(await refused(read({ at: "2026-09-01T07:45:00.000Z" }))).toMatch(/14 days/);
  const twice = read();
  expect(await refused(twice, twice)).toMatch(/same id/);
  expect(await readings()).toEqual([]);

  const one = read();
  const body = report([one]);
  for (let times = 0; times < 2; times++) await send(body);
  // Another report cannot take what came with this one.
  expect(await refused(one)).toMatch(/here already/);
  expect(await readings()).toMatchObject([
    { id: one.id, title: "Tam and the Pan", how: "alone", ms: null, day: "2026-10-19", markedBy: "Wyn D." },
  ]);
  const entries = async () =>
    (await kept(ada)).filter((entry) => entry.outcome === "reading") as unknown as { id: string }[];
  const [entry] = await entries();
  expect(entry).toMatchObject({ source: { kind: "reading", readingId: one.id }, reading: { marks: one.marks } });
  await house.ask(removeReport, { params: { id: sessionId, reportId: body.id } });
  expect(await readings()).toEqual([]);
  const voided = (await kept(ada)).flatMap((answer) => (answer.outcome === "void" ? answer.voids : []));
  expect(voided).toContain(entry?.id);
});

test("a session that is planned knows what was taught since, says what would change, and becomes so", async () => {
  const [held, next] = [uuid(), uuid()];
  for (const [id, heldOn] of [
    [held, "2026-10-19"],
    [next, "2026-10-21"],
  ] as const)
    await house.ask(planNewSession, { body: { id, groupId: otters, heldOn, target: "m=m", seed: 3 } });
  const session = () => house.ask(getSession, { params: { id: next } });
  expect((await session()).since).toBeNull();
  house.now = new Date(Date.parse(now) + 3_600_000);
  const marks = ["s=s", "a=a", "t=t"].map((gpc) => ({ id: uuid(), childId: ada, gpc, outcome: "wrong" as const }));
  const report = { by: "Jo P.", came: [ada, ben], reached: null, marks, note: "" };
  const at = house.now.toISOString();
  await house.ask(reportSession, { params: { id: held }, body: { id: uuid(), at, ...report } });
  expect((await session()).since).toEqual({ sessionId: held, heldOn: "2026-10-19", by: "Jo P." });
  const { target, second, focus, changes } = await house.ask(getAfresh, { params: { id: next }, query: { seed: 8 } });
  expect(changes.find((one) => one.startsWith(`Child ${ada.slice(0, 4)}:`))).toMatch(
    /: [ast], [ast] and [ast] come to the cards\.$/,
  );
  // Nothing was changed by asking; asked again it is the same.
  expect((await session()).version).toBe(1);
  expect((await house.ask(getAfresh, { params: { id: next }, query: { seed: 8 } })).changes).toEqual(changes);
  const body = { version: 1, target, second, focus, seed: 8 };
  house.now = new Date(house.now.getTime() + 1000);
  await house.ask(replanSession, { params: { id: next }, body });
  expect((await session()).since).toBeNull();
  const after = await house.ask(getAfresh, { params: { id: next }, query: { seed: 8 } });
  // The words that it has now are left out of another filling; what it is about and its cards are as they would be.
  expect(after.changes.filter((one) => !one.includes("words are others"))).toEqual([]);
  // Of a session that was held nothing is asked.
  expect((await house.ask(getSession, { params: { id: held } })).since).toBeNull();
});
