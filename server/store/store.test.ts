import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { AnswerBody } from "#contract";
import { dayAt, inCheck } from "#core/ledger";
import { accentOf } from "#core/phonics";
import { readLexicon } from "#core/words";
import { append } from "../ledger/append.ts";
import { entriesUnder, logOfChecks, logOfChildren, standingOfChildren } from "../ledger/log.ts";
import { checksByIds, insertSitting, openSittings, setCheckEnd } from "./checks.ts";
import {
  countTraces,
  eraseChild,
  findChildren,
  insertChildren,
  listChildren,
  nameTaken,
  updateChild,
} from "./children.ts";
import {
  deleteOrder,
  findOrder,
  insertClass,
  insertOrder,
  insertTaught,
  listClasses,
  listOrders,
  setShippedOrder,
  updateOrder,
} from "./classes.ts";
import { groundOf } from "./gaps.ts";
import { findGroup, groupHistory, insertVersion, listGroups, setClosed } from "./groups.ts";
import type { OpenStore } from "./open.ts";
import { forgetRemoved } from "./removed.ts";
import {
  findSessionRow,
  insertReport,
  insertSession,
  listSessionRows,
  membersOfSession,
  reportsOf,
  sessionsOfChild,
  setSessionRemoved,
  setShare,
  shareByHash,
  updateSession,
} from "./sessions.ts";

let store: OpenStore;

import { openTestStore } from "./testing.ts";

const orderId = uuid();
const classId = uuid();
const [ada, ben, cy] = [uuid(), uuid(), uuid()] as const;
const content = {
  name: "Short",
  kind: "",
  why: "",
  steps: [{ id: "s1", title: "One", gpcs: ["m=m", "a=a", "t=t"], exceptionWords: ["the"] }],
};
const plan = { target: "m=m", parts: [], remarks: [] };
const checkId = uuid();
const [adaCards, cyCards] = [uuid(), uuid()];
const sittingId = uuid();
const groupId = uuid();
const sessionId = uuid();
const given = (childId: string, item: string, outcome: "right" | "none", day: string, id = uuid()): AnswerBody => ({
  id,
  childId,
  ...inCheck("card", childId === cy ? cyCards : adaCards),
  tags: [],
  item,
  outcome,
  ms: 900,
  pass: 1,
  markedAt: `${day}T09:00:00.000Z`,
  day,
  markedBy: "Ms Harrow",
});

/** Into the ledger, with the days that the marks have. */
const add = (marks: readonly AnswerBody[]) =>
  store.db.transaction((inside) =>
    append(inside, marks, { dayOf: (instant) => dayAt("Europe/London", instant), isFuture: () => false }),
  );

const words = { lexicon: readLexicon(""), accent: accentOf("neutral") };

beforeAll(async () => {
  store = await openTestStore();
  const { db } = store;
  await insertOrder(db, { id: orderId, content });
  await insertClass(db, { id: classId, name: "Kiln", yearGroup: "", orderId });
  await insertTaught(db, {
    id: uuid(),
    classId,
    stepId: "s1",
    taughtOn: "2026-11-02",
    markedAt: "2026-11-02T08:00:00.000Z",
  });
  await insertChildren(
    db,
    [
      [ada, "Ada M."],
      [ben, "Ben_T%"],
      [cy, "Cy F."],
    ].map(([id, name]) => ({ id: id ?? "", classId, name: name ?? "" })),
  );
  await askCards();
});
afterAll(() => store.close());

/** Cards that both were asked, in a sitting that is over. */
async function askCards() {
  const [startedAt, endedAt] = ["2026-11-01T08:00:00.000Z", "2026-11-08T08:00:00.000Z"];
  await insertSitting(
    store.db,
    { id: uuid(), name: "Cards", startedAt },
    [ada, cy].map((childId) => ({
      id: childId === cy ? cyCards : adaCards,
      childId,
      scope: "all",
      items: ["m=m", "a=a", "t=t"],
      seed: 1,
      startedAt,
      endedAt,
    })),
  );
}

describe("children", () => {
  test("are listed by name; an id that is there is left alone", async () => {
    expect(await insertChildren(store.db, [{ id: ada, classId, name: "Other" }])).toEqual([]);
    expect((await listChildren(store.db)).map((child) => child.name)).toEqual(["Ada M.", "Ben_T%", "Cy F."]);
    expect(await findChildren(store.db, [])).toEqual([]);
    expect(await insertChildren(store.db, [])).toEqual([]);
  });
  test("a name is taken in any case, but not by a pattern, nor by oneself or the archived", async () => {
    const taken = (name: string, except?: string) => nameTaken(store.db, classId, name, except);
    expect([await taken("ADA m."), await taken("ben_t%"), await taken("Ada M.", ada)]).toEqual([true, true, false]);
    expect([await taken("%"), await taken("Ben T%"), await taken("A\\da M.")]).toEqual([false, false, false]);
    await updateChild(store.db, ada, { archived: true });
    expect(await taken("Ada M.")).toBe(false);
    await updateChild(store.db, ada, { archived: false });
    await updateChild(store.db, ada, {});
  });
});

describe("orders and classes", () => {
  test("a version is written once; what ships is neither edited nor removed", async () => {
    expect(await updateOrder(store.db, orderId, 1, { ...content, name: "Two" })).toBe(true);
    expect(await updateOrder(store.db, orderId, 1, { ...content, name: "Lost" })).toBe(false);
    expect((await findOrder(store.db, orderId))?.content.name).toBe("Two");
    const shipped = uuid();
    await setShippedOrder(store.db, shipped, content);
    await setShippedOrder(store.db, shipped, { ...content, name: "Newer" });
    expect(await updateOrder(store.db, shipped, 1, content)).toBe(false);
    await deleteOrder(store.db, shipped);
    expect((await listOrders(store.db))[0]).toMatchObject({ id: shipped, shipped: true, content: { name: "Newer" } });
  });
  test("the newest mark counts, whichever was written last", async () => {
    await insertTaught(store.db, {
      id: uuid(),
      classId,
      stepId: null,
      taughtOn: "2026-10-01",
      markedAt: "2026-10-01T08:00:00.000Z",
    });
    expect((await listClasses(store.db))[0]).toMatchObject({ stepId: "s1", taughtOn: "2026-11-02", children: 3 });
  });
});

describe("the log", () => {
  test("gives back what was put in, in order of marking, once", async () => {
    const startedAt = "2026-11-03T08:59:00.000Z";
    const check = { id: checkId, childId: ada, scope: "all", items: ["m=m"], seed: 1, startedAt };
    for (let times = 0; times < 2; times++)
      await insertSitting(store.db, { id: sittingId, name: "First look", startedAt }, [check]);
    const late = given(ada, "a=a", "none", "2026-11-05");
    const wrong: AnswerBody = {
      id: uuid(),
      childId: ada,
      ...inCheck("card", checkId),
      tags: ["noName"],
      item: "m=m",
      outcome: "wrong",
      heard: "n",
      units: [0],
      ms: 900,
      pass: 1,
      markedAt: "2026-11-03T09:00:00.000Z",
      day: "2026-11-03",
      markedBy: "Ms Harrow",
    };
    const undo: AnswerBody = {
      id: uuid(),
      childId: ada,
      outcome: "void",
      voids: wrong.id,
      markedAt: "2026-11-03T09:00:02.000Z",
      day: "2026-11-03",
      markedBy: "Ms Harrow",
    };
    await add([late, wrong]);
    await add([undo, late]);
    await add([]);
    expect(await logOfChildren(store.db, [ada])).toEqual([wrong, undo, late]);
    expect(await logOfChecks(store.db, [checkId])).toEqual([wrong, undo]);
    expect(await logOfChildren(store.db, [])).toEqual([]);
    expect((await entriesUnder(store.db, [wrong.id])).takenBack).toEqual(new Set([wrong.id]));
  });
  test("cannot take the same answer back twice", async () => {
    const [first] = await logOfChecks(store.db, [checkId]);
    const again: AnswerBody = {
      id: uuid(),
      childId: ada,
      outcome: "void",
      voids: first?.id ?? "",
      markedAt: "2026-11-03T09:05:00.000Z",
      day: "2026-11-03",
      markedBy: "Mr Tolley",
    };
    await add([again]);
    expect((await logOfChildren(store.db, [ada])).filter((answer) => answer.outcome === "void")).toHaveLength(1);
  });
  test("what stands is read again when the log has grown, and follows the school's threshold", async () => {
    const outcomes = async (slowAfterMs: number) =>
      ((await standingOfChildren(store.db, [cy], { slowAfterMs, words })).get(cy) ?? []).map(
        (answer) => answer.outcome,
      );
    expect(await outcomes(3000)).toEqual([]);
    const slow = given(cy, "m=m", "right", "2026-11-04");
    await add([{ ...slow, ms: 4000 } as AnswerBody]);
    expect(await outcomes(3000)).toEqual(["slow"]);
    expect(await outcomes(0)).toEqual(["right"]);
    await add([
      { ...slow, id: uuid(), outcome: "void", voids: slow.id, markedAt: "2026-11-04T09:01:00.000Z" } as AnswerBody,
    ]);
    expect(await outcomes(3000)).toEqual([]);
    expect((await standingOfChildren(store.db, [cy, uuid()], { slowAfterMs: 0, words })).size).toBe(2);
  });
  test("notes and ends come back as they were put in", async () => {
    const base = {
      childId: ada,
      source: { kind: "check" as const, checkId },
      markedAt: "2026-11-03T09:06:00.000Z",
      day: "2026-11-03",
      markedBy: "Mr Tolley",
    };
    const note: AnswerBody = { ...base, id: uuid(), outcome: "note", item: null, text: "tired today" };
    const stop: AnswerBody = { ...base, id: uuid(), outcome: "stop", why: "tired" };
    await add([note, stop]);
    const back = await logOfChecks(store.db, [checkId]);
    expect(back).toEqual(expect.arrayContaining([note, stop]));
    expect(await openSittings(store.db, 8)).toEqual([]);
    const { source: _, ...plain } = base;
    await add([{ ...plain, id: uuid(), outcome: "void", voids: stop.id }]);
  });
  test("an open check is listed until it ends", async () => {
    const [open] = await openSittings(store.db, 8);
    expect([open?.name, open?.checks.map((check) => [check.id, check.childName])]).toEqual([
      "First look",
      [[checkId, "Ada M."]],
    ]);
    await setCheckEnd(store.db, checkId, "2026-11-03T09:10:00.000Z");
    expect(await openSittings(store.db, 8)).toEqual([]);
    expect((await checksByIds(store.db, [checkId]))[0]?.endedAt).toBe("2026-11-03T09:10:00.000Z");
  });
});

describe("groups and what they stand on", () => {
  test("the newest version is the group; members keep their order; a closed group goes last", async () => {
    const members = [cy, ada].map((childId) => ({ childId, locked: childId === cy }));
    await insertVersion(store.db, {
      id: uuid(),
      groupId,
      name: "Otters",
      targets: ["m=m"],
      savedAt: "2026-11-06T09:00:00.000Z",
      members,
    });
    await insertVersion(store.db, {
      id: uuid(),
      groupId,
      name: "Old name",
      targets: [],
      savedAt: "2026-11-01T09:00:00.000Z",
      members: [],
    });
    expect(await findGroup(store.db, groupId)).toMatchObject({
      name: "Otters",
      members: [
        { name: "Cy F.", locked: true },
        { name: "Ada M.", locked: false },
      ],
    });
    expect((await groupHistory(store.db, groupId)).map((version) => version.name)).toEqual(["Otters", "Old name"]);
    const second = uuid();
    await insertVersion(store.db, {
      id: uuid(),
      groupId: second,
      name: "Second",
      targets: [],
      savedAt: "2026-11-06T09:00:00.000Z",
      members: [],
    });
    await setClosed(store.db, groupId, true);
    expect((await listGroups(store.db)).map((group) => group.name)).toEqual(["Second", "Otters"]);
    await setClosed(store.db, groupId, false);
  });
  test("known is what everyone read last, needed what someone missed", async () => {
    await add([
      given(cy, "t=t", "right", "2026-11-05"),
      given(ada, "t=t", "right", "2026-11-05"),
      given(cy, "a=a", "right", "2026-11-05"),
    ]);
    const ground = await groundOf(store.db, words, [ada, cy], "2026-11-20");
    expect(ground).toMatchObject({ known: ["t=t"], needed: ["a=a"], wholes: ["the"] });
    expect(ground.unsteady).toEqual(["a=a", "t=t"].filter((gpc) => ground.unsteady.includes(gpc)).reverse());
    expect(await groundOf(store.db, words, [], "2026-11-20")).toEqual({
      known: [],
      wholes: [],
      unsteady: [],
      needed: [],
    });
  });
});

describe("sessions", () => {
  test("are put in once with their members; a version is written once", async () => {
    for (let times = 0; times < 2; times++) {
      await insertSession(
        store.db,
        { id: sessionId, groupId, heldOn: "2026-11-10", plan, known: ["t=t"], wholes: ["the"] },
        [cy, ada],
      );
    }
    expect((await membersOfSession(store.db, sessionId)).map((member) => member.id)).toEqual([cy, ada]);
    expect(await updateSession(store.db, sessionId, 1, { heldOn: "2026-11-11" })).toBe(true);
    expect(await updateSession(store.db, sessionId, 1, { heldOn: "2026-11-12" })).toBe(false);
    expect(await findSessionRow(store.db, sessionId)).toMatchObject({ heldOn: "2026-11-11", version: 2, plan });
  });
  test("a report comes once, its marks become answers, a link is found by its hash alone", async () => {
    const report = {
      id: uuid(),
      by: "Wyn D.",
      at: "2026-11-11T10:00:00.000Z",
      came: [ada, ada],
      reached: "teach" as const,
      marks: [{ id: uuid(), childId: ada, gpc: "m=m", outcome: "wrong" as const }],
      note: "Ada read; adamant.",
    };
    for (let times = 0; times < 2; times++)
      await insertReport(store.db, sessionId, report, { day: "2026-11-11", byLink: false });
    expect(await reportsOf(store.db, [sessionId])).toMatchObject([
      { by: "Wyn D.", came: [ada], marks: [{ gpc: "m=m", outcome: "wrong" }] },
    ]);
    expect((await logOfChildren(store.db, [ada])).at(-1)).toMatchObject({
      item: "m=m",
      outcome: "wrong",
      heard: null,
      markedBy: "Wyn D.",
    });
    expect(await sessionsOfChild(store.db, ada)).toEqual([
      { heldOn: "2026-11-11", group: "Otters", came: true, by: "Wyn D." },
    ]);
    await setShare(store.db, sessionId, "hash", "2026-11-20");
    await setShare(store.db, sessionId, "newer", "2026-11-21");
    expect(await shareByHash(store.db, "hash")).toBeUndefined();
    expect((await shareByHash(store.db, "newer"))?.endsOn).toBe("2026-11-21");
  });
  test("erasing one child leaves the others' session, and removing the session leaves the log", async () => {
    expect(await countTraces(store.db, { id: ada, name: "Ada M." })).toEqual({
      answers: 8,
      checks: 2,
      readings: 0,
      groups: 1,
      sessions: 1,
      notesNaming: 1,
    });
    await eraseChild(store.db, { id: ada, name: "Ada M." });
    expect((await membersOfSession(store.db, sessionId)).map((member) => member.id)).toEqual([cy]);
    expect((await reportsOf(store.db, [sessionId]))[0]).toMatchObject({
      came: [],
      marks: [],
      note: "this child read; adamant.",
    });
    const before = await logOfChildren(store.db, [cy]);
    await setSessionRemoved(store.db, sessionId, "2026-11-20T09:00:00.000Z");
    expect(await listSessionRows(store.db)).toEqual([]);
    await forgetRemoved(store.db, "2026-11-20T09:00:00.000Z");
    await setSessionRemoved(store.db, sessionId, null);
    expect(await listSessionRows(store.db)).toHaveLength(1);
    await setSessionRemoved(store.db, sessionId, "2026-11-20T09:00:00.000Z");
    await forgetRemoved(store.db, "2026-11-20T09:00:00.001Z");
    await setSessionRemoved(store.db, sessionId, null);
    expect(await listSessionRows(store.db)).toEqual([]);
    expect(await logOfChildren(store.db, [cy])).toEqual(before);
  });
});
