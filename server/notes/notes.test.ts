import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  exportChild,
  getSchool,
  listNotes,
  type NoteAbout,
  planNewSession,
  readNotes,
  removeSession,
  saveGroup,
  takeNoteAway,
  unreadNotes,
  writeNote,
} from "#contract";
import type { Actor } from "../frame/actor.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [kiln, reed, ada, ben, otters, sessionId] = [uuid(), uuid(), uuid(), uuid(), uuid(), uuid()];
const at = "2026-11-20T09:00:00.000Z";
/** Who asks; the lead of this machine where it is no one. */
let asks: Actor | undefined;
const people: Record<string, Actor> = {};

beforeAll(async () => {
  house = await openTestHouse(undefined, (usual) => ({
    ...usual,
    memberOf: async (request) => asks ?? usual.memberOf(request),
  }));
  const order = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  for (const [id, name] of [
    [kiln, "Kiln"],
    [reed, "Reed"],
  ] as const)
    await house.ask(addClass, { body: { id, name, yearGroup: "", orderId: order } });
  for (const [id, classId, name] of [
    [ada, kiln, "Ada M."],
    [ben, reed, "Ben T."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  await house.ask(saveGroup, {
    params: { id: otters },
    body: {
      ...{ versionId: uuid(), version: 0, name: "Otters", targets: ["m=m"], at },
      members: [{ childId: ada, locked: false }],
    },
  });
  await house.ask(planNewSession, {
    body: { id: sessionId, groupId: otters, heldOn: "2026-11-20", target: "m=m", seed: 1 },
  });
  const { rows } = (await house.store.owner.execute("select id from schools limit 1")) as unknown as {
    rows: { id: string }[];
  };
  const add = async (name: string, role: "teacher" | "assistant", classIds: string[], groupIds: string[]) => {
    const memberId = uuid();
    await house.school.people.add(memberId, { name, role, typedNames: [], classIds, groupIds });
    people[name] = { schoolId: rows[0]?.id ?? "", as: role, memberId, name };
  };
  await add("Mr Ash", "teacher", [kiln], []);
  await add("Ms Birk", "teacher", [kiln], []);
  await add("Mr Reed", "teacher", [reed], []);
  await add("Jo", "assistant", [], [otters]);
});
afterAll(() => house.close());

const as = async <T>(name: string, work: () => Promise<T>): Promise<T> => {
  asks = people[name];
  try {
    return await work();
  } finally {
    asks = undefined;
  }
};
type Wanted = Parameters<typeof house.ask<typeof writeNote>>[1]["body"];
const write = (name: string, query: NoteAbout, body: Partial<Wanted> = {}, id = uuid()) =>
  as(name, async () => {
    await house.ask(writeNote, {
      ...{ params: { id }, query },
      body: { text: "Sits best near the window.", forWhom: { who: "all" }, until: null, ...body },
    });
    return id;
  });
const texts = (name: string, query: NoteAbout) =>
  as(name, async () => (await house.ask(listNotes, { query })).notes.map(({ id }) => id));
const unread = (name: string) => as(name, async () => (await house.ask(unreadNotes, {})).map(({ id }) => id));
const memberOf = (name: string) => people[name]?.memberId ?? "";

test("a note on a child is for all who teach it: unread until it is read, never for another class", async () => {
  const id = await write("Mr Ash", { childId: ada });
  expect(await unread("Mr Ash")).toEqual([]);
  for (const name of ["Ms Birk", "Jo"]) expect(await unread(name)).toEqual([id]);
  expect(await unread("Mr Reed")).toEqual([]);
  const view = await as("Ms Birk", () => house.ask(listNotes, { query: { childId: ada } }));
  expect(view.notes[0]).toMatchObject({
    ...{ aboutName: "Ada M.", by: "Mr Ash", isMine: false, isRead: false, forName: "", until: null },
  });
  expect(view.colleagues.map(({ name }) => name).sort()).toEqual(["Jo", "Mr Ash"]);
  await as("Ms Birk", () => house.ask(readNotes, { body: { ids: [id, uuid()] } }));
  expect(await unread("Ms Birk")).toEqual([]);
  expect(await unread("Jo")).toEqual([id]);
  // Whoever has the group or the session finds it there.
  for (const query of [{ groupId: otters }, { sessionId }]) expect(await texts("Jo", query)).toEqual([id]);
  // The lead of this machine sees it too, and has read nothing.
  expect((await house.ask(unreadNotes, {})).map((one) => one.id)).toEqual([id]);
  const refused = await as("Mr Reed", () => house.refused(listNotes, { query: { childId: ada } }));
  expect(refused.status).toBe(403);
});

test("it belongs to whoever may ask for it, asked either way", async () => {
  const all = await house.school.people.list();
  for (const [thing, id] of [
    ["child", ada],
    ["child", ben],
    ["group", otters],
    ["session", sessionId],
    ["child", uuid()],
  ] as const) {
    const owners = (await house.school.own.ownersOf({ thing, id, now: house.now })).map((one) => one.name);
    const may: string[] = [];
    for (const { id: memberId, name, role } of all) {
      const actor = { schoolId: "", as: role, memberId, name };
      const refused = await house.school.own.notTheirs(actor, { thing, ids: [id], now: house.now });
      if (refused.length === 0) may.push(name);
    }
    // What is not here is no one's; who it belonged to is not told either.
    const isHere = thing !== "child" || [ada, ben].includes(id);
    expect(owners.sort(), `${thing} ${id}`).toEqual(isHere ? may.sort() : []);
  }
});

test("for oneself, or for one colleague, no one else reads it; who has nothing to do with it cannot be chosen", async () => {
  const own = await write("Mr Ash", { groupId: otters }, { forWhom: { who: "me" } });
  const one = await write("Mr Ash", { groupId: otters }, { forWhom: { who: "one", memberId: memberOf("Jo") } });
  const onGroup = async (name: string) =>
    (await as(name, () => house.ask(listNotes, { query: { groupId: otters } }))).notes.flatMap((note) =>
      note.groupId === null ? [] : [note.id],
    );
  expect((await onGroup("Mr Ash")).sort()).toEqual([own, one].sort());
  expect(await onGroup("Jo")).toEqual([one]);
  expect(await onGroup("Ms Birk")).toEqual([]);
  expect(await onGroup("the lead of this machine")).toEqual([]);
  // Reading or taking away what is another's own is as if it were not there.
  await as("Ms Birk", () => house.ask(readNotes, { body: { ids: [own] } }));
  expect((await as("Ms Birk", () => house.refused(takeNoteAway, { params: { id: own } }))).status).toBe(404);
  const stranger = { who: "one" as const, memberId: memberOf("Mr Reed") };
  const refused = await as("Mr Ash", () =>
    house.refused(writeNote, {
      ...{ params: { id: uuid() }, query: { groupId: otters } },
      body: { text: "For you.", forWhom: stranger, until: null },
    }),
  );
  expect([refused.status, refused.fields[0]?.field]).toEqual([422, "forWhom"]);
});

test("a note on a session has the group's name and its day, ends with its day, and goes with the session", async () => {
  const id = await write("Jo", { sessionId }, { until: "2026-11-21" });
  const onSession = async () =>
    (await as("Mr Ash", () => house.ask(listNotes, { query: { sessionId } }))).notes.filter((note) => note.sessionId);
  const [seen] = await onSession();
  expect(seen).toMatchObject({ id, aboutName: "Otters", heldOn: "2026-11-20", until: "2026-11-21" });
  house.now = new Date("2026-11-21T22:00:00.000Z");
  expect(await onSession()).toHaveLength(1);
  house.now = new Date("2026-11-22T08:00:00.000Z");
  expect(await onSession()).toEqual([]);
  expect(await unread("Mr Ash")).not.toContain(id);
  const past = await as("Jo", () =>
    house.refused(writeNote, {
      ...{ params: { id: uuid() }, query: { sessionId } },
      body: { text: "Late.", forWhom: { who: "all" }, until: "2026-11-21" },
    }),
  );
  expect(past.fields[0]?.field).toBe("until");
  const other = await write("Jo", { sessionId });
  await house.ask(removeSession, { params: { id: sessionId } });
  expect(await unread("Mr Ash")).not.toContain(other);
});

test("sent again it is one note; it is taken away by whoever wrote it or the lead, and can be brought back", async () => {
  const id = uuid();
  for (let times = 0; times < 2; times++) await write("Mr Reed", { childId: ben }, {}, id);
  expect(await texts("Mr Reed", { childId: ben })).toEqual([id]);
  const other = await as("Mr Reed", () =>
    house.refused(writeNote, {
      ...{ params: { id }, query: { childId: ben } },
      body: { text: "Something else.", forWhom: { who: "all" }, until: null },
    }),
  );
  expect(other.status).toBe(409);
  // What is for all a colleague leaves where it is.
  expect((await as("Ms Birk", () => house.refused(takeNoteAway, { params: { id } }))).status).toBe(403);
  await as("Mr Reed", () => house.ask(takeNoteAway, { params: { id } }));
  expect(await texts("Mr Reed", { childId: ben })).toEqual([]);
  await write("Mr Reed", { childId: ben }, {}, id);
  expect(await texts("Mr Reed", { childId: ben })).toEqual([id]);
  await house.ask(takeNoteAway, { params: { id } });
  expect(await texts("Mr Reed", { childId: ben })).toEqual([]);
});

test("bad input: nothing written, on two things, on none, on what is not here", async () => {
  const body = { text: "A note.", forWhom: { who: "all" as const }, until: null };
  const status = async (query: object, change: object = {}) =>
    (await house.refused(writeNote, { params: { id: uuid() }, query, body: { ...body, ...change } })).status;
  expect(await status({ childId: ada }, { text: "  " })).toBe(422);
  expect(await status({ childId: ada }, { text: "x".repeat(501) })).toBe(422);
  expect(await status({ childId: ada, groupId: otters })).toBe(422);
  expect(await status({})).toBe(422);
  expect(await status({ childId: uuid() })).toBe(404);
  expect((await house.refused(takeNoteAway, { params: { id: uuid() } })).status).toBe(404);
});

test("what was written about a child is in its export; what ended or was taken away goes for good", async () => {
  const id = await write(
    "Ms Birk",
    { childId: ada },
    { forWhom: { who: "me" }, text: "Ask at home.", until: "2026-12-01" },
  );
  const notes = async () => (await house.ask(exportChild, { params: { id: ada } })).notes.map(({ text }) => text);
  expect(await notes()).toContain("Ask at home.");
  await house.school.notes.forgetGone({ at: "2026-11-01T00:00:00.000Z", day: "2026-12-01" });
  expect(await house.school.notes.find(id)).toBeDefined();
  await house.school.notes.forgetGone({ at: "2026-11-01T00:00:00.000Z", day: "2026-12-02" });
  expect(await house.school.notes.find(id)).toBeUndefined();
});
