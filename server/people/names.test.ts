import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addPerson, bringBackPerson, editPerson, listPeople, type PersonView, removePerson } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";

/** Marks carry names: one stands for one person of the school, for good. */

let house: TestHouse;
beforeAll(async () => {
  house = await openTestHouse();
  // With marks by "Mine D.".
  await oneOfEach(house.ask, "Mine");
});
afterAll(() => house.close());

const bodyOf = (name: string, typedNames: string[] = []) => ({
  ...{ name, role: "teacher" as const, classIds: [], groupIds: [], typedNames },
});
async function added(name: string, typedNames: string[] = []): Promise<string> {
  const id = uuid();
  await house.ask(addPerson, { body: { id, ...bodyOf(name, typedNames) } });
  return id;
}
const refusal = async (body: ReturnType<typeof bodyOf>) => {
  const told = await house.refused(addPerson, { body: { id: uuid(), ...body } });
  expect(told.fields).toMatchObject([{ field: "name" }]);
  return told.detail;
};
async function personOf(id: string): Promise<PersonView> {
  const found = (await house.ask(listPeople, {})).people.find((one) => one.id === id);
  if (!found) throw new Error("not here");
  return found;
}
const rename = async (id: string, name: string, typedNames?: string[]) => {
  const { version, typedNames: before } = await personOf(id);
  await house.ask(editPerson, { params: { id }, body: { version, ...bodyOf(name, typedNames ?? before) } });
};

test("under a new name marks of the old one stay theirs, and no one else can have it", async () => {
  const id = await added("Mine D.");
  expect((await house.ask(listPeople, {})).typed).not.toContain("Mine D.");
  await rename(id, "Mine Oakes");
  expect((await personOf(id)).typedNames).toEqual(["Mine D."]);
  expect((await house.ask(listPeople, {})).typed).not.toContain("Mine D.");
  expect(await refusal(bodyOf("mine d."))).toMatch(/^Marks under the name mine d\. are Mine Oakes's\./);
  // Back under the name of before, which is their own.
  await rename(id, "Mine D.");
  expect(await personOf(id)).toMatchObject({ name: "Mine D.", typedNames: ["Mine Oakes"] });
  await rename(id, "Mine D.", []);
  expect((await personOf(id)).typedNames).toEqual([]);
});

test("a typed name is one person's", async () => {
  const id = await added("Mr Birk", ["B. Birk"]);
  expect(await refusal(bodyOf("Mx Sloe", ["B. Birk"]))).toMatch(/Nothing was changed\.$/);
  expect(await refusal(bodyOf("Mx Sloe", ["Mr Birk"]))).toMatch(/is called Mr Birk/);
  const sloe = await added("Mx Sloe");
  const { version } = await personOf(sloe);
  const taking = { params: { id: sloe }, body: { version, ...bodyOf("Mx Sloe", ["B. Birk"]) } };
  expect((await house.refused(editPerson, taking)).status).toBe(422);
  expect((await personOf(sloe)).typedNames).toEqual([]);
  // Whoever has a name already keeps it through any other change.
  await rename(id, "Mr Birk", ["B. Birk"]);
});

test("the name of someone who left is theirs until they are back, as who they were", async () => {
  const id = await added("Ms Fenn");
  await house.ask(removePerson, { params: { id } });
  expect((await house.ask(listPeople, {})).left).toMatchObject([{ id, name: "Ms Fenn", role: "teacher" }]);
  expect(await refusal(bodyOf("Ms Fenn"))).toMatch(/who left, had this name.*bring them back/);
  await added("Ms Fenn-Lark");
  await house.ask(bringBackPerson, { params: { id } });
  // Said again it changes nothing.
  await house.ask(bringBackPerson, { params: { id } });
  expect(await personOf(id)).toMatchObject({ role: "teacher", classIds: [], groupIds: [], signsIn: "none" });
  expect((await house.ask(listPeople, {})).left).toEqual([]);
  expect((await house.refused(bringBackPerson, { params: { id: uuid() } })).status).toBe(404);
});
