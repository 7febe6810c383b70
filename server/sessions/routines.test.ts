import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  eraseChild,
  getGroup,
  getSchool,
  getSession,
  listRoutines,
  markTaught,
  otherPart,
  planNewSession,
  removeRoutine,
  replanSession,
  saveGroup,
  saveRoutine,
  setCheckSettings,
  setGroupRoutine,
} from "#contract";
import { kindsOfPart, shippedRoutines } from "#core/plans";
import { begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, groupId, ada, ben, own] = [uuid(), uuid(), uuid(), uuid(), uuid()];
const routine = {
  name: "Marlpit way",
  about: "",
  parts: [
    { kind: "revisit" as const, minutes: 2, who: "child" as const, how: "" },
    { kind: "chain" as const, minutes: 3, who: "together" as const, how: "On the mat." },
    { kind: "readWords" as const, minutes: 3, who: "child" as const, how: "" },
  ],
};
const plan = async (id: string, change: object = {}) =>
  house.ask(planNewSession, { body: { id, groupId, heldOn: "2026-11-21", target: "s=s", seed: 4, ...change } });

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  const order = (await house.ask(getSchool, {})).orders[0];
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  const stepId = order?.content.steps[9]?.id ?? "";
  const mark = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: mark });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  // Right on all but a few, so that each child has something in doubt.
  for (const [childId, missed] of [
    [ada, "t=t"],
    [ben, "p=p"],
  ] as const) {
    const { checks } = await begin(house, [childId], [part("card")], "2026-11-18T08:00:00.000Z");
    for (const check of checks)
      await markAll(house, check, (item) => ({ outcome: item === missed ? "none" : "right" }), {
        ...{ day: "2026-11-18", markedAt: "2026-11-18T08:10:00.000Z" },
      });
  }
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: {
      ...{ versionId: uuid(), version: 0, name: "Otters", targets: ["s=s"], at: "2026-11-19T08:00:00.000Z", why: "" },
      members: [ada, ben].map((childId) => ({ childId, locked: false })),
    },
  });
});
afterAll(() => house.close());

test("a routine is kept over its version, refused where it cannot be held, and taken away", async () => {
  const save = (version: number, change: object = {}) =>
    ({ params: { id: own }, body: { version, routine: { ...routine, ...change } } }) as never;
  expect(await house.ask(saveRoutine, save(0))).toMatchObject({ version: 1 });
  expect(await house.ask(saveRoutine, save(0))).toMatchObject({ version: 1 });
  expect((await house.refused(saveRoutine, save(0, { name: "Other" }))).status).toBe(409);
  expect(await house.ask(saveRoutine, save(1, { about: "ours" }))).toMatchObject({ version: 2 });
  expect(await house.ask(listRoutines, {})).toMatchObject([{ id: own, version: 2, routine: { about: "ours" } }]);
  const none = routine.parts.map((one) => ({ ...one, minutes: 0 }));
  expect(await house.refused(saveRoutine, save(2, { parts: none }))).toMatchObject({
    ...{ status: 422, detail: expect.stringContaining("A routine of no minutes cannot be held.") },
  });
  const many = Array.from({ length: 15 }, () => routine.parts[0]);
  expect((await house.refused(saveRoutine, save(2, { parts: many }))).detail).toContain("at most 14 parts");
  expect((await house.refused(saveRoutine, { ...(save(5) as object), params: { id: uuid() } } as never)).status).toBe(
    404,
  );
});

test("a group goes by the usual routine, then by its own; a session by another, for itself alone", async () => {
  const kinds = async (id: string) =>
    (await house.ask(getSession, { params: { id } })).plan.parts.map(({ kind }) => kind);
  const [first, second, third] = [uuid(), uuid(), uuid()];
  await plan(first);
  expect(await kinds(first)).toEqual(shippedRoutines.usual.parts.map(({ kind }) => kind));
  await house.ask(setGroupRoutine, { params: { id: groupId }, body: { routine: own } });
  expect((await house.ask(getGroup, { params: { id: groupId } })).routine).toBe(own);
  const { plan: made } = await plan(second);
  expect(made.parts.map(({ kind }) => kind)).toEqual(["revisit", "chain", "readWords"]);
  expect(made.parts[1]?.how).toBe("On the mat.");
  expect(await kinds(first)).toHaveLength(7);
  await plan(third, { routine: "short" });
  expect(await kinds(third)).toEqual(shippedRoutines.short.parts.map(({ kind }) => kind));
  const { version } = await house.ask(getSession, { params: { id: third } });
  const again = { version, target: "s=s", routine: "hearing", seed: 1 };
  await house.ask(replanSession, { params: { id: third }, body: again });
  expect(await kinds(third)).toContain("hear");
  expect((await house.refused(setGroupRoutine, { params: { id: groupId }, body: { routine: uuid() } })).status).toBe(
    422,
  );
});

test("what nothing new is taught in practises what is in doubt", async () => {
  const { plan: made } = await plan(uuid(), { target: null, routine: "review" });
  expect(["t=t", "p=p"]).toContain(made.target);
});

test("each child has its own cards, and what is erased of a child goes out of plans too", async () => {
  const id = uuid();
  const { plan: made } = await plan(id);
  const cards = made.parts.find(({ kind }) => kind === "revisit")?.each ?? [];
  expect(cards.find(({ childId }) => childId === ada)?.items).toContain("t=t");
  expect(cards.find(({ childId }) => childId === ben)?.items).toContain("p=p");
  await house.ask(eraseChild, { params: { id: ben } });
  const after = await house.ask(getSession, { params: { id } });
  expect(JSON.stringify(after)).not.toContain(ben);
  expect(after.plan.parts.find(({ kind }) => kind === "revisit")?.each).toHaveLength(1);
});

test("words of the last week's sessions are not taken again while there are forty others", async () => {
  const words = (of: Awaited<ReturnType<typeof plan>>) =>
    of.plan.parts.flatMap(({ kind, items }) =>
      kindsOfPart[kind].items === "words" && kind !== "chain" ? items : [],
    );
  const target = "a=a";
  const first = words(await plan(uuid(), { heldOn: "2026-11-20", target, routine: "usual", seed: 9 }));
  const second = words(await plan(uuid(), { target, routine: "usual", seed: 9 }));
  const exception = shippedRoutines.usual.parts.some(({ kind }) => kind === "exceptionWords");
  expect(exception).toBe(true);
  const shared = second.filter(
    (word) => first.includes(word) && word.length > 2 && !["the", "was", "said"].includes(word),
  );
  expect(shared.length).toBeLessThan(4);
});

test("one part is filled with others, and nothing else changes", async () => {
  const id = uuid();
  const { plan: before, version } = await plan(id, { routine: "usual", target: "a=a" });
  const at = before.parts.findIndex(({ kind }) => kind === "readWords");
  const asked = { params: { id, at }, body: { version, seed: 77 } };
  const { plan: after } = await house.ask(otherPart, asked);
  expect(after.parts.map((one, place) => (place === at ? null : one))).toEqual(
    before.parts.map((one, place) => (place === at ? null : one)),
  );
  expect(after.parts[at]?.items).toHaveLength(9);
  expect(after.parts[at]?.items).not.toEqual(before.parts[at]?.items);
  expect((await house.refused(otherPart, { params: { id, at }, body: { version, seed: 78 } })).status).toBe(409);
  expect((await house.refused(otherPart, { params: { id, at: 12 }, body: { version, seed: 78 } })).status).toBe(422);
});

test("a routine that is taken away leaves its groups with the usual one", async () => {
  await house.ask(removeRoutine, { params: { id: own } });
  await house.ask(removeRoutine, { params: { id: own } });
  expect((await house.ask(getGroup, { params: { id: groupId } })).routine).toBe("usual");
});

test("a session follows the school's settings: made-up words, exception words, what is said to a card", async () => {
  const { version, checks } = await house.ask(getSchool, {});
  const change = { madeUp: false, exceptionWay: "wholes", answerForm: "nameKeywordSound" } as const;
  const set = await house.ask(setCheckSettings, { body: { version, checks: { ...checks, ...change } } });
  const made = await plan(uuid(), { routine: "mixed", heldOn: "2026-12-10" });
  expect(made.plan.parts.some(({ kind }) => kind === "madeUp")).toBe(false);
  expect(made.plan.remarks.join()).toContain("no made-up words");
  const how = (kind: string) => made.plan.parts.find((one) => one.kind === kind)?.how ?? "";
  expect(how("teach")).toMatch(/say the names of its letters, “\w+”, “\w+”/);
  await house.ask(setCheckSettings, { body: { version: set.version, checks } });
  const again = await plan(uuid(), { routine: "mixed", heldOn: "2026-12-11" });
  expect(again.plan.parts.some(({ kind }) => kind === "madeUp")).toBe(true);
});
