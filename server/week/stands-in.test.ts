import { randomUUID as uuid } from "node:crypto";
import { addDays, formatISO, subDays } from "date-fns";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  type Asking,
  addChild,
  addClass,
  addPerson,
  addressOf,
  changeMeetings,
  type Endpoint,
  editPerson,
  getGrouping,
  getSchool,
  getToday,
  listGroups,
  listMeetings,
  listPeople,
  saveGroup,
  setGrouping,
} from "#contract";
import type { Meeting } from "#core/groups";
import type { Actor } from "../frame/actor.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

const AS = "x-test-as";
let house: TestHouse;
const at = "2026-10-19T08:00:00.000Z";
const today = "2026-10-19";
const [classId, otherClassId, otters, herons] = [uuid(), uuid(), uuid(), uuid()];
const [ada, cy] = [uuid(), uuid()];
const [jo, wyn, den] = [uuid(), uuid(), uuid()];
const [assistantId, teacherId] = [uuid(), uuid()];
let schoolId = "";

beforeAll(async () => {
  house = await openTestHouse(undefined, (usual) => ({
    ...usual,
    memberOf: async (request) => JSON.parse(String(request.headers[AS] ?? "null")) ?? usual.memberOf(request),
  }));
  house.now = new Date(at);
  const rows = await house.store.owner.execute('select id as "id" from schools limit 1');
  schoolId = (rows as unknown as { rows: { id: string }[] }).rows[0]?.id ?? "";
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  for (const [id, name] of [
    [classId, "Kiln"],
    [otherClassId, "Towpath"],
  ] as const)
    await house.ask(addClass, { body: { id, name, yearGroup: "Year 1", orderId } });
  await house.ask(addChild, { body: { id: ada, classId, name: "Ada M.", note: "" } });
  await house.ask(addChild, { body: { id: cy, classId: otherClassId, name: "Cy F.", note: "" } });
  for (const [id, name, childId] of [
    [otters, "Otters", ada],
    [herons, "Herons", cy],
  ] as const)
    await house.ask(saveGroup, {
      params: { id },
      body: {
        ...{ versionId: uuid(), version: 0, name, targets: [], at, why: "" },
        members: [{ childId, locked: false }],
      },
    });
  const { version, grouping } = await house.ask(getGrouping, {});
  const adults = [
    { id: jo, name: "Jo P.", sessions: 6 },
    { id: wyn, name: "Wyn D.", sessions: 6 },
  ];
  await house.ask(setGrouping, { body: { version, grouping: { ...grouping, adults } } });
  const body = { groupIds: [], typedNames: [] };
  await house.ask(addPerson, { body: { ...body, id: assistantId, name: "Wyn D.", role: "assistant", classIds: [] } });
  await house.ask(addPerson, {
    body: { ...body, id: teacherId, name: "Mx Ash", role: "teacher", classIds: [classId] },
  });
});
afterAll(() => house.close());

/** Asks as an assistant, or as the teacher of the first class. */
async function as<E extends Endpoint>(who: "assistant" | "teacher", endpoint: E, asking: Asking<E>) {
  const { body, query, params } = asking as { body?: unknown; query?: unknown; params?: unknown };
  const actor: Actor =
    who === "assistant"
      ? { schoolId, as: who, memberId: assistantId, name: "Wyn D." }
      : { schoolId, as: who, memberId: teacherId, name: "Mx Ash" };
  const response = await fetch(house.base + addressOf(endpoint, params, query), {
    method: endpoint.method,
    headers: { [AS]: JSON.stringify(actor), ...(body ? { "content-type": "application/json" } : {}) },
    ...(body ? { body: JSON.stringify(body) } : {}),
  });
  return { status: response.status, content: await response.json() };
}

const meeting = (of: Partial<Meeting>): Meeting => ({
  ...{ id: uuid(), placementId: uuid(), dueOn: today, groupId: otters, on: today, from: 540, to: 560, adultId: jo },
  ...{ roomId: den, cancelled: false, byHand: false, sequence: 0, ...of },
});
const add = async (...list: Meeting[]) => {
  await house.school.week.putMeetings({ added: list, changed: [] }, at);
  return list;
};
const groupsOf = async (who: "assistant" | "teacher") =>
  ((await as(who, listGroups, {})).content as { id: string }[]).map(({ id }) => id);
const link = async (adultId: string | null) => {
  const person = (await house.ask(listPeople, {})).people.find(({ id }) => id === assistantId);
  if (!person) throw new Error("no assistant");
  const { version, name, role, classIds, groupIds, typedNames } = person;
  const body = { version, name, role, classIds, groupIds, typedNames, adultId };
  await house.ask(editPerson, { params: { id: assistantId }, body });
};

test("whoever stands in for a day sees the session and its group, and no longer than for these days", async () => {
  const [one] = await add(meeting({}));
  if (!one) return;
  await link(wyn);
  expect(await groupsOf("assistant")).toEqual([]);
  await house.ask(changeMeetings, {
    body: { changes: [{ ...(({ placementId: _, dueOn: __, byHand: ___, ...rest }) => rest)(one), adultId: wyn }] },
  });
  expect(await groupsOf("assistant")).toEqual([otters]);
  const { content } = await as("assistant", getToday, {});
  expect((content as { meetings: object[] }).meetings).toMatchObject([{ groupName: "Otters", mine: true }]);
  // A name that is the same is not enough: it must have been said.
  await link(null);
  expect(await groupsOf("assistant")).toEqual([]);
  await link(wyn);
  for (const [days, seen] of [
    [7, [otters]],
    [9, []],
  ] as const) {
    for (const day of [addDays(new Date(at), days), subDays(new Date(at), days)]) {
      house.now = day;
      expect(await groupsOf("assistant"), formatISO(day)).toEqual(seen);
    }
  }
  house.now = new Date(at);
  // Cancelled, it is no one's.
  const [now] = await house.school.week.findMeetings([one.id]);
  if (now) await house.school.week.putMeetings({ added: [], changed: [{ ...now, cancelled: true }] }, at);
  expect(await groupsOf("assistant")).toEqual([]);
});

test("a group in the timetable of an adult is theirs in every week; a link left out stays", async () => {
  await link(wyn);
  await house.school.week.putPlacements([
    { id: uuid(), groupId: herons, day: 1, from: 540, to: 560, adultId: wyn, roomId: null, fixed: false },
  ]);
  expect(await groupsOf("assistant")).toEqual([herons]);
  const person = (await house.ask(listPeople, {})).people.find(({ id }) => id === assistantId);
  if (!person) return;
  const { version, name, role, classIds, groupIds, typedNames } = person;
  await house.ask(editPerson, {
    params: { id: assistantId },
    body: { version, name, role, classIds, groupIds, typedNames },
  });
  expect(await groupsOf("assistant")).toEqual([herons]);
  await house.school.week.putPlacements([]);
});

test("a teacher sees when adults and rooms are taken by others, moves their own, and takes none from another", async () => {
  const on = "2026-10-21";
  const [mine, theirs] = await add(
    meeting({ on, dueOn: on, from: 600, to: 620 }),
    meeting({ on, dueOn: on, groupId: herons, adultId: wyn }),
  );
  if (!mine || !theirs) return;
  const seen = (await as("teacher", listMeetings, { query: { from: on, to: on } })).content as {
    meetings: { id: string }[];
    taken: object[];
  };
  expect(seen.meetings.map(({ id }) => id)).toEqual([mine.id]);
  expect(seen.taken).toEqual([{ on, from: 540, to: 560, adultId: wyn, roomId: den }]);
  expect(JSON.stringify(seen.taken)).not.toContain(herons);
  const { placementId: _, dueOn: __, byHand: ___, ...plain } = mine;
  const moved = { ...plain, from: 550, to: 570 };
  const told = await as("teacher", changeMeetings, { body: { changes: [moved] } });
  expect([told.status, told.content.detail]).toEqual([422, expect.stringContaining("is taken at that time")]);
  expect((await house.school.week.findMeetings([mine.id]))[0]?.from).toBe(600);
  expect((await as("teacher", changeMeetings, { body: { changes: [{ ...moved, roomId: null }] } })).status).toBe(200);
  // The other's own cannot be changed, and the lead may do what the teacher may not.
  const { placementId: _a, dueOn: _b, byHand: _c, ...other } = theirs;
  expect(
    (await as("teacher", changeMeetings, { body: { changes: [{ ...other, from: 700, to: 720 }] } })).status,
  ).toBe(403);
  await house.ask(changeMeetings, { body: { changes: [{ ...moved, sequence: 1 }] } });
  expect((await house.school.week.findMeetings([mine.id]))[0]).toMatchObject({ from: 550, roomId: den });
});
