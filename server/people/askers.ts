import { randomUUID as uuid } from "node:crypto";
import * as contract from "#contract";
import type { Meeting } from "#core/groups";
import { shippedRoutines } from "#core/plans";
import { part } from "../checks/marking.ts";
import type { Actor } from "../frame/actor.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { emptyPreparation, type OneOfEach, oneOfEach, readingOf } from "../testing-school.ts";
import { addSchool } from "./schools.ts";

/** Everyone who may ask, everything that can be asked and of whose things, for tests of what each may; for tests only. */

export const endpoints = Object.entries(contract).flatMap(([name, one]) =>
  typeof one === "object" && "method" in one && "path" in one ? [[name, one as contract.Endpoint] as const] : [],
);
const byName = new Map(endpoints);
const AS = "x-test-actor";
/** Two grey points by two. */
const PICTURE =
  "iVBORw0KGgoAAAANSUhEUgAAAAIAAAACCAIAAAD91JpzAAAACXBIWXMAAAPoAAAD6AG1e1JrAAAADklEQVQImWPoAAMGCAUALK4GYSSeFPoAAAAASUVORK5CYII=";
const at = "2026-11-20T08:45:00.000Z";

export interface Asked {
  readonly params?: unknown;
  readonly query?: unknown;
  readonly body?: unknown;
}

interface Told {
  readonly status: number;
  readonly bytes: Buffer;
  readonly text: string;
}

export interface Askers {
  readonly house: TestHouse;
  /** One of each thing of the members' own ("Mine"), of another class ("Others") and of another school ("Foreign"). */
  readonly own: OneOfEach;
  readonly other: OneOfEach;
  readonly foreign: OneOfEach;
  /** A member of the school for each role. */
  readonly actors: ReadonlyMap<contract.Role, Actor>;
  /** The lead of the other school. */
  readonly elsewhere: Actor;
  send(endpoint: contract.Endpoint, asking: Asked, actor: Actor | "no one"): Promise<Told>;
}

/** A house with two schools, in one of them two classes, and a member of each role. */
export async function openAskers(): Promise<Askers> {
  const house = await openTestHouse(undefined, (usual) => ({
    ...usual,
    memberOf: async (request) => {
      const said = JSON.parse(String(request.headers[AS] ?? "null"));
      return said === "no one" ? undefined : (said ?? usual.memberOf(request));
    },
  }));
  const send: Askers["send"] = async (endpoint, asking, actor) => {
    const response = await fetch(house.base + contract.addressOf(endpoint, asking.params, asking.query), {
      method: endpoint.method,
      headers: { "content-type": "application/json", [AS]: JSON.stringify(actor) },
      ...(asking.body === undefined ? {} : { body: JSON.stringify(asking.body) }),
    });
    const bytes = Buffer.from(await response.arrayBuffer());
    return { status: response.status, bytes, text: bytes.toString() };
  };
  const askAs = (actor: Actor) =>
    (async (endpoint: contract.Endpoint, asking: Asked) => {
      const { status, text } = await send(endpoint, asking, actor);
      if (status >= 400) throw new Error(`${endpoint.path}: ${text}`);
      return endpoint.answer.parse(JSON.parse(text));
    }) as Parameters<typeof oneOfEach>[0];
  const found = await house.store.owner.execute('select id as "schoolId" from schools order by created_at limit 1');
  const { schoolId } = (found as unknown as { rows: { schoolId: string }[] }).rows[0] as { schoolId: string };
  const lead: Actor = { schoolId, as: "lead", memberId: null, name: "lead" };
  const own = await oneOfEach(askAs(lead), "Mine");
  const other = await oneOfEach(askAs(lead), "Others");
  const { id: otherSchool } = await addSchool(house.store.owner, "Orm Tower");
  await house.all.as({ schoolId: otherSchool }).orders.ship();
  const elsewhere: Actor = { ...lead, schoolId: otherSchool };
  const foreign = await oneOfEach(askAs(elsewhere), "Foreign");
  const actors = new Map<contract.Role, Actor>([["lead", lead]]);
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
  return { house, own, other, foreign, actors, elsewhere, send };
}

/** A good asking of every endpoint that has something to check, about these things. */
export function askingOf(name: string, one: OneOfEach): Asked {
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
    give: { to: null },
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

/** What members may from a role on. */
export const isForMembers = (may: contract.May): may is Extract<contract.May, { by: contract.Role }> =>
  may.by !== "anyone" && may.by !== "door" && may.by !== "link";
