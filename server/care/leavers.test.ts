import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  editChild,
  eraseLeavers,
  getSchool,
  listChildren,
  listErased,
  listLeavers,
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
