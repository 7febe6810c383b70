import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addPerson,
  getGiven,
  getSchool,
  getToday,
  giveSitting,
  markTaught,
  removePerson,
} from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { begin, part } from "./marking.ts";

let house: TestHouse;
const [kiln, towpath] = [uuid(), uuid()];
const [ada, ben] = [uuid(), uuid()];
const people = { lead: uuid(), kiln: uuid(), both: uuid(), observer: uuid() };
let sittingId = "";

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  const order = (await house.ask(getSchool, {})).orders[0];
  for (const [id, childId, name] of [
    [kiln, ada, "Kiln"],
    [towpath, ben, "Towpath"],
  ] as const) {
    await house.ask(addClass, { body: { id, name, yearGroup: "", orderId: order?.id ?? "" } });
    const stepId = order?.content.steps[3]?.id ?? "";
    const taught = { id: uuid(), stepId, taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
    await house.ask(markTaught, { params: { id }, body: taught });
    await house.ask(addChild, { body: { id: childId, classId: id, name: `${name} C.`, note: "" } });
  }
  const person = (id: string, name: string, role: "lead" | "teacher" | "observer", classIds: string[]) =>
    house.ask(addPerson, { body: { id, name, role, classIds, groupIds: [], typedNames: [], adultId: null } });
  await person(people.lead, "Mrs Quill", "lead", []);
  await person(people.kiln, "Ms Harrow", "teacher", [kiln]);
  await person(people.both, "Mr Tolley", "teacher", [kiln, towpath]);
  await person(people.observer, "Dr Sedge", "observer", []);
  sittingId = (await begin(house, [ada, ben], [part("card", { scope: "all" })])).id;
});
afterAll(() => house.close());

const given = async () => (await house.ask(getToday, {})).openSittings[0]?.givenTo;
const give = (to: string | null, id = sittingId) => ({ params: { id }, body: { to } });

test("a check is given to someone who has all of its children, and is whoever's again", async () => {
  expect(await given()).toBeNull();
  const could = await house.ask(getGiven, { params: { id: sittingId } });
  expect(could).toEqual({
    to: null,
    colleagues: [
      { id: people.both, name: "Mr Tolley" },
      { id: people.lead, name: "Mrs Quill" },
    ],
  });
  await house.ask(giveSitting, give(people.both));
  // Said again it changes nothing.
  await house.ask(giveSitting, give(people.both));
  expect(await given()).toEqual({ name: "Mr Tolley", isMe: false });
  expect((await house.ask(getGiven, { params: { id: sittingId } })).to).toBe(people.both);
  await house.ask(giveSitting, give(null));
  expect(await given()).toBeNull();
});

test("whoever has not all of its children, sees numbers alone, or is no one is refused; no such check is not here", async () => {
  await house.ask(giveSitting, give(people.lead));
  for (const to of [people.kiln, people.observer, uuid()]) {
    const told = await house.refused(giveSitting, give(to));
    expect(told.status).toBe(422);
    expect(told.detail).toMatch(/Nothing was changed/);
  }
  expect(await given()).toEqual({ name: "Mrs Quill", isMe: false });
  expect((await house.refused(giveSitting, give(null, uuid()))).status).toBe(404);
  expect((await house.refused(getGiven, { params: { id: uuid() } })).status).toBe(404);
});

test("of someone who has left it is whoever's", async () => {
  await house.ask(giveSitting, give(people.both));
  await house.ask(removePerson, { params: { id: people.both } });
  expect(await given()).toBeNull();
  expect((await house.ask(getGiven, { params: { id: sittingId } })).to).toBeNull();
});
