import { randomUUID as uuid } from "node:crypto";
import { get } from "node:http";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  getLexicon,
  getReaders,
  getSchool,
  getSession,
  listSplits,
  markTaught,
  planNewSession,
  removeSplit,
  saveGroup,
  saveSplit,
  setAccent,
} from "#contract";
import { readLexicon, readMadeUp } from "#core/words";
import { beginOne, markAll } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const classId = uuid();
const groupId = uuid();
const children = [uuid(), uuid()];
const startedAt = "2026-11-20T08:00:00.000Z";

/** Marks every card of a check on a day: right, or not for the spellings that are named. */
async function check(day: string, childId: string, wrong: readonly string[]): Promise<void> {
  const one = await beginOne(house, childId, undefined, `${day}T08:00:00.000Z`);
  const marked = { day, markedAt: `${day}T08:10:00.000Z` };
  await markAll(house, one, (item) => ({ outcome: wrong.includes(item) ? "none" : "right" }), marked);
}

beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s8", taughtOn: "2026-11-02", at: startedAt },
  });
  await house.ask(addChild, { body: { id: children[0] ?? "", classId, name: "Wren A", note: "" } });
  await house.ask(addChild, { body: { id: children[1] ?? "", classId, name: "Ash B", note: "" } });
  // Missed again and again: one slip of a child that knows nearly all would shut no word out.
  for (const day of ["2026-11-16", "2026-11-17", "2026-11-18"]) {
    await check(day, children[0] ?? "", ["e=e"]);
    await check(day, children[1] ?? "", ["u=u", "h=h"]);
  }
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: {
      versionId: uuid(),
      version: 0,
      name: "Reeds",
      at: startedAt,
      members: children.map((childId) => ({ childId, locked: false })),
      targets: ["u=u"],
    },
  });
});
afterAll(() => house.close());

/** As a browser asks again: `fetch` of Node would forbid the server to say that nothing has changed. */
function statusOf(address: string, headers: Record<string, string>): Promise<number | undefined> {
  return new Promise((done, fail) => {
    get(address, { headers }, (response) => {
      response.resume();
      done(response.statusCode);
    }).on("error", fail);
  });
}

test("the lexicon and the made-up words arrive as they ship, and a browser may keep them", async () => {
  const { words, madeUp, sentences } = await house.ask(getLexicon, {});
  expect(readLexicon(words).words.length).toBeGreaterThan(10_000);
  expect(readMadeUp(madeUp).length).toBeGreaterThan(3000);
  expect(sentences.length).toBeGreaterThan(600);
  const first = await fetch(`${house.base}/api/lexicon`);
  expect(first.headers.get("cache-control")).toBe("private, no-cache");
  await first.text();
  expect(await statusOf(`${house.base}/api/lexicon`, { "if-none-match": first.headers.get("etag") ?? "" })).toBe(304);
  expect((await fetch(`${house.base}/api/school`)).headers.get("cache-control")).toBe("no-store");
});

describe("what children can read", () => {
  const names = (list: readonly { name: string }[]) => list.map((child) => child.name);
  test("a class: what it has been taught, and each child by name", async () => {
    const found = await house.ask(getReaders, { query: { classId } });
    expect(found.name).toBe("Kiln");
    expect(found.known).toContain("u=u");
    expect(found.wholes).toContain("the");
    expect(names(found.children)).toEqual(["Ash B", "Wren A"]);
    expect(found.children[0]?.known).not.toContain("u=u");
    expect(found.children[1]?.known).not.toContain("e=e");
  });
  test("a group: what all of its children can read, and its own targets", async () => {
    const found = await house.ask(getReaders, { query: { groupId } });
    expect(found.known).toContain("s=s");
    for (const gpc of ["e=e", "u=u", "h=h"]) expect(found.known).not.toContain(gpc);
    expect(found.targets).toEqual(["u=u"]);
  });
  test("a child: its own, and what it needs", async () => {
    const found = await house.ask(getReaders, { query: { childId: children[1] ?? "" } });
    expect(found.name).toBe("Ash B");
    expect([...found.targets].sort()).toEqual(["h=h", "u=u"]);
  });
  test("nobody, two at once or someone unknown is refused", async () => {
    expect((await house.refused(getReaders, { query: {} })).status).toBe(422);
    expect((await house.refused(getReaders, { query: { classId, groupId } })).status).toBe(422);
    expect((await house.refused(getReaders, { query: { childId: uuid() } })).status).toBe(404);
    expect((await house.refused(getReaders, { query: { groupId: uuid() } })).status).toBe(404);
    expect((await house.refused(getReaders, { query: { classId: uuid() } })).status).toBe(404);
    expect((await house.refused(getReaders, { query: { classId: "x" } })).status).toBe(422);
  });
});

describe("a school's own splits", () => {
  const id = uuid();
  const body = { text: "Marlpit", units: ["m=m", "ar=ar", "l=l", "p=p", "i=i", "t=t"], reason: "our school" };
  test("are kept, and the same word again is written over", async () => {
    await house.ask(saveSplit, { params: { id }, body });
    const again = uuid();
    await house.ask(saveSplit, { params: { id: again }, body: { ...body, text: "marlpit", reason: "again" } });
    const splits = await house.ask(listSplits, {});
    expect(splits).toMatchObject([{ id: again, text: "marlpit", reason: "again" }]);
    await house.ask(saveSplit, { params: { id: again }, body });
    expect(await house.ask(listSplits, {})).toHaveLength(1);
    await house.ask(removeSplit, { params: { id: again } });
    expect(await house.ask(listSplits, {})).toEqual([]);
    expect((await house.refused(removeSplit, { params: { id: again } })).status).toBe(404);
  });
  test.each([
    ["letters that are not the word's", { units: ["m=m", "a=a"] }, /spell “ma”, not “Marlpit”/],
    ["a correspondence that is none", { units: ["m=m", "ar=zh", "l=l", "p=p", "i=i", "t=t"] }, /ar=zh is not/],
    ["no units", { units: [] }, /./],
    ["a word without end", { text: "a".repeat(60) }, /40/],
  ])("refuse %s and change nothing", async (_, change, says) => {
    const problem = await house.refused(saveSplit, { params: { id: uuid() }, body: { ...body, ...change } });
    expect(problem.status).toBe(422);
    expect(problem.detail).toMatch(says);
    expect(await house.ask(listSplits, {})).toEqual([]);
  });
  test("count when a session is planned", async () => {
    const own = uuid();
    // Split so, no child of this class can read it: it has a spelling that is not taught.
    const plan = async (seed: number) => {
      const session = uuid();
      await house.ask(planNewSession, { body: { id: session, groupId, heldOn: "2026-11-21", target: "u=u", seed } });
      const { plan: made } = await house.ask(getSession, { params: { id: session } });
      return made.parts.flatMap((part) => part.items);
    };
    const seeds = [1, 2, 3, 4, 5, 6];
    const before = (await Promise.all(seeds.map(plan))).flat();
    expect(before).toContain("up");
    await house.ask(saveSplit, { params: { id: own }, body: { text: "up", units: ["u=uu", "p=p"], reason: "" } });
    const after = (await Promise.all(seeds.map(plan))).flat();
    expect(after).not.toContain("up");
    await house.ask(removeSplit, { params: { id: own } });
  });
  test("stay out of the log", () => {
    expect(house.logged.join("\n")).not.toMatch(/marlpit/i);
  });
});

test("the accent is one that the tool knows", async () => {
  expect((await house.ask(getSchool, {})).accent).toBe("neutral");
  await house.ask(setAccent, { body: { version: 1, accent: "long-bath" } });
  expect((await house.ask(getSchool, {})).accent).toBe("long-bath");
  expect((await house.refused(setAccent, { body: { version: 2, accent: "posh" } })).status).toBe(422);
  expect((await house.ask(getSchool, {})).accent).toBe("long-bath");
});
