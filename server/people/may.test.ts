import { randomUUID as uuid } from "node:crypto";
import { gunzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import * as contract from "#contract";
import type { Actor } from "../frame/actor.ts";
import type { TestHouse } from "../testing.ts";
import type { OneOfEach } from "../testing-school.ts";
import { type Askers, askingOf, endpoints, isForMembers, openAskers } from "./askers.ts";
import { listSchools } from "./schools.ts";

/** All endpoints × roles × (own, of another class, of another school), from the contract's own list. */
const at = "2026-11-20T08:45:00.000Z";

let house: TestHouse;
let own: OneOfEach;
let other: OneOfEach;
let foreign: OneOfEach;
let actors: Askers["actors"];
let send: Askers["send"];

beforeAll(async () => {
  ({ house, own, other, foreign, actors, send } = await openAskers());
});
afterAll(() => house.close());

/** Lists that are asked for of one class. */
const onlyClass = ["getReaders", "readingFigures"];

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
