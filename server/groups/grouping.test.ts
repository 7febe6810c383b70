import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addWish,
  editOrder,
  exportChild,
  getGaps,
  getGrouping,
  getGroupsOn,
  getMoves,
  getNext,
  getOtherNeeds,
  getOverview,
  getReaders,
  getSchool,
  getWorth,
  markTaught,
  planNewSession,
  putMoveOff,
  removeWish,
  reportSession,
  saveGroup,
  sayNextOfChild,
  sayNextOfClass,
  setGrouping,
  setGroupReads,
} from "#contract";
import { allGpcs } from "#core/order";
import { begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, groupId] = [uuid(), uuid()];
const [ada, ben, cy, di] = [uuid(), uuid(), uuid(), uuid()];
const taught: string[] = [];

/** Every card of these spellings, on three days, right but for those that are missed. */
async function asked(childId: string, missed: readonly string[], days = ["2026-11-03", "2026-11-10", "2026-11-17"]) {
  for (const day of days) {
    const picked = part("card", { scope: "picked", picked: taught.slice(-8) });
    const { checks } = await begin(house, [childId], [picked], `${day}T08:00:00.000Z`);
    const [check] = checks;
    if (check)
      await markAll(house, check, (item) => ({ outcome: missed.includes(item) ? "none" : "right" }), {
        ...{ day, markedAt: `${day}T08:10:00.000Z` },
      });
  }
}
const state = (members: readonly string[], targets: readonly string[], version: number, at: string, why = "") => ({
  params: { id: groupId },
  body: {
    ...{ versionId: uuid(), version, name: "Otters", targets: [...targets], at, why },
    members: members.map((childId) => ({ childId, locked: false })),
  },
});

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  const order = (await house.ask(getSchool, {})).orders[0];
  taught.push(...allGpcs(order?.content as never).slice(0, 20));
  const stepId = order?.content.steps.findLast(({ gpcs }) => gpcs.some((gpc) => taught.includes(gpc)))?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  const mark = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: mark });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
    [cy, "Cy F."],
    [di, "Di R."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
});
afterAll(() => house.close());

test("how groups are made is kept, and what is set by halves or against itself is refused", async () => {
  const { version, grouping, wishes } = await house.ask(getGrouping, {});
  expect(grouping).toMatchObject({ least: 3, most: 5, adults: [], leaving: { by: "targets" } });
  expect(wishes).toEqual([]);
  const adults = [{ id: uuid(), name: "Jo P.", sessions: 6 }];
  const wanted = { ...grouping, adults, yearsApart: 1 };
  const saved = await house.ask(setGrouping, { body: { version, grouping: wanted } });
  expect((await house.ask(getGrouping, {})).grouping).toEqual(wanted);
  // Sent again because no one heard the answer: nothing is changed twice. From an older state: both are told.
  expect(await house.ask(setGrouping, { body: { version, grouping: wanted } })).toMatchObject({ done: true });
  const other = { ...wanted, most: 6 };
  expect(await house.refused(setGrouping, { body: { version, grouping: other } })).toMatchObject({ status: 409 });
  const bad = { version: saved.version, grouping: { ...wanted, least: 6 } };
  expect(await house.refused(setGrouping, { body: bad })).toMatchObject({ status: 422 });
});

test("of a pair the newer wish counts, from either side; who is alone is so by themselves", async () => {
  const wish = (kind: "apart" | "together" | "alone", childId: string, otherId: string | null) =>
    house.ask(addWish, { params: { id: childId }, body: { id: uuid(), kind, otherId } });
  const wishes = async () =>
    (await house.ask(getGrouping, {})).wishes.map(({ kind, childId, otherId }) => [kind, childId, otherId]);
  await wish("apart", ada, ben);
  await wish("together", ben, ada);
  await wish("alone", cy, null);
  expect(await wishes()).toEqual(
    expect.arrayContaining([
      ["together", ben, ada],
      ["alone", cy, null],
    ]),
  );
  expect(await wishes()).toHaveLength(2);
  const pair = (await house.ask(getGrouping, {})).wishes.find(({ kind }) => kind === "together");
  await house.ask(removeWish, { params: { id: di, wishId: pair?.id ?? "" } });
  expect(await wishes()).toHaveLength(2);
  await house.ask(removeWish, { params: { id: ada, wishId: pair?.id ?? "" } });
  expect(await wishes()).toEqual([["alone", cy, null]]);
  const refused = (body: object) => house.refused(addWish, { params: { id: ada }, body: body as never });
  expect(await refused({ id: uuid(), kind: "apart", otherId: ada })).toMatchObject({
    status: 422,
    detail: expect.stringContaining("no one is apart from themselves"),
  });
  expect(await refused({ id: uuid(), kind: "apart", otherId: null })).toMatchObject({ status: 422 });
  expect(await refused({ id: uuid(), kind: "apart", otherId: uuid() })).toMatchObject({ status: 404 });
});

test("what is said of next things holds for child and class, until its day, and goes with the child's export", async () => {
  const of = { params: { id: ada } };
  await house.ask(sayNextOfChild, { ...of, body: { gpc: "m=m", how: "pinned", until: null } });
  await house.ask(sayNextOfChild, { ...of, body: { gpc: "m=m", how: "later", until: "2026-11-30" } });
  await house.ask(sayNextOfClass, { params: { id: classId }, body: { gpc: "s=s", how: "struck", until: null } });
  expect(await house.ask(getNext, {})).toMatchObject({
    children: [{ id: ada, said: [{ gpc: "m=m", how: "later", until: "2026-11-30", since: "2026-11-20" }] }],
    classes: [{ id: classId, said: [{ gpc: "s=s", how: "struck" }] }],
  });
  const told = await house.ask(exportChild, of);
  expect(told.next).toMatchObject([{ gpc: "m=m", how: "later" }]);
  house.now = new Date("2026-11-30T12:00:00.000Z");
  expect((await house.ask(getNext, {})).children).toEqual([]);
  house.now = new Date("2026-11-20T12:00:00.000Z");
  await house.ask(sayNextOfChild, { ...of, body: { gpc: "m=m", how: null, until: null } });
  expect((await house.ask(getNext, {})).children).toEqual([]);
  const refused = (body: object) => house.refused(sayNextOfChild, { ...of, body: body as never });
  expect(await refused({ gpc: "m=m", how: "later", until: "2026-11-20" })).toMatchObject({ status: 422 });
  expect(await refused({ gpc: "m=m", how: "later", until: null })).toMatchObject({ status: 422 });
  expect(await refused({ gpc: "zq=zq", how: "struck", until: null })).toMatchObject({ status: 422 });
});

test("who has what a group works on may leave; put off it is gone until that day; who left is looked at again", async () => {
  const targets = taught.slice(-2);
  await house.ask(saveGroup, state([ada, ben, cy], targets, 0, "2026-09-21T08:00:00.000Z"));
  await asked(ada, []);
  await asked(ben, targets);
  await asked(cy, targets);
  const { moves } = await house.ask(getMoves, {});
  expect(moves).toMatchObject([{ kind: "leave", childId: ada, groupName: "Otters", gpcs: targets, count: 2 }]);
  await house.ask(putMoveOff, { params: { id: ada }, body: { kind: "leave", until: "2026-12-01" } });
  expect((await house.ask(getMoves, {})).moves).toEqual([]);
  house.now = new Date("2026-12-01T12:00:00.000Z");
  expect((await house.ask(getMoves, {})).moves).toHaveLength(1);
  house.now = new Date("2026-11-20T12:00:00.000Z");
  // A child who needs the same and is in no group could join.
  await asked(di, targets);
  expect((await house.ask(getMoves, {})).moves).toMatchObject([{ kind: "join", childId: di, gpcs: targets }]);

  await house.ask(saveGroup, state([ben, cy], targets, 1, "2026-11-18T08:00:00.000Z", "Ada M. needs it no longer."));
  expect((await house.ask(getMoves, {})).looks).toEqual([]);
  house.now = new Date("2026-12-03T12:00:00.000Z");
  expect((await house.ask(getMoves, {})).looks).toMatchObject([
    {
      childId: ada,
      name: "Ada M.",
      groupName: "Otters",
      leftOn: "2026-11-18",
      weeks: 2,
      due: "2026-12-02",
      gpcs: targets,
    },
  ]);
  await asked(ada, [], ["2026-12-03"]);
  expect((await house.ask(getMoves, {})).looks).toEqual([]);
  house.now = new Date("2026-11-20T12:00:00.000Z");
});

test("groups stand as they were on any day, with why they were changed", async () => {
  const on = async (day: string) => (await house.ask(getGroupsOn, { params: { day } })).groups;
  expect(await on("2026-09-20")).toEqual([]);
  expect(await on("2026-11-17")).toMatchObject([
    {
      name: "Otters",
      since: "2026-09-21",
      why: "",
      members: [{ name: "Ada M." }, { name: "Ben T." }, { name: "Cy F." }],
    },
  ]);
  expect(await on("2026-11-20")).toMatchObject([
    { since: "2026-11-18", why: "Ada M. needs it no longer.", members: [{ name: "Ben T." }, { name: "Cy F." }] },
  ]);
});

test("the whole school in counts: who is in a group, what was held and missed, what is read of what was taught", async () => {
  const ids = [uuid(), uuid()];
  const target = taught.at(-1) as string;
  for (const [at, heldOn] of ["2026-11-17", "2026-11-18"].entries())
    await house.ask(planNewSession, { body: { id: ids[at] as string, groupId, heldOn, target, seed: 1 } });
  const { parts } = await house
    .ask(planNewSession, {
      body: { id: ids[0] as string, groupId, heldOn: "2026-11-17", target, seed: 1 },
    })
    .then(({ plan }) => plan);
  await house.ask(reportSession, {
    params: { id: ids[0] as string },
    body: {
      id: uuid(),
      by: "Jo P.",
      at: "2026-11-17T10:00:00.000Z",
      came: [ben, cy],
      reached: null,
      marks: [],
      note: "",
    },
  });
  const { classes, groups } = await house.ask(getOverview, {});
  expect(classes).toMatchObject([{ name: "Kiln", children: 4, inGroup: 2 }]);
  expect(groups).toMatchObject([{ name: "Otters", children: 2, held: 1, missed: 1, taught: 2, read: 0 }]);
  expect(groups[0]?.minutes).toBe(parts.reduce((sum, { minutes }) => sum + minutes, 0));
});

test("what was mixed up twice stands as a contrast with its evidence, weighs, and is put off and refused like a spelling", async () => {
  const [one, other] = taught as [string, string];
  const { checks } = await begin(
    house,
    [di],
    [part("card", { scope: "picked", picked: [one, other] })],
    "2026-11-19T08:00:00.000Z",
  );
  const sound = (gpc: string) => gpc.slice(gpc.indexOf("=") + 1);
  if (checks[0])
    await markAll(
      house,
      checks[0],
      (item) => ({ outcome: "wrong", heard: sound(item === one ? other : one), units: null }),
      { day: "2026-11-19", markedAt: "2026-11-19T08:10:00.000Z" },
    );
  const of = async () =>
    (await house.ask(getOtherNeeds, { query: { classId } })).children.find(({ id }) => id === di)?.needs ?? [];
  const contrast = (await of()).find(({ kind }) => kind === "contrast");
  expect(contrast).toMatchObject({ misses: 2, lastDay: "2026-11-19" });
  expect(contrast?.items).toHaveLength(2);
  const worth = await house.ask(getWorth, { query: {} });
  expect(worth.rows.find(({ id }) => id === di)?.mixed[worth.gpcs.indexOf(one)]).toBe(2);
  const body = { gpc: contrast?.id ?? "", how: "struck" as const, until: null };
  await house.ask(sayNextOfChild, { params: { id: di }, body });
  expect((await house.ask(getNext, {})).children).toContainEqual(
    expect.objectContaining({ id: di, said: [expect.objectContaining({ gpc: body.gpc, how: "struck" })] }),
  );
  expect(
    await house.refused(sayNextOfChild, { params: { id: di }, body: { ...body, gpc: "blend everything" } }),
  ).toMatchObject({ status: 422 });
});

test("the map has the points of the order, and those of the school's own; worth tells texts and what comes next", async () => {
  const { points, columns } = await house.ask(getGaps, { query: {} });
  expect(points.flatMap(({ gpcs }) => gpcs).sort()).toEqual(columns.map(({ gpc }) => gpc).sort());
  expect(points.map(({ name }) => name)).toContain("doubled letters at the end");
  const worth = await house.ask(getWorth, { query: {} });
  const row = worth.rows.find(({ id }) => id === ben);
  const at = worth.gpcs.indexOf(taught.at(-1) as string);
  expect(row?.opens[at]).toBeGreaterThan(0);
  expect(row?.next.some((words) => words > 0)).toBe(true);
  expect([row?.opens.length, row?.texts.length, row?.next.length]).toEqual(Array(3).fill(worth.gpcs.length));
  // What ships stays as it is; a copy of the school's own would have points by its own names.
  const order = (await house.ask(getSchool, {})).orders[0];
  const content = { ...order?.content, points: [{ name: "ours", gpcs: ["s=s", "a=a"] }] };
  expect(
    await house.refused(editOrder, {
      params: { id: order?.id ?? "" },
      body: { version: 1, content: content as never },
    }),
  ).toMatchObject({ status: 422 });
});

test("what a group can read follows its limit: with all but one, what one of two reads is enough", async () => {
  const pair = uuid();
  const members = [ada, di].map((childId) => ({ childId, locked: false }));
  const body = { versionId: uuid(), version: 0, name: "Coots", targets: [], at: "2026-11-18T09:00:00.000Z", why: "" };
  await house.ask(saveGroup, { params: { id: pair }, body: { ...body, members } });
  const readable = async () => new Set((await house.ask(getReaders, { query: { groupId: pair } })).known);
  // Ada M. reads the last two that were taught, Di R. does not.
  const last = taught.slice(-2);
  const before = await readable();
  expect(last.filter((gpc) => before.has(gpc))).toEqual([]);
  await house.ask(setGroupReads, { params: { id: pair }, body: { reads: "allButOne" } });
  const after = await readable();
  expect(last.filter((gpc) => after.has(gpc))).toEqual(last);
});
