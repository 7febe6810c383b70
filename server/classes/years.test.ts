import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  beginYear,
  editChild,
  editClass,
  eraseChild,
  getSchool,
  lastYear,
  listChildren,
  listLeavers,
  markTaught,
  undoYear,
} from "#contract";
import { movedUp } from "#core/roster";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const uuid = () => crypto.randomUUID();
const at = "2026-11-20T08:31:00.000Z";
const classes = async () => (await house.ask(getSchool, {})).classes;
const open = async () => (await classes()).filter((one) => !one.archived);
const children = () => house.ask(listChildren, {});
const where = async () =>
  Object.fromEntries((await children()).map(({ name, classId, archived }) => [name, archived ? "left" : classId]));

/** Two classes of their own, each with two children, taught up to another step. */
async function twoClasses(word: string) {
  const [first, second] = [uuid(), uuid()];
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  const kids: Record<string, string> = {};
  for (const [id, name, yearGroup, stepId] of [
    [first, `${word} Kiln`, "Year 1", "s3"],
    [second, `${word} Loom 2`, "Year 2", "s5"],
  ] as const) {
    await house.ask(addClass, { body: { id, name, yearGroup, orderId } });
    await house.ask(markTaught, { params: { id }, body: { id: uuid(), stepId, taughtOn: "2026-11-02", at } });
    for (const child of ["Ada", "Ben"]) {
      const childId = uuid();
      kids[`${child} ${yearGroup}`] = childId;
      await house.ask(addChild, {
        body: { id: childId, classId: id, name: `${word} ${child} ${id}`.slice(0, 60), note: "" },
      });
    }
  }
  return { first, second, kids, orderId };
}
const planned = async (leaving: string[] = []) =>
  movedUp((await open()).map(({ id, name, yearGroup }) => ({ id, name, yearGroup }))).map((one) => ({
    ...one,
    leaves: leaving.includes(one.id),
  }));

describe("a new school year", () => {
  test("classes move up with their orders and what they were taught, leave, are new; children change class; and all of it back", async () => {
    const { first, second, kids, orderId } = await twoClasses("One");
    const before = { classes: await classes(), where: await where() };
    const added = { id: uuid(), name: "One New", yearGroup: "Year 1", orderId };
    const body = {
      id: uuid(),
      classes: await planned([second]),
      added: [added],
      children: [
        { id: kids["Ada Year 1"] ?? "", from: first, to: added.id },
        { id: kids["Ada Year 2"] ?? "", from: second, to: first },
      ],
    };
    const year = await house.ask(beginYear, { body });
    expect(year).toMatchObject({ counts: { added: 1, moved: 2, left: 1 }, undoneAt: null });
    expect(year.until).toBe("2026-11-21T09:00:00.000Z");
    // Sent again it is one year.
    expect(await house.ask(beginYear, { body })).toEqual(year);
    expect((await house.ask(lastYear, {})).year).toEqual(year);

    const after = new Map((await classes()).map((one) => [one.id, one]));
    expect(after.get(first)).toMatchObject({
      name: "One Kiln",
      yearGroup: "Year 2",
      stepId: "s3",
      orderId,
      children: 2,
    });
    expect(after.get(second)).toMatchObject({ archived: true, stepId: "s5" });
    expect(after.get(added.id)).toMatchObject({ name: "One New", children: 1, stepId: null });
    const there = new Map((await children()).map((one) => [one.id, one]));
    expect(there.get(kids["Ada Year 2"] ?? "")).toMatchObject({ classId: first, archived: false });
    expect(there.get(kids["Ben Year 2"] ?? "")).toMatchObject({ classId: second, archived: true });
    const { leavers } = await house.ask(listLeavers, {});
    expect(leavers.map(({ id, leftOn, dueOn, due }) => ({ id, leftOn, dueOn, due }))).toEqual([
      { id: kids["Ben Year 2"], leftOn: "2026-11-20", dueOn: "2027-11-20", due: false },
    ]);

    expect(await house.ask(undoYear, { params: { id: year.id } })).toEqual({ done: true, kept: [] });
    expect({ classes: await classes(), where: await where() }).toEqual(before);
    expect((await house.ask(lastYear, {})).year).toMatchObject({ until: null, undoneAt: "2026-11-20T09:00:00.000Z" });
    expect(await house.ask(undoYear, { params: { id: year.id } })).toEqual({ done: true, kept: [] });
    expect((await house.ask(listLeavers, {})).leavers).toEqual([]);
  });

  test("what someone changed since stays when it is taken back, and is told", async () => {
    const { first, second, kids } = await twoClasses("Two");
    const [ada = "", ben = ""] = [kids["Ada Year 2"], kids["Ben Year 2"]];
    const year = await house.ask(beginYear, {
      body: {
        id: uuid(),
        classes: await planned([second]),
        added: [],
        children: [{ id: ada, from: second, to: first }],
      },
    });
    await house.ask(editClass, { params: { id: first }, body: { name: "Two Shed" } });
    const { version = 0 } = (await children()).find((one) => one.id === ada) ?? {};
    await house.ask(editChild, { params: { id: ada }, body: { note: "glasses", version } });
    const { kept } = await house.ask(undoYear, { params: { id: year.id } });
    expect(kept).toHaveLength(2);
    expect(kept[0]).toBe("Two Shed was changed since, and stays as it is.".replace("Two Shed", "Two Kiln"));
    expect(kept[1]).toMatch(/^Two Ada .* was changed since/);
    const now = new Map((await children()).map((one) => [one.id, one]));
    expect(now.get(ada)).toMatchObject({ classId: first, note: "glasses" });
    expect(now.get(ben)).toMatchObject({ classId: second, archived: false });
    expect((await classes()).find((one) => one.id === first)?.name).toBe("Two Shed");
  });

  test("is refused whole: two of one name, a child who is elsewhere meanwhile, an order that is gone", async () => {
    const { first, second, kids, orderId } = await twoClasses("Three");
    const before = JSON.stringify([await classes(), await children()]);
    const [ada = ""] = [kids["Ada Year 1"]];
    const refuse = async (more: object) => {
      const plan = { id: uuid(), classes: await planned(), added: [], children: [] };
      return house.refused(beginYear, { body: { ...plan, ...more } });
    };
    const same = await refuse({ added: [{ id: uuid(), name: "three kiln", yearGroup: "", orderId }] });
    expect(same).toMatchObject({ status: 422, detail: expect.stringContaining("Two classes") });
    expect(await refuse({ children: [{ id: ada, from: second, to: null }] })).toMatchObject({ status: 409 });
    expect(await refuse({ classes: [{ id: uuid(), name: "x", yearGroup: "", leaves: false }] })).toMatchObject({
      status: 409,
    });
    expect(await refuse({ added: [{ id: uuid(), name: "x", yearGroup: "", orderId: uuid() }] })).toMatchObject({
      status: 422,
    });
    const gone = await refuse({
      classes: (await planned([second])).filter((one) => one.id === second),
      children: [{ id: ada, from: first, to: second }],
    });
    expect(gone).toMatchObject({ status: 422, fields: [{ field: ada }] });
    expect(JSON.stringify([await classes(), await children()])).toBe(before);
  });

  test("can be taken back for a day; a child who is erased meanwhile is named nowhere", async () => {
    const { first, second, kids } = await twoClasses("Four");
    house.now = new Date("2026-11-20T09:00:01.000Z");
    const year = await house.ask(beginYear, {
      body: { id: uuid(), classes: await planned([second]), added: [], children: [] },
    });
    const gone = kids["Ben Year 2"] ?? "";
    await house.ask(eraseChild, { params: { id: gone } });
    const rows = (await house.store.owner.execute("select before::text as text from years")) as unknown as {
      rows: { text: string | null }[];
    };
    expect(rows.rows.some(({ text }) => text?.includes(kids["Ada Year 2"] ?? "-"))).toBe(true);
    expect(rows.rows.some(({ text }) => text?.includes(gone))).toBe(false);
    house.now = new Date("2026-11-21T09:00:02.000Z");
    expect(await house.refused(undoYear, { params: { id: year.id } })).toMatchObject({
      status: 422,
      detail: expect.stringContaining("for a day"),
    });
    await house.school.years.forgetBefore("2026-11-21T09:00:02.000Z");
    expect((await house.ask(lastYear, {})).year).toMatchObject({ id: year.id, until: null, undoneAt: null });
    expect((await classes()).find((one) => one.id === first)?.yearGroup).toBe("Year 2");
    house.now = new Date("2026-11-20T09:00:00.000Z");
  });
});
