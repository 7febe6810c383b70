import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addClass } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
});
afterAll(() => house.close());

const orders = () => house.school.orders.list();

test("a start brings the orders that ship now; one that ships no more stays with the class that follows it", async () => {
  const [first] = await orders();
  if (!first) throw new Error("nothing ships");
  const [followed, left] = [uuid(), uuid()];
  await house.school.orders.setShipped(followed, { ...first.content, name: "Of a program before" });
  await house.school.orders.setShipped(left, { ...first.content, name: "That no one follows" });
  await house.ask(addClass, { body: { id: uuid(), name: "Kiln", yearGroup: "", orderId: followed } });
  // An older program wrote this one otherwise.
  await house.school.orders.setShipped(first.id, { ...first.content, why: "as it was" });
  const before = (await orders()).length;

  await house.school.orders.ship();
  const now = await orders();
  expect(now).toHaveLength(before - 1);
  expect(now.find(({ id }) => id === followed)).toMatchObject({
    shipped: false,
    content: { name: "Of a program before, as before" },
  });
  expect(now.find(({ id }) => id === left)).toBeUndefined();
  expect(now.find(({ id }) => id === first.id)?.content).toEqual(first.content);

  await house.school.orders.ship();
  expect(await orders()).toEqual(now);
});
