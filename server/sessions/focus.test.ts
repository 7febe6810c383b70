import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  editSession,
  fixBlockDays,
  getBlock,
  getGroup,
  getGrouping,
  getGroupsOn,
  getMoves,
  getOtherNeeds,
  getSchool,
  getSession,
  getToday,
  listSessions,
  markTaught,
  otherPart,
  planNewSession,
  removeSession,
  replanSession,
  saveGroup,
  sayNextOfChild,
  sayNextOfClass,
  setGrouping,
} from "#contract";
import { begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, otters, herons] = [uuid(), uuid(), uuid()];
const members = [uuid(), uuid(), uuid()];
const late = uuid();
const today = "2026-10-19";
const contrast = ["contrast sound b/d"];
const block = () => house.ask(getBlock, { params: { id: otters } });
const days = async () => (await block()).sessions.map(({ on }) => on);
/** What each of them says for the other. */
const mixed: Readonly<Record<string, string>> = { "b=b": "d", "d=d": "b" };

async function checked(childId: string, wrong: Readonly<Record<string, string>>) {
  for (const day of ["2026-10-05", "2026-10-12"]) {
    const { checks } = await begin(house, [childId], [part("card")], `${day}T08:00:00.000Z`);
    for (const check of checks)
      await markAll(
        house,
        check,
        (item) => (wrong[item] ? { outcome: "wrong", heard: wrong[item] } : { outcome: "right" }),
        { day, markedAt: `${day}T08:10:00.000Z` },
      );
  }
}

const groupOf = (id: string, ids: readonly string[], version = 0) =>
  house.ask(saveGroup, {
    params: { id },
    body: {
      ...{ versionId: uuid(), version, name: "Otters", targets: [], at: "2026-10-19T07:00:00.000Z", why: "" },
      members: ids.map((childId) => ({ childId, locked: false })),
    },
  });

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date(`${today}T08:00:00.000Z`);
  const order = (await house.ask(getSchool, {})).orders[0];
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "Year 1", orderId: order?.id ?? "" } });
  const stepId = order?.content.steps[14]?.id ?? "";
  const mark = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: mark });
  for (const [at, id] of [...members, late].entries()) {
    await house.ask(addChild, { body: { id, classId, name: `Child ${at}`, note: "" } });
    await checked(id, id === late ? { "m=m": "n", "s=s": "t" } : mixed);
  }
  await groupOf(otters, members);
  await groupOf(herons, []);
});
afterAll(() => house.close());

test("what all of them mix up is what a session is about, with its reason; it can be put first or off", async () => {
  const { children } = await house.ask(getOtherNeeds, { query: {} });
  expect(children.filter(({ needs }) => needs.some(({ id }) => id === contrast[0]))).toHaveLength(3);
  const about = (await block()).sessions.filter(({ focus }) => focus);
  expect(about.length).toBeGreaterThan(0);
  expect(about[0]?.focus).toMatchObject({ ids: contrast, name: "“b” and “d” told apart", step: "new" });
  expect(new Set(about[0]?.focus?.for)).toEqual(new Set(members));
  expect(about[0]?.points).toEqual([]);
  await house.ask(sayNextOfClass, {
    params: { id: classId },
    body: { gpc: contrast[0] ?? "", how: "pinned", until: null },
  });
  expect((await block()).sessions[0]?.focus?.ids).toEqual(contrast);
});

test("a session about it is planned as the block has it: both spellings, pairs of words, its name on every list", async () => {
  const [first] = (await block()).sessions;
  const id = uuid();
  const body = { id, groupId: otters, heldOn: first?.on ?? "", target: null, focus: contrast, seed: 4 };
  const made = await house.ask(planNewSession, { body });
  expect(made.plan).toMatchObject({ focus: contrast, target: "b=b", second: "d=d" });
  const pairs = made.plan.parts.find(({ kind }) => kind === "pairs");
  expect(pairs?.items.length).toBeGreaterThan(0);
  // The same asking once more is the same session.
  expect((await house.ask(planNewSession, { body })).id).toBe(id);
  // About something else it is another session, which cannot have this one's id.
  for (const other of [{ focus: ["read said"] }, { focus: null, target: "s=s" }])
    expect((await house.refused(planNewSession, { body: { ...body, ...other } })).status).toBe(409);
  expect((await house.ask(listSessions, { query: {} })).find((one) => one.id === id)?.about).toBe(
    "“b” and “d” told apart",
  );
  const view = await house.ask(getToday, {});
  expect(view.sessions.find((one) => one.id === id)?.about ?? null).toBe(
    first?.on === today ? "“b” and “d” told apart" : null,
  );
  const now = (await block()).sessions.find(({ sessionId }) => sessionId === id);
  expect(now).toMatchObject({ by: "session", points: [], focus: { ids: contrast } });
  // One part filled with others stays that part.
  const at = made.plan.parts.findIndex(({ kind }) => kind === "readWords");
  const other = await house.ask(otherPart, { params: { id, at }, body: { version: made.version, seed: 9 } });
  expect(other.plan.parts.map(({ kind }) => kind)).toEqual(made.plan.parts.map(({ kind }) => kind));
  expect(other.plan.parts[at]?.items).not.toEqual(made.plan.parts[at]?.items);
  expect(other.plan.focus).toEqual(contrast);
  // Changed by hand it stays what it is about; filled anew it may be about something else, and about a spelling again.
  const { version } = await house.ask(editSession, {
    params: { id },
    body: { version: other.version, plan: other.plan },
  });
  const asked = (change: object) =>
    house.ask(replanSession, { params: { id }, body: { target: "m=m", version, seed: 3, ...change } as never });
  const blending = await asked({ focus: ["blend CVC"] });
  expect(blending.plan.focus).toEqual(["blend CVC"]);
  const plain = await asked({ version: blending.version });
  expect([plain.plan.focus, plain.plan.target]).toEqual([undefined, "m=m"]);
  expect((await house.ask(getSession, { params: { id } })).plan.focus).toBeUndefined();
  await house.ask(removeSession, { params: { id } });
});

test("left to the tool, the session of a day is about what the block has for it", async () => {
  const [first] = (await block()).sessions;
  const body = { id: uuid(), groupId: otters, heldOn: first?.on ?? "", target: null, seed: 4 };
  expect((await house.ask(planNewSession, { body })).plan.focus).toEqual(contrast);
  await house.ask(removeSession, { params: { id: body.id } });
});

test("a day is fixed to it and given back; what no session can be about is refused, and nothing is changed", async () => {
  const [, second = ""] = await days();
  const fix = (on: string, focus: readonly string[] | null, gpcs: string[] | null = []) => ({
    params: { id: otters },
    body: { days: [{ on, gpcs, focus: focus && [...focus] }] },
  });
  await house.ask(fixBlockDays, fix(second, ["read the"]));
  expect((await block()).sessions[1]).toMatchObject({
    ...{ by: "teacher", points: [] },
    focus: { ids: ["read the"], name: "the word “the”", for: [] },
  });
  const refused = await house.refused(fixBlockDays, fix(second, ["read the", "blend CVC"]));
  expect(refused).toMatchObject({ status: 422 });
  expect(refused.detail).toContain("needs of one kind");
  await house.ask(fixBlockDays, fix(second, null, null));
  expect((await block()).sessions[1]?.by).toBe("tool");
});

test("a group works on what is no spelling: kept in its states, shown with its targets, planned first, left when it is done", async () => {
  const save = (besides: string[], version: number) => ({
    params: { id: otters },
    body: {
      ...{
        versionId: uuid(),
        version,
        name: "Otters",
        targets: [],
        besides,
        at: "2026-10-19T07:05:00.000Z",
        why: "",
      },
      members: members.map((childId) => ({ childId, locked: false })),
    },
  });
  const refused = await house.refused(saveGroup, save(["b=b"], 1));
  expect(refused).toMatchObject({ status: 422 });
  expect(JSON.stringify(refused)).toContain("Choose it from the list");
  const saved = await house.ask(saveGroup, save([...contrast, ...contrast], 1));
  expect(saved).toMatchObject({ version: 2, besides: contrast, targets: [] });
  const { history } = await house.ask(getGroup, { params: { id: otters } });
  expect(history.map(({ besides }) => besides)).toEqual([contrast, []]);
  expect((await house.ask(getToday, {})).groups.find(({ id }) => id === otters)?.besides).toEqual(contrast);
  expect((await house.ask(getGroupsOn, { params: { day: today } })).groups[0]?.besides).toEqual(contrast);
  // Whoever mixes them up too could come in; whoever does not is ready to leave.
  const outside = uuid();
  await house.ask(addChild, { body: { id: outside, classId, name: "Child 9", note: "" } });
  await checked(outside, mixed);
  const body = save(contrast, 2);
  body.body.members = [...members.slice(0, 2), late].map((childId) => ({ childId, locked: false }));
  await house.ask(saveGroup, body);
  const { version, grouping } = await house.ask(getGrouping, {});
  await house.ask(setGrouping, { body: { version, grouping: { ...grouping, leaving: { by: "targets" } } } });
  const moves = async () =>
    (await house.ask(getMoves, {})).moves.map(({ kind, childId, gpcs, besides }) => [kind, childId, gpcs, besides]);
  expect(await moves()).toContainEqual(["leave", late, [], contrast]);
  await house.ask(sayNextOfChild, {
    params: { id: outside },
    body: { gpc: contrast[0] ?? "", how: "pinned", until: null },
  });
  expect(await moves()).toContainEqual(["join", outside, [], contrast]);
  await house.ask(sayNextOfChild, {
    params: { id: outside },
    body: { gpc: contrast[0] ?? "", how: "struck", until: null },
  });
  expect((await moves()).filter(([, childId]) => childId === outside)).toEqual([]);
  await house.ask(saveGroup, save([], 3));
});

test("a late starter is in the block from the day on which it joins, with what it needs", async () => {
  const before = (await block()).sessions.flatMap(({ cards, points }) => [
    ...cards.map(({ childId }) => childId),
    ...points.flatMap((point) => point.for),
  ]);
  expect(before).not.toContain(late);
  await groupOf(otters, [...members, late], 4);
  const { sessions } = await block();
  expect(sessions.flatMap(({ cards }) => cards.map(({ childId }) => childId))).toContain(late);
  for (const { focus } of sessions) expect(focus?.for ?? []).not.toContain(late);
});
