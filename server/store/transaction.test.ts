import { afterAll, beforeAll, expect, test } from "vitest";
import type { School } from "../house.ts";
import { addSchool } from "../people/schools.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

// The transaction of a school: what is asked within it joins it, and it is kept or taken back whole.

let house: TestHouse;
let other: School;
const classId = crypto.randomUUID();
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = house.shipped.orders[0]?.id ?? "";
  await house.school.classes.insert({ id: classId, name: "Reed", yearGroup: "", orderId });
  other = house.all.as({ schoolId: (await addSchool(house.store.owner, "Orm Tower")).id });
});
afterAll(() => house.close());

test("joins the one that is open; nothing waits for itself, and it is kept or taken back whole", async () => {
  const { school } = house;
  await expect(
    school.together(async () => {
      await school.settings.change({ name: "Half" }, null);
      await school.together(() => school.classes.update(classId, { name: "Half" }));
      throw new Error("the line broke");
    }),
  ).rejects.toThrow("the line broke");
  expect([(await school.settings.read()).name, (await school.classes.find(classId))?.name]).toEqual(["", "Reed"]);
});

test("tells what it has to tell once it is kept, and never when it was taken back", async () => {
  const { school } = house;
  const told: string[] = [];
  await school.together(async () => {
    school.afterwards(() => told.push("kept"));
    expect(told).toEqual([]);
  });
  await school
    .together(async () => {
      school.afterwards(() => told.push("lost"));
      throw new Error("no");
    })
    .catch(() => undefined);
  school.afterwards(() => told.push("at once"));
  expect(told).toEqual(["kept", "at once"]);
});

test("of one school does not reach into another", async () => {
  await expect(house.school.together(() => other.classes.list())).rejects.toThrow(/one school is open/);
});

test("of two schools in turn, however often the same is asked, each sees and changes its own", async () => {
  for (let round = 0; round < 8; round++) {
    expect((await house.school.classes.find(classId))?.name).toBe("Reed");
    expect(await other.classes.find(classId)).toBeUndefined();
    await house.school.settings.change({ name: `Here ${round}` }, null);
    await other.settings.change({ name: `There ${round}` }, null);
    expect((await house.school.settings.read()).name).toBe(`Here ${round}`);
    expect((await other.settings.read()).name).toBe(`There ${round}`);
    expect(await other.classes.update(classId, { name: "Rush" })).toBeFalsy();
  }
});
