import { randomUUID as uuid } from "node:crypto";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import * as contract from "#contract";
import type { Meeting } from "#core/groups";
import { shippedRoutines } from "#core/plans";
import { part } from "../checks/marking.ts";
import type { Actor } from "../frame/actor.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { emptyPreparation, type OneOfEach, oneOfEach, readingOf } from "../testing-school.ts";
import { addSchool, listSchools } from "./schools.ts";

/** All endpoints × roles × (own, of another class, of another school), from the contract's own list. */
const endpoints = Object.entries(contract).flatMap(([name, one]) =>
  typeof one === "object" && "method" in one && "path" in one ? [[name, one as contract.Endpoint] as const] : [],
);
const byName = new Map(endpoints);
const AS = "x-test-actor";
/** Two grey points by two. */
const PICTURE =
  "iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAACXBIWXMAAAPoAAAD6AG1e1JrAAAADklEQVQImWPoAAMGCAUALK4GYSSeFPoAAAAASUVORK5CYII=";
const at = "2026-11-20T08:45:00.000Z";

let house: TestHouse;
let own: OneOfEach;
let other: OneOfEach;
let foreign: OneOfEach;
const actors = new Map<contract.Role, Actor>();

interface Asked {
  readonly params?: unknown;
  readonly query?: unknown;
  readonly body?: unknown;
}
async function send(endpoint: contract.Endpoint, asking: Asked, actor: Actor | "no one") {
  const response = await fetch(house.base + contract.addressOf(endpoint, asking.params, asking.query), {
    method: endpoint.method,
    headers: { "content-type": "application/json", [AS]: JSON.stringify(actor) },
    ...(asking.body === undefined ? {} : { body: JSON.stringify(asking.body) }),
  });
  const bytes = Buffer.from(await response.arrayBuffer());
  return { status: response.status, bytes, text: bytes.toString() };
}
const askAs = (actor: Actor) =>
  (async (endpoint: contract.Endpoint, asking: Asked) => {
    const { status, text } = await send(endpoint, asking, actor);
    if (status >= 400) throw new Error(`${endpoint.path}: ${text}`);
    return endpoint.answer.parse(JSON.parse(text));
  }) as Parameters<typeof oneOfEach>[0];

beforeAll(async () => {
  house = await openTestHouse(undefined, (usual) => ({
    ...usual,
    memberOf: async (request) => {
      const said = JSON.parse(String(request.headers[AS] ?? "null"));
      return said === "no one" ? undefined : (said ?? usual.memberOf(request));
    },
  }));
  const { schoolId } = (await contractSchool()) as { schoolId: string };
  const lead: Actor = { schoolId, as: "lead", memberId: null, name: "lead" };
  own = await oneOfEach(askAs(lead), "Mine");
  other = await oneOfEach(askAs(lead), "Others");
  const elsewhere = await addSchool(house.store.owner, "Orm Tower");
  await house.all.as({ schoolId: elsewhere.id }).orders.ship();
  foreign = await oneOfEach(askAs({ ...lead, schoolId: elsewhere.id }), "Foreign");
  actors.set("lead", lead);
  const meeting = (one: OneOfEach): Meeting => ({
    ...{ id: uuid(), placementId: uuid(), dueOn: "2026-11-20", groupId: one.groupId, on: "2026-11-20", from: 540 },
    ...{ to: 560, adultId: uuid(), roomId: null, cancelled: false, byHand: false, sequence: 0 },
  });
  await house.school.week.putMeetings({ added: [meeting(own), meeting(other)], changed: [] }, at);
  for (const role of ["teacher", "assistant", "observer"] as const) {
    const memberId = uuid();
    // Whatever an observer was given before is of no use to it.
    const mine =
      role === "teacher" ? { classIds: [own.classId], groupIds: [] } : { classIds: [], groupIds: [own.groupId] };
    await house.school.people.add(memberId, { name: role, role, typedNames: [], ...mine });
    actors.set(role, { schoolId, as: role, memberId, name: role });
  }
});
afterAll(() => house.close());

async function contractSchool() {
  const rows = await house.store.owner.execute('select id as "schoolId" from schools order by created_at limit 1');
  return (rows as unknown as { rows: unknown[] }).rows[0];
}

/** A good asking of every endpoint that has something to check, about these things. */
function askingOf(name: string, one: OneOfEach): Asked {
  const { classId, childId, groupId, sessionId, sittingId, readingId } = one;
  const byThing = {
    class: classId,
    child: childId,
    group: groupId,
    session: sessionId,
    sitting: sittingId,
    reading: readingId,
    desk: sittingId,
  };
  const bodies: Record<string, unknown> = {
    markTaught: { id: uuid(), stepId: null, taughtOn: "2026-11-03", at },
    editClass: { yearGroup: "" },
    addChild: { id: uuid(), classId, name: `New ${uuid().slice(0, 6)}`, note: "" },
    importChildren: { children: [{ id: uuid(), classId, name: `New ${uuid().slice(0, 6)}`, note: "" }] },
    editChild: { version: 0, classId, note: "changed by no one" },
    setAbsent: { absent: false },
    startSitting: {
      id: uuid(),
      name: "Check",
      sections: [part("card", { scope: "all" })],
      children: [{ childId, seed: 1, checkIds: [uuid()] }],
      startedAt: at,
    },
    previewSitting: { childIds: [childId], sections: [part("card")] },
    showFace: { face: { show: "nothing" } },
    saveGroup: { versionId: uuid(), version: 0, name: "G", members: [{ childId, locked: false }], targets: [], at },
    closeGroup: { closed: false },
    setGroupReads: { reads: "most" },
    planNewSession: { id: uuid(), groupId, heldOn: "2026-11-21", target: null, seed: 1 },
    editSession: { version: 0, heldOn: "2026-11-21" },
    replanSession: { version: 0, target: "s=s", seed: 1 },
    otherPart: { version: 0, seed: 1 },
    copySession: { id: uuid(), heldOn: "2026-11-22" },
    shareSession: { endsOn: "2026-12-20" },
    reportSession: { id: uuid(), by: "D.", at, came: [childId], reached: null, marks: [], note: "" },
    saveReading: readingOf(childId, "Again"),
    savePreparation: { version: 0, preparation: emptyPreparation },
    savePreset: { version: 9, name: "P", purpose: "", sections: [part("card")] },
    saveText: {
      content: { title: "T", exceptions: [], body: "A man sat.", questions: [], words: [] },
      version: 9,
      savedAt: at,
      savedBy: "D.",
    },
    mailInvitation: { id: uuid(), token: "x".repeat(32), to: "someone@school.example" },
    setLeadsSecond: { version: 0, leadsNeedSecond: false },
    sayWordAge: { text: "mat", knownBy: 9 },
    savePicture: { text: "mat", image: PICTURE, madeBy: "Ms Harrow" },
    saveSplit: { text: "mat", units: ["m=m", "a=a", "t=t"], reason: "" },
    setPlaceOfChild: { id: uuid(), orderId: null, stepId: null, again: false, since: "2026-11-20", at },
    setPlaceOfGroup: { id: uuid(), orderId: null, stepId: null, again: false, since: "2026-11-20", at },
    saveAnswers: { answers: [{}] },
    writeNote: { text: "A note", forWhom: { who: "all" }, until: null },
    readNotes: { ids: [uuid()] },
    addWish: { id: uuid(), kind: "apart", otherId: childId },
    sayNextOfChild: { gpc: "s=s", how: "struck", until: null },
    sayNextOfClass: { gpc: "s=s", how: "pinned", until: null },
    putMoveOff: { kind: "leave", until: "2027-01-10" },
    saveRoutine: { version: 9, routine: shippedRoutines.short },
    setGroupRoutine: { routine: "short" },
    setBlockWeeks: { weeks: 4 },
    fixBlockDays: { days: [{ on: "2099-01-05", gpcs: [] }] },
    setOwnHours: { version: 0, hours: null },
    makeFeed: { id: uuid(), whose: `child:${childId}` },
    changeMeetings: {
      changes: [
        {
          id: uuid(),
          groupId,
          on: "2026-11-20",
          from: 1,
          to: 2,
          adultId: uuid(),
          roomId: null,
          cancelled: false,
          sequence: 0,
        },
      ],
    },
  };
  const endpoint = byName.get(name) as contract.Endpoint;
  const { may } = endpoint;
  const theirs = "theirs" in may ? (may.theirs ?? {}) : {};
  const params: Record<string, string> = {
    id: uuid(),
    code: "000000",
    token: "x".repeat(30),
    textId: "mud",
    forKey: `child:${childId}`,
    reportId: one.reportId,
    wishId: one.wishId,
    at: "0",
    day: "2026-11-20",
  };
  const query: Record<string, string> = name === "getAfresh" ? { seed: "1" } : {};
  for (const [path, thing] of Object.entries(theirs)) {
    const [where, key = ""] = path.split(".");
    const id = thing === "readers" ? `child:${childId}` : byThing[thing];
    if (where === "params") params[key] = id;
    // Endpoints that take a class, a group or a child take one of them.
    if (where === "query" && (name === "evidence" || Object.keys(query).length === 0)) query[key] = id;
  }
  if (name === "evidence") query.gpc = "s=s";
  if (name.endsWith("Preparation")) params.textId = one.textId;
  return { params, query, body: endpoint.body ? (bodies[name] ?? {}) : undefined };
}

/** Lists that are asked for of one class. */
const onlyClass = ["getReaders", "readingFigures"];

/** What members may from a role on. */
const isForMembers = (may: contract.May): may is Extract<contract.May, { by: contract.Role }> =>
  may.by !== "anyone" && may.by !== "door" && may.by !== "link";

const withTheirs = endpoints.filter(([, { may }]) => "theirs" in may);

test("the list is whole, and every path of it leads into what is asked", () => {
  expect(endpoints.length).toBeGreaterThan(60);
  expect(withTheirs.length).toBeGreaterThan(30);
  for (const [name, { may }] of withTheirs)
    for (const path of Object.keys(("theirs" in may && may.theirs) || {})) {
      if (path.startsWith("query.")) continue;
      expect(contract.idsAt(askingOf(name, own), path).length, `${name} ${path}`).toBeGreaterThan(0);
    }
});

test("a desk of one school is not the desk with the same id of another", async () => {
  const desk = { params: { id: own.sittingId } };
  const lead = actors.get("lead") as Actor;
  const [schoolId = ""] = (await listSchools(house.store.owner))
    .map((one) => one.id)
    .filter((id) => id !== lead.schoolId);
  const faces = [];
  for (const actor of [lead, { ...lead, schoolId }]) {
    const { code } = contract.openFace.answer.parse(JSON.parse((await send(contract.openFace, desk, actor)).text));
    faces.push(code);
  }
  const shown = { ...desk, body: { face: { show: "text", text: "sh", size: "letters" } } };
  await send(contract.showFace, shown, lead);
  const seen = await Promise.all(faces.map((code) => send(contract.getFace, { params: { code } }, "no one")));
  expect(seen.map(({ text }) => JSON.parse(text).face.show)).toEqual(["text", "nothing"]);
});

test("a link leads into its own school, whichever host name is asked", async () => {
  for (const [one, word] of [
    [own, "Mine"],
    [foreign, "Foreign"],
  ] as const) {
    const told = await send(contract.getShared, { params: { token: one.token } }, "no one");
    expect(told.status).toBe(200);
    expect(told.text).toContain(word);
  }
});

describe.each(contract.roles)("as %s", (role) => {
  test.each(endpoints)("%s: what the role may", async (name, endpoint) => {
    const { may } = endpoint;
    const told = await send(endpoint, askingOf(name, own), actors.get(role) as Actor);
    const isClassOnly = "theirs" in may && Object.values(may.theirs ?? {}).every((thing) => thing === "class");
    if (may.by === "link") expect(told.status).toBe(404);
    else if (isForMembers(may) && !contract.isAtLeast(role, may.by)) expect(told.status).toBe(403);
    // At the door stands whoever has not said yet who they are.
    else if (may.by === "door") expect([403, 500]).not.toContain(told.status);
    // An assistant has groups, and no class.
    else if (role === "assistant" && isClassOnly) expect(told.status).toBe(403);
    else expect([401, 403, 500]).not.toContain(told.status);
  });
  test.each(withTheirs)("%s: what is another class's", async (name, endpoint) => {
    const { may } = endpoint;
    const told = await send(endpoint, askingOf(name, other), actors.get(role) as Actor);
    const allowed = role === "lead";
    if (!allowed) expect(told.status).toBe(403);
    else expect([401, 403, 500]).not.toContain(told.status);
    if (!allowed || (isForMembers(may) && !contract.isAtLeast(role, may.by)))
      expect(told.text).not.toContain("Others");
  });
  test.each(withTheirs)("%s: what is another school's is not there", async (name, endpoint) => {
    const told = await send(endpoint, askingOf(name, foreign), actors.get(role) as Actor);
    expect(told.status).not.toBe(500);
    expect(told.text).not.toContain("Foreign");
  });
  test("lists show what is theirs, and nothing of another school", async () => {
    for (const [name, endpoint] of endpoints) {
      const { may } = endpoint;
      if (endpoint.method !== "GET" || !("shows" in may) || !may.shows) continue;
      if (!isForMembers(may) || !contract.isAtLeast(role, may.by)) continue;
      const { params } = askingOf(name, own);
      const narrow =
        name === "listMeetings"
          ? { from: "2026-11-16", to: "2026-11-22" }
          : onlyClass.includes(name)
            ? { classId: own.classId }
            : {};
      const told = await send(endpoint, { params, query: narrow }, actors.get(role) as Actor);
      expect(told.status, name).toBe(200);
      expect(told.text, name).not.toContain("Foreign");
      if (role !== "lead") expect(told.text, name).not.toContain(other.childId);
      if (role !== "lead") expect(told.text, name).not.toContain("Others");
    }
  });
});

test("no one may ask what members may; of marks each is looked at by itself", async () => {
  for (const [name, endpoint] of endpoints) {
    if (endpoint.may.by === "door") continue;
    const { status } = await send(endpoint, askingOf(name, own), "no one");
    expect([401, 404], name).toContain(status);
  }
  const marks = [own, other, foreign].map((one) => ({
    id: uuid(),
    childId: one.childId,
    source: { kind: "check", checkId: one.checkId },
    outcome: "note",
    item: null,
    text: "tired",
    markedAt: at,
    day: "2026-11-20",
    markedBy: "D.",
  }));
  const { text } = await send(contract.saveAnswers, { body: { answers: marks } }, actors.get("teacher") as Actor);
  const { fates } = contract.saveAnswers.answer.parse(JSON.parse(text));
  expect(fates.map((fate) => [fate.fate, fate.says])).toEqual([
    ["kept", ""],
    ["refused", "This child is of another class or group."],
    ["refused", "This child is not here any more."],
  ]);
});

test("a backup is a lead's to take, and holds that school alone", async () => {
  const { path } = contract.backupFile;
  const take = (actor: Actor | "no one") => send({ ...contract.getSchool, path } as never, {}, actor);
  for (const role of ["observer", "assistant", "teacher"] as const)
    expect((await take(actors.get(role) as Actor)).status, role).toBe(403);
  expect((await take("no one")).status).toBe(401);
  const { status, bytes } = await take(actors.get("lead") as Actor);
  expect(status).toBe(200);
  const text = gunzipSync(bytes).toString();
  expect(text).toContain("Mine");
  expect(text).toContain("Others");
  expect(text).not.toContain("Foreign");
});

test("what a teacher knows of a child comes from a teacher, not from an assistant", async () => {
  const judged = () => ({
    ...{ id: uuid(), childId: own.childId, kind: "card", item: "s=s", outcome: "right", ms: null, pass: 1, tags: [] },
    ...{ source: { kind: "judgement" }, help: "none", way: "seen" },
    ...{ markedAt: at, day: "2026-11-20", markedBy: "D." },
  });
  const fateOf = async (role: "assistant" | "teacher", mark: object) => {
    const { text } = await send(contract.saveAnswers, { body: { answers: [mark] } }, actors.get(role) as Actor);
    return contract.saveAnswers.answer.parse(JSON.parse(text)).fates[0];
  };
  expect((await fateOf("assistant", judged()))?.fate).toBe("refused");
  const mark = judged();
  expect((await fateOf("teacher", mark))?.fate).toBe("kept");
  expect((await fateOf("teacher", mark))?.fate).toBe("there");
  expect((await fateOf("teacher", { ...judged(), outcome: "slow" }))?.says).toMatch(
    /that it is known, or that it is not/,
  );
  const { text } = await send(
    contract.evidence,
    { params: { id: own.childId }, query: { gpc: "s=s" } },
    actors.get("teacher") as Actor,
  );
  const told = contract.evidence.answer.parse(JSON.parse(text));
  expect(told).toMatchObject({ judged: true, state: "secure" });
  expect(told.pieces[0]).toMatchObject({ says: "known, as the teacher says", by: "D." });
});
