import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  editChild,
  eraseLeavers,
  getSchool,
  getSession,
  listChildren,
  listErased,
  listLeavers,
  planNewSession,
  saveGroup,
  setKeeping,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";

let house: TestHouse;
let classId: string;
beforeAll(async () => {
  house = await openTestHouse();
  classId = (await oneOfEach(house.ask, "Reed")).classId;
});
afterAll(() => house.close());

const uuid = () => crypto.randomUUID();
const leavers = () => house.ask(listLeavers, {});

async function child(name: string): Promise<string> {
  const id = uuid();
  await house.ask(addChild, { body: { id, classId, name, note: "" } });
  return id;
}
async function archive(id: string, archived = true): Promise<void> {
  const { version = 0 } = (await house.ask(listChildren, {})).find((one) => one.id === id) ?? {};
  await house.ask(editChild, { params: { id }, body: { archived, version } });
}

test("children who left are listed by when they are due; who comes back is not, and leaves anew", async () => {
  const [ada, ben] = [await child("Ada M."), await child("Ben T.")];
  expect((await leavers()).leavers).toEqual([]);
  await archive(ada);
  house.now = new Date("2026-12-01T09:00:00.000Z");
  await archive(ben);
  // An edit of one who left is no leaving.
  const { version = 0 } = (await house.ask(listChildren, {})).find((one) => one.id === ada) ?? {};
  await house.ask(editChild, { params: { id: ada }, body: { note: "moved north", archived: true, version } });
  expect((await leavers()).leavers.map(({ id, leftOn, dueOn }) => [id, leftOn, dueOn])).toEqual([
    [ada, "2026-11-20", "2027-11-20"],
    [ben, "2026-12-01", "2027-12-01"],
  ]);
  await archive(ada, false);
  expect((await leavers()).leavers.map((one) => one.id)).toEqual([ben]);
  await archive(ada);
  expect((await leavers()).leavers.map((one) => one.leftOn)).toEqual(["2026-12-01", "2026-12-01"]);
  await archive(ada, false);
  house.now = new Date("2026-11-20T09:00:00.000Z");
});

test("the school says after how many months they are due, and for how many weeks it keeps its backups", async () => {
  const cy = await child("Cy");
  await archive(cy);
  const { version, keeping } = await house.ask(getSchool, {});
  expect(keeping).toEqual({ leaversMonths: 12, backupWeeks: 8, trailMonths: 24 });
  await house.ask(setKeeping, { body: { leaversMonths: 1, backupWeeks: 4, trailMonths: 12, version } });
  expect(
    await house.refused(setKeeping, { body: { leaversMonths: 3, backupWeeks: 8, trailMonths: 12, version } }),
  ).toMatchObject({
    status: 409,
    both: { theirs: { keeping: { leaversMonths: 1, backupWeeks: 4, trailMonths: 12 } } },
  });
  const due = async () => (await leavers()).leavers.find((one) => one.id === cy);
  expect(await due()).toMatchObject({ dueOn: "2026-12-20", due: false });
  house.now = new Date("2026-12-20T09:00:00.000Z");
  expect(await due()).toMatchObject({ due: true });
  house.now = new Date("2026-11-20T09:00:00.000Z");
});

test("those who left are erased in one go, one who is here is not; devices are told ids and no name", async () => {
  const [dee, eve, here] = [await child("Dee"), await child("Eve"), await child("Flo")];
  await archive(dee);
  await archive(eve);
  const before = (await house.ask(getSchool, {})).erased;
  expect((await leavers()).inBackupsUntil).toBeNull();
  expect(await house.ask(eraseLeavers, { body: { ids: [dee, eve, here, uuid()] } })).toEqual({ erased: 2 });
  expect(await house.ask(eraseLeavers, { body: { ids: [dee, eve] } })).toEqual({ erased: 0 });
  const left = (await house.ask(listChildren, {})).map((one) => one.id);
  expect([dee, eve, here].map((id) => left.includes(id))).toEqual([false, false, true]);
  expect((await house.ask(getSchool, {})).erased).toBe(before + 2);
  const told = await house.ask(listErased, {});
  expect(told.ids).toEqual(expect.arrayContaining([dee, eve]));
  expect(JSON.stringify(told)).not.toMatch(/Dee|Eve/);
  // Four weeks, by the test before, and the day of the erasing itself.
  expect((await leavers()).inBackupsUntil).toMatch(/^\d{4}-\d\d-\d\d$/);
});

test("of several at once each is named nowhere in what was said and planned of them, and nothing else is touched", async () => {
  const [ida, jon, kit] = [await child("Ida M."), await child("Jon T."), await child("Kit F.")];
  const [both, apart, sessionId, otherId] = [uuid(), uuid(), uuid(), uuid()];
  for (const [id, ids] of [
    [both, [ida, jon, kit]],
    [apart, [kit]],
  ] as const) {
    const members = ids.map((childId) => ({ childId, locked: false }));
    const version = {
      versionId: uuid(),
      version: 0,
      name: id.slice(0, 6),
      targets: ["m=m"],
      at: "2026-11-20T08:00:00.000Z",
    };
    await house.ask(saveGroup, { params: { id }, body: { ...version, members } });
  }
  for (const [id, groupId, note] of [
    [sessionId, both, "Ida helped Jon; Kit listened. Idaho."],
    [otherId, apart, "Ida waved from the door."],
  ] as const) {
    await house.ask(planNewSession, { body: { id, groupId, heldOn: "2026-11-20", target: "m=m", seed: 1 } });
    const report = {
      id: uuid(),
      by: "Jo P.",
      at: "2026-11-20T10:00:00.000Z",
      came: [kit],
      reached: null,
      marks: [],
      note,
    };
    await house.school.sessions.insertReport(id, report, { day: "2026-11-20", byLink: false });
  }
  const cardsOf = async () => {
    const plan = (await house.ask(getSession, { params: { id: sessionId } })).plan;
    return new Set(plan.parts.flatMap(({ each }) => each?.map(({ childId }) => childId) ?? []));
  };
  expect(await cardsOf()).toEqual(new Set([ida, jon, kit]));
  for (const [at, id] of [ida, jon].entries())
    await house.school.week.addFeed({ id: uuid(), whose: `child:${id}` }, `hash of ${at}`);
  await archive(ida);
  await archive(jon);
  expect(await house.ask(eraseLeavers, { body: { ids: [ida, jon] } })).toEqual({ erased: 2 });
  const noteOf = async (id: string) => (await house.school.sessions.reportsOf([id]))[0]?.note;
  expect(await noteOf(sessionId)).toBe("this child helped this child; Kit listened. Idaho.");
  // A session in which it had no place: that may be another Ida.
  expect(await noteOf(otherId)).toBe("Ida waved from the door.");
  expect(await cardsOf()).toEqual(new Set([kit]));
  expect((await house.ask(getSession, { params: { id: sessionId } })).members.map(({ id }) => id)).toEqual([kit]);
  const feeds = (await house.school.week.feeds()).map(({ whose }) => whose);
  expect(feeds).not.toEqual(expect.arrayContaining([`child:${ida}`]));
  expect(feeds).not.toEqual(expect.arrayContaining([`child:${jon}`]));
});
