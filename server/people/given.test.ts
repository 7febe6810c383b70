import { randomUUID as uuid } from "node:crypto";
import { addDays, parseISO } from "date-fns";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addPerson,
  getGiven,
  getSchool,
  getSession,
  getToday,
  give,
  listGroups,
  listSessions,
  markTaught,
  planNewSession,
  type Role,
  readTrail,
  removePerson,
  saveGroup,
} from "#contract";
import { begin, part } from "../checks/marking.ts";
import type { Actor } from "../frame/actor.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [kiln, towpath] = [uuid(), uuid()];
const [ada, ben] = [uuid(), uuid()];
const people = { lead: uuid(), kiln: uuid(), both: uuid(), observer: uuid() };
let sittingId = "";
/** A group with a session, and an assistant to whom neither is given. */
const [otters, sessionId, jo] = [uuid(), uuid(), uuid()];
/** Who asks; the lead of this machine where it is no one. */
let asks: Actor | undefined;

beforeAll(async () => {
  house = await openTestHouse(undefined, (usual) => ({
    ...usual,
    memberOf: async (request) => asks ?? usual.memberOf(request),
  }));
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
  const person = (id: string, name: string, role: Role, classIds: string[]) =>
    house.ask(addPerson, { body: { id, name, role, classIds, groupIds: [], typedNames: [], adultId: null } });
  await person(people.lead, "Mrs Quill", "lead", []);
  await person(people.kiln, "Ms Harrow", "teacher", [kiln]);
  await person(people.both, "Mr Tolley", "teacher", [kiln, towpath]);
  await person(people.observer, "Dr Sedge", "observer", []);
  await person(jo, "Jo P.", "assistant", []);
  const version = { versionId: uuid(), version: 0, name: "Otters", targets: ["m=m"], at: "2026-11-19T09:00:00.000Z" };
  const members = [{ childId: ada, locked: false }];
  await house.ask(saveGroup, { params: { id: otters }, body: { ...version, members } });
  const plan = { id: sessionId, groupId: otters, heldOn: "2026-11-20", target: "m=m", seed: 1 };
  await house.ask(planNewSession, { body: plan });
  sittingId = (await begin(house, [ada, ben], [part("card", { scope: "all" })])).id;
});
afterAll(() => house.close());

const given = async () => (await house.ask(getToday, {})).openSittings[0]?.givenTo;
const giving = (to: string | null, id = sittingId) => ({ params: { id }, body: { to } });

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
  await house.ask(give, giving(people.both));
  // Said again it changes nothing.
  await house.ask(give, giving(people.both));
  expect(await given()).toEqual({ id: people.both, name: "Mr Tolley" });
  expect((await house.ask(getGiven, { params: { id: sittingId } })).to).toBe(people.both);
  await house.ask(give, giving(null));
  expect(await given()).toBeNull();
});

test("whoever has not all of its children, sees numbers alone, or is no one is refused; no such check is not here", async () => {
  await house.ask(give, giving(people.lead));
  for (const to of [people.kiln, people.observer, uuid()]) {
    const told = await house.refused(give, giving(to));
    expect(told.status).toBe(422);
    expect(told.detail).toMatch(/Nothing was changed/);
  }
  expect(await given()).toEqual({ id: people.lead, name: "Mrs Quill" });
  expect((await house.refused(give, giving(null, uuid()))).status).toBe(404);
  expect((await house.refused(getGiven, { params: { id: uuid() } })).status).toBe(404);
});

test("of someone who has left it is whoever's", async () => {
  await house.ask(give, giving(people.both));
  await house.ask(removePerson, { params: { id: people.both } });
  expect(await given()).toBeNull();
  expect((await house.ask(getGiven, { params: { id: sittingId } })).to).toBeNull();
});

/** Asks as the assistant. */
async function asJo<T>(work: () => Promise<T>): Promise<T> {
  const { rows } = (await house.store.owner.execute("select id from schools limit 1")) as unknown as {
    rows: { id: string }[];
  };
  asks = { schoolId: rows[0]?.id ?? "", as: "assistant", memberId: jo, name: "Jo P." };
  try {
    return await work();
  } finally {
    asks = undefined;
  }
}
const seen = () => asJo(async () => (await house.ask(listGroups, {})).map(({ id }) => id));
const session = { params: { id: sessionId } };

test("a session is given to an assistant, who sees its group from then until a week after it, and no longer than it is theirs", async () => {
  expect((await asJo(() => house.refused(getSession, session))).status).toBe(403);
  expect((await house.ask(getGiven, session)).colleagues.map(({ name }) => name)).toEqual([
    ...["Jo P.", "Mrs Quill", "Ms Harrow"],
  ]);
  await house.ask(give, giving(jo, sessionId));
  const { givenTo, groupName } = await asJo(() => house.ask(getSession, session));
  expect({ givenTo, groupName }).toEqual({ givenTo: { id: jo, name: "Jo P." }, groupName: "Otters" });
  const today = await asJo(() => house.ask(getToday, {}));
  expect(today.sessions).toMatchObject([{ id: sessionId, givenTo: { id: jo } }]);
  expect(await house.ask(listSessions, { query: {} })).toMatchObject([{ id: sessionId, givenTo: { name: "Jo P." } }]);
  expect(await seen()).toEqual([otters]);
  // They cannot give it on.
  expect((await asJo(() => house.refused(give, giving(null, sessionId)))).status).toBe(403);
  for (const [days, groups] of [
    [-30, [otters]],
    [7, [otters]],
    [8, []],
  ] as const) {
    house.now = addDays(parseISO("2026-11-20T12:00:00.000Z"), days);
    expect(await seen(), `${days} days later`).toEqual(groups);
  }
  house.now = parseISO("2026-11-20T12:00:00.000Z");
  await house.ask(give, giving(null, sessionId));
  expect(await seen()).toEqual([]);
  expect((await asJo(() => house.refused(getSession, session))).status).toBe(403);
  const { rows } = await house.ask(readTrail, { query: {} });
  expect(rows.filter(({ did }) => did === "given").length).toBeGreaterThanOrEqual(2);
});

test("a session is given to no one who sees numbers alone, who left, or who is no one", async () => {
  for (const to of [people.observer, people.both, uuid()]) {
    const told = await house.refused(give, giving(to, sessionId));
    expect(told.status).toBe(422);
    expect(told.detail).toMatch(/does not teach here\. Nothing was changed/);
  }
  await house.ask(give, giving(jo, sessionId));
  await house.ask(removePerson, { params: { id: jo } });
  expect((await house.ask(getSession, session)).givenTo).toBeNull();
  expect((await house.ask(getToday, {})).sessions[0]?.givenTo).toBeNull();
});
