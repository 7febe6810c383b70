import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { AnswerBody } from "#contract";
import { inCheck } from "#core/ledger";
import type { School } from "./house.ts";
import type { OpenStore } from "./store/opened.ts";
import { openTestStore } from "./store/testing.ts";
import { firstSchool } from "./testing.ts";

let store: OpenStore;
let school: School;

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
const add = (marks: readonly AnswerBody[]) => school.ledger.take(marks, () => false);

beforeAll(async () => {
  store = await openTestStore();
  school = await firstSchool(store);
  await school.orders.insert({ id: orderId, content });
  await school.classes.insert({ id: classId, name: "Kiln", yearGroup: "", orderId });
  await school.classes.insertTaught({
    id: uuid(),
    classId,
    stepId: "s1",
    taughtOn: "2026-11-02",
    markedAt: "2026-11-02T08:00:00.000Z",
  });
  await school.children.insert(
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
  await school.checks.insertSitting(
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
    expect(await school.children.insert([{ id: ada, classId, name: "Other" }])).toEqual([]);
    expect((await school.children.list()).map((child) => child.name)).toEqual(["Ada M.", "Ben_T%", "Cy F."]);
    expect(await school.children.findMany([])).toEqual([]);
    expect(await school.children.insert([])).toEqual([]);
  });
  test("a name is taken in any case, but not by a pattern, nor by oneself or the archived", async () => {
    const taken = (name: string, except?: string) => school.children.nameTaken(classId, name, except);
    expect([await taken("ADA m."), await taken("ben_t%"), await taken("Ada M.", ada)]).toEqual([true, true, false]);
    expect([await taken("%"), await taken("Ben T%"), await taken("A\\da M.")]).toEqual([false, false, false]);
    expect(await school.children.update(ada, 1, { archived: true })).toBe(true);
    expect(await taken("Ada M.")).toBe(false);
    expect(await school.children.update(ada, 1, { name: "Lost" })).toBe(false);
    expect(await school.children.update(ada, 2, { archived: false })).toBe(true);
    expect((await school.children.find(ada))?.name).toBe("Ada M.");
  });
});

describe("orders and classes", () => {
  test("a version is written once; what ships is neither edited nor removed", async () => {
    expect(await school.orders.update(orderId, 1, { ...content, name: "Two" })).toBe(true);
    expect(await school.orders.update(orderId, 1, { ...content, name: "Lost" })).toBe(false);
    expect((await school.orders.find(orderId))?.content.name).toBe("Two");
    const shipped = uuid();
    await school.orders.setShipped(shipped, content);
    await school.orders.setShipped(shipped, { ...content, name: "Newer" });
    expect(await school.orders.update(shipped, 1, content)).toBe(false);
    await school.orders.remove(shipped);
    expect((await school.orders.list())[0]).toMatchObject({ id: shipped, shipped: true, content: { name: "Newer" } });
  });
  test("the mark that came last counts, whatever its device's clock says", async () => {
    await school.classes.insertTaught({
      id: uuid(),
      classId,
      stepId: null,
      taughtOn: "2026-10-01",
      markedAt: "2026-10-01T08:00:00.000Z",
    });
    expect((await school.classes.list())[0]).toMatchObject({ stepId: null, taughtOn: "2026-10-01", children: 3 });
    const again = { id: uuid(), classId, stepId: "s1", taughtOn: "2026-11-02", markedAt: "2026-11-02T08:00:00.000Z" };
    for (let times = 0; times < 2; times++) await school.classes.insertTaught(again);
    expect((await school.classes.taughtMarks(classId)).map((mark) => mark.number)).toEqual([3, 2, 1]);
  });
});

describe("the log", () => {
  test("gives back what was put in, in order of marking, once", async () => {
    const startedAt = "2026-11-03T08:59:00.000Z";
    const check = { id: checkId, childId: ada, scope: "all", items: ["m=m"], seed: 1, startedAt };
    for (let times = 0; times < 2; times++)
      await school.checks.insertSitting({ id: sittingId, name: "First look", startedAt }, [check]);
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
    expect(await school.ledger.logOfChildren([ada])).toEqual([wrong, undo, late]);
    expect(await school.ledger.logOfChecks([checkId])).toEqual([wrong, undo]);
    expect(await school.ledger.logOfChildren([])).toEqual([]);
  });
  test("cannot take the same answer back twice", async () => {
    const [first] = await school.ledger.logOfChecks([checkId]);
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
    expect((await school.ledger.logOfChildren([ada])).filter((answer) => answer.outcome === "void")).toHaveLength(1);
  });
  test("what stands is read again when the log has grown, and follows the school's threshold", async () => {
    const outcomes = async (slowAfterMs: number) =>
      school.together(async () => {
        const { checks } = await school.settings.read();
        await school.settings.change({ checks: { ...checks, slowAfter: slowAfterMs / 1000 } }, null);
        return ((await school.ledger.standingOfChildren([cy])).get(cy) ?? []).map((answer) => answer.outcome);
      });
    expect(await outcomes(3000)).toEqual([]);
    const slow = given(cy, "m=m", "right", "2026-11-04");
    await add([{ ...slow, ms: 4000 } as AnswerBody]);
    expect(await outcomes(3000)).toEqual(["slow"]);
    expect(await outcomes(0)).toEqual(["right"]);
    await add([
      { ...slow, id: uuid(), outcome: "void", voids: slow.id, markedAt: "2026-11-04T09:01:00.000Z" } as AnswerBody,
    ]);
    expect(await outcomes(3000)).toEqual([]);
    expect((await school.ledger.standingOfChildren([cy, uuid()])).size).toBe(2);
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
    const back = await school.ledger.logOfChecks([checkId]);
    expect(back).toEqual(expect.arrayContaining([note, stop]));
    expect(await school.checks.openSittings(8)).toEqual([]);
    const { source: _, ...plain } = base;
    await add([{ ...plain, id: uuid(), outcome: "void", voids: stop.id }]);
  });
  test("an open check is listed until it ends", async () => {
    const [open] = await school.checks.openSittings(8);
    expect([open?.name, open?.checks.map((check) => [check.id, check.childName])]).toEqual([
      "First look",
      [[checkId, "Ada M."]],
    ]);
    const mark = { childId: ada, markedAt: "2026-11-03T09:10:00.000Z", day: "2026-11-03", markedBy: "Mr Tolley" };
    await add([{ ...mark, id: uuid(), outcome: "stop", why: "done", source: { kind: "check", checkId } }]);
    expect(await school.checks.openSittings(8)).toEqual([]);
    expect((await school.checks.byIds([checkId]))[0]?.endedAt).toBe("2026-11-03T09:10:00.000Z");
  });
});

describe("groups and what they stand on", () => {
  test("the state that came last is the group, whatever its device's clock says; members keep their order", async () => {
    const members = [cy, ada].map((childId) => ({ childId, locked: childId === cy }));
    const state = (name: string, savedAt: string) => ({
      id: uuid(),
      groupId,
      name,
      ...{ targets: [], besides: [] },
      why: "",
      savedAt,
      members: [],
    });
    const first = state("Old name", "2026-11-08T09:00:00.000Z");
    expect(await school.groups.save(first, 0)).toBe(true);
    const otters = { ...state("Otters", "2026-11-01T09:00:00.000Z"), targets: ["m=m"], members };
    expect(await school.groups.save(otters, 1)).toBe(true);
    expect(await school.groups.find(groupId)).toMatchObject({
      name: "Otters",
      version: 2,
      members: [
        { name: "Cy F.", locked: true },
        { name: "Ada M.", locked: false },
      ],
    });
    // Made from the state before: nothing is written. The same state once more is there already.
    expect(await school.groups.save(state("Lost", "2026-11-09T09:00:00.000Z"), 1)).toBe(false);
    expect(await school.groups.save(first, 0)).toBe(true);
    expect((await school.groups.history(groupId)).map((version) => version.name)).toEqual(["Otters", "Old name"]);
  });
  test("a closed group goes last", async () => {
    const second = uuid();
    await school.groups.save(
      {
        id: uuid(),
        groupId: second,
        name: "Second",
        ...{ targets: [], besides: [] },
        why: "",
        savedAt: "2026-11-06T09:00:00.000Z",
        members: [],
      },
      null,
    );
    await school.groups.setClosed(groupId, true);
    expect((await school.groups.list()).map((group) => group.name)).toEqual(["Second", "Otters"]);
    await school.groups.setClosed(groupId, false);
  });
  test("known is what everyone read last, needed what someone missed", async () => {
    await add([
      given(cy, "t=t", "right", "2026-11-05"),
      given(ada, "t=t", "right", "2026-11-05"),
      given(cy, "a=a", "right", "2026-11-05"),
    ]);
    const ground = await school.standings.commonOf([ada, cy], "2026-11-20");
    expect(ground).toMatchObject({ known: ["t=t"], needed: ["a=a"], wholes: ["the"] });
    // By a limit of the group's own one of the two may need help, and it is told what each reads.
    const most = await school.standings.commonOf([ada, cy], "2026-11-20", "allButOne");
    expect(most.known.toSorted()).toEqual(["a=a", "t=t"]);
    expect(most.children.map(({ name, reads }) => [name, reads.includes("a=a")])).toEqual(
      expect.arrayContaining([["Cy F.", true]]),
    );
    expect(ground.unsteady).toEqual(["a=a", "t=t"].filter((gpc) => ground.unsteady.includes(gpc)).reverse());
    expect(await school.standings.commonOf([], "2026-11-20")).toEqual({
      age: 12,
      known: [],
      wholes: [],
      unsteady: [],
      needed: [],
      children: [],
    });
  });
});

describe("sessions", () => {
  test("are put in once with their members; a version is written once", async () => {
    for (let times = 0; times < 2; times++) {
      await school.sessions.insert(
        { id: sessionId, groupId, heldOn: "2026-11-10", plan, known: ["t=t"], wholes: ["the"] },
        [cy, ada],
      );
    }
    expect((await school.sessions.membersOf(sessionId)).map((member) => member.id)).toEqual([cy, ada]);
    expect(await school.sessions.update(sessionId, 1, { heldOn: "2026-11-11" })).toBe(true);
    expect(await school.sessions.update(sessionId, 1, { heldOn: "2026-11-12" })).toBe(false);
    expect(await school.sessions.find(sessionId)).toMatchObject({ heldOn: "2026-11-11", version: 2, plan });
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
      await school.sessions.insertReport(sessionId, report, { day: "2026-11-11", byLink: false });
    expect(await school.sessions.reportsOf([sessionId])).toMatchObject([
      { by: "Wyn D.", came: [ada], marks: [{ gpc: "m=m", outcome: "wrong" }] },
    ]);
    expect((await school.ledger.logOfChildren([ada])).at(-1)).toMatchObject({
      item: "m=m",
      outcome: "wrong",
      heard: null,
      markedBy: "Wyn D.",
    });
    expect(await school.sessions.ofChild(ada)).toEqual([
      { heldOn: "2026-11-11", group: "Otters", came: true, by: "Wyn D." },
    ]);
    await school.sessions.setShare(sessionId, "hash", "2026-11-20");
    await school.sessions.setShare(sessionId, "newer", "2026-11-21");
    expect(await school.sessions.shareByHash("hash")).toBeUndefined();
    expect((await school.sessions.shareByHash("newer"))?.endsOn).toBe("2026-11-21");
  });
  test("erasing one child leaves the others' session, and removing the session leaves the log", async () => {
    expect(await school.erasing.countTraces({ id: ada, name: "Ada M." })).toEqual({
      answers: 9,
      checks: 2,
      readings: 0,
      groups: 1,
      sessions: 1,
      notesNaming: 1,
    });
    await school.erasing.eraseAll([{ id: ada, name: "Ada M." }]);
    expect((await school.sessions.membersOf(sessionId)).map((member) => member.id)).toEqual([cy]);
    expect((await school.sessions.reportsOf([sessionId]))[0]).toMatchObject({
      came: [],
      marks: [],
      note: "this child read; adamant.",
    });
    const before = await school.ledger.logOfChildren([cy]);
    await school.sessions.setRemoved(sessionId, "2026-11-20T09:00:00.000Z");
    expect(await school.sessions.list()).toEqual([]);
    await school.sessions.forgetRemoved("2026-11-20T09:00:00.000Z");
    await school.sessions.setRemoved(sessionId, null);
    expect(await school.sessions.list()).toHaveLength(1);
    await school.sessions.setRemoved(sessionId, "2026-11-20T09:00:00.000Z");
    await school.sessions.forgetRemoved("2026-11-20T09:00:00.001Z");
    await school.sessions.setRemoved(sessionId, null);
    expect(await school.sessions.list()).toEqual([]);
    expect(await school.ledger.logOfChildren([cy])).toEqual(before);
  });
});
