import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { addClass, addOrder, editClass, editOrder, getSchool, markTaught } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const uuid = () => crypto.randomUUID();
const at = "2026-11-20T08:31:00.000Z";

async function makeClass(name: string): Promise<{ id: string; orderId: string }> {
  const id = uuid();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id, name, yearGroup: "", orderId } });
  return { id, orderId };
}
const taughtTo = (id: string) => house.school.taught.taughtToClass(id);
const names = async () => (await house.school.classes.brief()).map((one) => one.name);

describe("the outline of a school, kept by its number", () => {
  test("is as what was written last: classes, how far they are taught, orders", async () => {
    const { id, orderId } = await makeClass("Loom");
    expect((await taughtTo(id)).gpcs).toEqual([]);
    await house.ask(markTaught, { params: { id }, body: { id: uuid(), stepId: "s2", taughtOn: "2026-11-02", at } });
    const two = (await taughtTo(id)).gpcs;
    expect(two.length).toBeGreaterThan(0);
    await house.ask(markTaught, { params: { id }, body: { id: uuid(), stepId: "s3", taughtOn: "2026-11-03", at } });
    expect((await taughtTo(id)).gpcs.length).toBeGreaterThan(two.length);
    await house.ask(editClass, { params: { id }, body: { name: "Shed" } });
    expect(await names()).toContain("Shed");

    const own = uuid();
    const { order } = await taughtTo(id);
    const content = { ...order, name: "Ours", steps: order.steps.slice(0, 3).map((step) => ({ ...step })) };
    await house.ask(addOrder, { body: { id: own, content } });
    await house.ask(editClass, { params: { id }, body: { orderId: own } });
    expect((await taughtTo(id)).order.name).toBe("Ours");
    await house.ask(editOrder, {
      params: { id: own },
      body: { content: { ...content, name: "Ours, again" }, version: 1 },
    });
    expect((await taughtTo(id)).order.name).toBe("Ours, again");
    expect(orderId).not.toBe(own);
  });

  test("a transaction sees what it wrote itself, and what is taken back was never there", async () => {
    const { orderId } = await makeClass("Kiln");
    const add = () => house.school.classes.insert({ id: uuid(), name: "Never", yearGroup: "", orderId });
    await expect(
      house.school.together(async () => {
        await names();
        await add();
        expect(await names()).toContain("Never");
        throw new Error("taken back");
      }),
    ).rejects.toThrow("taken back");
    expect(await names()).not.toContain("Never");
    // The number that was taken back comes again, for something else.
    await makeClass("Dairy");
    expect(await names()).toEqual(expect.arrayContaining(["Kiln", "Dairy"]));
    expect(await names()).not.toContain("Never");
  });

  test("what another process wrote is seen: it counts the number up too", async () => {
    const { id } = await makeClass("Barn");
    await names();
    const rename = sql`update classes set name = 'Byre' where id = ${id}::uuid`;
    await house.store.owner.execute(rename);
    expect(await names()).toContain("Barn");
    await house.store.owner.execute(sql`update schools set outline = outline + 1`);
    expect(await names()).toContain("Byre");
  });

  test("nothing but its own tables counts it up", async () => {
    const number = async () => {
      const told = await house.store.owner.execute(sql`select outline from schools`);
      return (told as unknown as { rows: { outline: number }[] }).rows[0]?.outline;
    };
    const before = await number();
    await house.school.settings.change({ name: "Marlpit" }, null);
    await names();
    expect(await number()).toBe(before);
    await makeClass("Mill");
    expect(await number()).toBe((before ?? 0) + 1);
  });
});
