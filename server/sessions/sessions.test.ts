import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  closeGroup,
  editSession,
  evidence,
  getGroup,
  getSchool,
  getSession,
  getShared,
  getToday,
  listSessions,
  listShares,
  markTaught,
  planNewSession,
  removeReport,
  removeSession,
  replanSession,
  reportShared,
  saveGroup,
  shareSession,
  unshareSession,
} from "#contract";
import { wordAgeOf } from "#core/roster";
import { beginOne, markAll } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const classId = uuid();
const groupId = uuid();
const children = [uuid(), uuid(), uuid()];
const sessionId = uuid();
const startedAt = "2026-11-20T08:00:00.000Z";
beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s6", taughtOn: "2026-11-02", at: startedAt },
  });
  for (const [at, id] of children.entries()) {
    await house.ask(addChild, { body: { id, classId, name: `Child ${at}`, note: "" } });
    const check = await beginOne(house, id);
    await markAll(house, check, (item) => ({ outcome: item === "b=b" ? "none" : "right" }));
  }
  const members = children.map((childId) => ({ childId, locked: false }));
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: { versionId: uuid(), version: 0, name: "Otters", members, targets: ["b=b"], at: startedAt },
  });
  await house.ask(planNewSession, { body: { id: sessionId, groupId, heldOn: "2026-11-20", target: null, seed: 5 } });
});
afterAll(() => house.close());
const session = () => house.ask(getSession, { params: { id: sessionId } });
const part = async (kind: string) => (await session()).plan.parts.find((one) => one.kind === kind)?.items ?? [];

describe("a group", () => {
  test("keeps every version; the same version twice is one", async () => {
    const body = {
      versionId: uuid(),
      version: 1,
      name: "Otters again",
      members: [{ childId: children[0] ?? "", locked: true }],
      targets: ["b=b"],
      at: "2026-11-20T08:20:00.000Z",
    };
    for (let times = 0; times < 2; times++) await house.ask(saveGroup, { params: { id: groupId }, body });
    const group = await house.ask(getGroup, { params: { id: groupId } });
    expect(group.history.map((version) => version.members.length)).toEqual([1, 3]);
    expect(group.members).toMatchObject([{ childId: children[0], locked: true }]);
  });
  test("refuses a child twice, a child that is gone, an unknown spelling", async () => {
    const save = (change: object) =>
      house.refused(saveGroup, {
        params: { id: groupId },
        body: { versionId: uuid(), version: 2, name: "X", members: [], targets: [], at: startedAt, ...change },
      });
    const twice = { childId: children[0], locked: false };
    expect((await save({ members: [twice, twice] })).detail).toMatch(/twice/);
    expect((await save({ members: [{ childId: uuid(), locked: false }] })).detail).toMatch(/not here/);
    expect((await save({ targets: ["zq=k"] })).detail).toMatch(/not a spelling/);
  });
  test("closes and opens", async () => {
    expect((await house.ask(closeGroup, { params: { id: groupId }, body: { closed: true } })).closed).toBe(true);
    expect((await house.ask(getToday, {})).groups).toEqual([]);
    await house.ask(closeGroup, { params: { id: groupId }, body: { closed: false } });
  });
});

describe("a session", () => {
  test("teaches what is needed, with words that all can read", async () => {
    expect((await session()).plan.target).toBe("b=b");
    const words = [...(await part("readWords")), ...(await part("writeWords"))];
    expect(words.length).toBeGreaterThanOrEqual(10);
    for (const word of words) expect(word).toMatch(/^[amtdopsincgehburl]*b[amtdopsincgehburl]*$/);
    expect((await session()).members).toHaveLength(3);
  });
  test("is edited; an old version is refused and the newer kept", async () => {
    const { plan, version } = await session();
    const changed = {
      ...plan,
      parts: plan.parts.map((one) => (one.kind === "teach" ? { ...one, minutes: 5 } : one)),
    };
    await house.ask(editSession, { params: { id: sessionId }, body: { version, plan: changed } });
    const late = { params: { id: sessionId }, body: { version, heldOn: "2026-11-21" } };
    const { status, both } = await house.refused(editSession, late);
    expect([status, both?.version]).toEqual([409, version + 1]);
    expect([both?.mine, both?.theirs]).toMatchObject([{ heldOn: "2026-11-21" }, { heldOn: "2026-11-20" }]);
    expect((await session()).plan.parts.find((one) => one.kind === "teach")?.minutes).toBe(5);
  });
  test("is filled anew for another target, and refuses one that does not exist", async () => {
    const { version } = await session();
    await house.ask(replanSession, { params: { id: sessionId }, body: { version, target: "u=u", seed: 3 } });
    expect((await part("readWords")).every((word) => word.includes("u"))).toBe(true);
    expect(
      (await house.refused(replanSession, { params: { id: sessionId }, body: { version, target: "zq=k", seed: 3 } }))
        .status,
    ).toBe(422);
  });
  test("needs children", async () => {
    const empty = uuid();
    await house.ask(saveGroup, {
      params: { id: empty },
      body: { versionId: uuid(), version: 0, name: "Empty", members: [], targets: ["b=b"], at: startedAt },
    });
    expect(
      (
        await house.refused(planNewSession, {
          body: { id: uuid(), groupId: empty, heldOn: "2026-11-20", target: null, seed: 1 },
        })
      ).detail,
    ).toMatch(/No one is in this group/);
  });
});

test("a plan has words that the youngest of its children knows, and says what its spelling is taught with", async () => {
  const yearGroup = (await house.ask(getSchool, {})).classes.find(({ id }) => id === classId)?.yearGroup ?? "";
  const age = wordAgeOf(yearGroup);
  expect(age).toBeLessThan(12);
  const wish = async (target: string) => {
    const id = uuid();
    await house.ask(planNewSession, { body: { id, groupId, heldOn: "2026-11-18", target, seed: 7 } });
    return house.ask(getSession, { params: { id } });
  };
  // Of the few words that have it most are known late.
  const { plan, point } = await wish("qu=kw");
  const words = plan.parts.flatMap(({ kind, items }) =>
    kind === "readWords" || kind === "writeWords" ? [...items] : [],
  );
  expect(words.length).toBeGreaterThan(0);
  expect(words.filter((word) => (house.shipped.lexicon.find(word)[0]?.knownBy ?? 12) > age)).toEqual([]);
  expect(point).toBeNull();
  const doubled = await wish("ll=l");
  expect(doubled.point?.name).toBe("doubled letters at the end");
  expect(doubled.point?.gpcs).toContain("ll=l");
  const listed = (await house.ask(listSessions, { query: { groupId } })).find(({ id }) => id === doubled.id);
  expect(listed?.point).toBe("doubled letters at the end");
});

describe("a link", () => {
  const report = (change: object = {}) => ({
    id: uuid(),
    by: "Wyn D.",
    at: "2026-11-20T08:55:00.000Z",
    came: [children[0] ?? ""],
    reached: "teach" as const,
    marks: [{ id: uuid(), childId: children[0] ?? "", gpc: "b=b", outcome: "right" as const }],
    note: "",
    ...change,
  });
  const make = (endsOn = "2026-11-22") => house.ask(shareSession, { params: { id: sessionId }, body: { endsOn } });

  test("shows the card and nothing more; only its hash is kept", async () => {
    const { token } = await make();
    expect((await session()).share?.openedAt).toBeNull();
    const card = await house.ask(getShared, { params: { token } });
    // Absent: so that who came is said with one tap less.
    expect(Object.keys(card.members[0] ?? {})).toEqual(["id", "name", "absent"]);
    const rows = (await house.store.owner.execute(sql`select s::text as row from shares s`)) as unknown as {
      rows: { row: string }[];
    };
    expect(rows.rows[0]?.row).not.toContain(token);
    // The teacher sees when it was opened, the lead all links that lead somewhere.
    const opened = (await session()).share?.openedAt;
    expect(opened).toBe(house.now?.toISOString() ?? opened);
    expect(opened).not.toBeNull();
    expect(await house.ask(listShares, {})).toMatchObject([{ sessionId, endsOn: "2026-11-22", openedAt: opened }]);
  });
  test("takes a report once, and its marks reach the log with the colleague's name", async () => {
    const { token } = await make();
    const body = report();
    for (let times = 0; times < 2; times++) await house.ask(reportShared, { params: { token }, body });
    expect((await session()).reports).toHaveLength(1);
    const { pieces } = await house.ask(evidence, { params: { id: children[0] ?? "" }, query: { gpc: "b=b" } });
    expect(pieces.map(({ by }) => by)).toEqual(["Wyn D.", "Ms Harrow"]);
    expect((await house.ask(listSessions, { query: {} }))[0]).toMatchObject({
      state: "held",
      shared: true,
      reports: 1,
      last: { by: "Wyn D.", came: 1 },
    });
    expect((await house.refused(removeSession, { params: { id: sessionId } })).detail).toMatch(/stays/);
  });
  test("takes ten reports, near the day of the session; each can be removed with its marks", async () => {
    const { token } = await make();
    const far = report({ at: "2026-10-20T08:55:00.000Z" });
    expect((await house.refused(reportShared, { params: { token }, body: far })).detail).toMatch(/within 14 days/);
    const [first] = (await session()).reports;
    if (!first) throw new Error("no report");
    const other = { ...first, note: "changed" };
    expect(await house.refused(reportShared, { params: { token }, body: other })).toMatchObject({ status: 409 });
    for (let more = 0; more < 9; more++)
      await house.ask(reportShared, { params: { token }, body: report({ marks: [] }) });
    expect((await house.refused(reportShared, { params: { token }, body: report() })).detail).toMatch(/10 reports/);
    await house.ask(reportShared, { params: { token }, body: first });
    for (const { id } of (await session()).reports.slice(1))
      await house.ask(removeReport, { params: { id: sessionId, reportId: id } });
    expect((await session()).reports.map((one) => one.id)).toEqual([first.id]);
    const second = report();
    await house.ask(reportShared, { params: { token }, body: second });
    const marked = async () =>
      (await house.ask(evidence, { params: { id: children[0] ?? "" }, query: { gpc: "b=b" } })).pieces.length;
    const before = await marked();
    await house.ask(removeReport, { params: { id: sessionId, reportId: second.id } });
    expect(await marked()).toBe(before - 1);
    expect((await house.refused(removeReport, { params: { id: sessionId, reportId: second.id } })).status).toBe(404);
  });
  test("cannot be guessed: after thirty wrong ones no more are looked up", async () => {
    const other = await openTestHouse();
    const tried: number[] = [];
    for (let times = 0; times < 32; times++)
      tried.push((await other.refused(getShared, { params: { token: `${times}`.padStart(43, "x") } })).status);
    expect(tried.slice(28)).toEqual([404, 404, 429, 429]);
    await other.close();
  });
  test("refuses a child from elsewhere", async () => {
    const { token } = await make();
    expect(
      (await house.refused(reportShared, { params: { token }, body: report({ came: [uuid()] }) })).detail,
    ).toMatch(/no place in the session/);
    expect(
      (await house.refused(reportShared, { params: { token }, body: report({ at: "2026-11-21T08:55:00.000Z" }) }))
        .detail,
    ).toMatch(/clock/);
  });
  test("ends when a new one is made, when it is switched off, and after its last day", async () => {
    const first = await make();
    const second = await make();
    expect((await house.refused(getShared, { params: { token: first.token } })).status).toBe(404);
    await house.ask(unshareSession, { params: { id: sessionId } });
    expect((await house.refused(reportShared, { params: { token: second.token }, body: report() })).status).toBe(404);
    const third = await make("2026-11-20");
    await house.ask(getShared, { params: { token: third.token } });
    house.now = new Date("2026-11-21T09:00:00.000Z");
    expect((await house.refused(getShared, { params: { token: third.token } })).title).toMatch(
      /does not work any more/,
    );
    expect(
      (await house.refused(shareSession, { params: { id: sessionId }, body: { endsOn: "2026-11-20" } })).fields[0]
        ?.field,
    ).toBe("endsOn");
  });
});
