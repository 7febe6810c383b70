import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  addChild,
  addClass,
  type CheckView,
  evidence,
  exportChild,
  findModel,
  getChanges,
  getForesight,
  getGaps,
  getSchool,
  getSecondLooks,
  getSitting,
  markTaught,
  planNewSession,
  removeReport,
  reportSession,
  saveAnswers,
  saveGroup,
  setModel,
  setSecureWhen,
} from "#contract";
import { cellAt } from "#core/mastery";
import { answerTo, begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const classId = uuid();
const [ada, ben, cy] = [uuid(), uuid(), uuid()];
const groupId = uuid();
const cellOf = async (childId: string, gpc: string) => {
  const map = await house.ask(getGaps, { query: { classId } });
  const at = map.columns.findIndex((column) => column.gpc === gpc);
  return cellAt(map.rows.find((row) => row.id === childId)?.cells ?? "", at);
};

async function check(day: string, missed: readonly string[]): Promise<readonly CheckView[]> {
  house.now = new Date(`${day}T12:00:00.000Z`);
  const { checks } = await begin(house, [ada, ben], [part("card", { scope: "all" })], `${day}T08:00:00.000Z`);
  for (const one of checks)
    await markAll(house, one, (item) => (missed.includes(item) ? { outcome: "none" } : { outcome: "right" }), {
      day,
      markedAt: `${day}T08:05:00.000Z`,
    });
  return checks;
}

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-10-01T12:00:00.000Z");
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const taught = { id: uuid(), stepId: "s3", taughtOn: "2026-09-01", at: "2026-09-01T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: taught });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
    [cy, "Cy F."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  await check("2026-10-02", ["m=m"]);
  await check("2026-10-05", ["m=m", "i=i"]);
  await check("2026-10-12", ["m=m"]);
});
afterAll(() => house.close());

test("what was missed again and again is a gap, what was missed once is not sure yet, who was never asked is not checked", async () => {
  expect((await cellOf(ada, "m=m")).state).toBe("gap");
  expect((await cellOf(ada, "i=i")).state).not.toBe("gap");
  expect((await cellOf(cy, "m=m")).state).toBe("not checked");
});

describe("lessons and sessions are part of what is known", () => {
  test("a session raises the chance of who came, of no one else, and taken back it is as before", async () => {
    house.now = new Date("2026-10-14T12:00:00.000Z");
    const body = {
      versionId: uuid(),
      version: 0,
      name: "Otters",
      members: [ada, ben].map((childId) => ({ childId, locked: false })),
      targets: ["m=m"],
      at: "2026-10-13T08:00:00.000Z",
    };
    await house.ask(saveGroup, { params: { id: groupId }, body });
    const id = uuid();
    await house.ask(planNewSession, { body: { id, groupId, heldOn: "2026-10-13", target: "m=m", seed: 1 } });
    const before = [await cellOf(ada, "m=m"), await cellOf(ben, "m=m")];
    const at = "2026-10-13T09:30:00.000Z";
    const report = { id: uuid(), by: "Wyn D.", at, came: [ada], reached: null, note: "", marks: [] };
    await house.ask(reportSession, { params: { id }, body: report });
    expect((await cellOf(ada, "m=m")).chance).toBeGreaterThan((before[0]?.chance ?? 0) + 0.04);
    expect(await cellOf(ben, "m=m")).toEqual(before[1]);
    await house.ask(removeReport, { params: { id, reportId: report.id } });
    expect(await cellOf(ada, "m=m")).toEqual(before[0]);
    await house.ask(reportSession, { params: { id }, body: { ...report, id: uuid() } });
  });
  test("a class that is said to be taught less has it so on its map, and taught again it is as it was", async () => {
    const before = await cellOf(cy, "m=m");
    const mark = (stepId: string, at: string) =>
      house.ask(markTaught, { params: { id: classId }, body: { id: uuid(), stepId, taughtOn: "2026-10-14", at } });
    await mark("s1", "2026-10-14T08:00:00.000Z");
    expect((await cellOf(cy, "m=m")).state).toBe("not taught");
    await mark("s3", "2026-10-14T09:00:00.000Z");
    expect((await cellOf(cy, "m=m")).state).toBe(before.state);
  });
});

test("what the school calls secure is laid over the same chances; bad figures are refused", async () => {
  const { version } = await house.ask(getSchool, {});
  const chance = (await cellOf(ada, "s=s")).chance;
  await house.ask(setSecureWhen, { body: { version, secureWhen: { by: "days", days: 5 } } });
  expect(await cellOf(ada, "s=s")).toMatchObject({ state: "not sure yet", chance });
  await house.ask(setSecureWhen, { body: { version: version + 1, secureWhen: { by: "days", days: 2 } } });
  expect(await cellOf(ada, "s=s")).toMatchObject({ state: "secure", chance });
  for (const secureWhen of [
    { by: "model", percent: 101 },
    { by: "days", days: 0 },
    { by: "share", percent: 80, of: 400 },
    { by: "luck" },
  ])
    expect((await house.refused(setSecureWhen, { body: { version: version + 2, secureWhen } as never })).status).toBe(
      422,
    );
  const late = { version, secureWhen: { by: "pass" } as const };
  expect((await house.refused(setSecureWhen, { body: late })).status).toBe(409);
  const { why } = await house.ask(evidence, { params: { id: ada }, query: { gpc: "s=s" } });
  expect(why).toMatch(/Secure here means right at once on the last 2 days on which it was asked\.$/);
});

test("a second look names who is doubtful with the cards, at most twelve, and leaves out who was asked today", async () => {
  // After a session no one knows how it stands; by the time of the year much has faded too.
  house.now = new Date("2027-02-01T12:00:00.000Z");
  const looks = await house.ask(getSecondLooks, {});
  expect(looks.map(({ name }) => name)).toContain("Ada M.");
  expect(looks.find(({ id }) => id === ada)?.cards.map(({ gpc }) => gpc)).toContain("m=m");
  expect(looks.find(({ id }) => id === cy)).toBeUndefined();
  for (const { cards } of looks) expect(cards.length).toBeLessThanOrEqual(12);
  await check("2027-02-01", []);
  expect(await house.ask(getSecondLooks, {})).toEqual([]);
});

test("how sure the tool is counts the cards that were asked, and names no child", async () => {
  const told = await house.ask(getForesight, {});
  expect(told).toMatchObject({ children: 2, answers: 4 * 2 * 9 });
  expect(told.ways.map(({ name }) => name)).toEqual(["model", "days", "last", "share"]);
  expect(JSON.stringify(told)).not.toMatch(/Ada|Ben|Cy/);
});

describe("a check that asks only what is in doubt", () => {
  const day = "2026-11-28";
  const marked = { day, markedAt: `${day}T08:05:00.000Z` };

  test("carries what is believed of each child when it began, and stays so whatever is marked", async () => {
    house.now = new Date(`${day}T12:00:00.000Z`);
    const sitting = await begin(house, [ada, cy], [part("seek")], `${day}T08:00:00.000Z`);
    const [one, other] = sitting.checks as [CheckView, CheckView];
    expect(Object.keys(one.belief?.mind.traces ?? {})).toContain("say m=m");
    expect(other.belief?.mind.traces).toEqual({});
    expect(one.belief?.weights["say m=m"]).toBeGreaterThan(one.belief?.weights["say s=s"] as number);
    expect(one.items.some((item) => item.includes("=")) && one.items.some((item) => item.includes(" "))).toBe(true);
    const item = one.items.find((each) => each.includes("=")) as string;
    await house.ask(saveAnswers, {
      body: { answers: [answerTo({ ...one, kind: "card" }, item, { outcome: "none" }, marked)] },
    });
    const again = await house.ask(getSitting, { params: { id: sitting.id } });
    expect(again.checks[0]?.belief).toEqual(one.belief);
    expect(again.checks[0]?.answers).toHaveLength(1);
    // It is kept of the child, so that it goes out with all that is.
    const { checks } = await house.ask(exportChild, { params: { id: ada } });
    expect(checks.find(({ id }) => id === one.id)?.belief).toEqual(one.belief);
  });

  test("takes marks of the kinds that it asks, and of no other", async () => {
    const { checks } = await begin(house, [ben], [part("seek")], `${day}T08:00:00.000Z`);
    const one = checks[0] as CheckView;
    const word = one.items.find((each) => each.includes(" ")) as string;
    const card = one.items.find((each) => each.includes("=")) as string;
    const { fates } = await house.ask(saveAnswers, {
      body: {
        answers: [
          answerTo({ ...one, kind: "words" }, word, { outcome: "right" }, marked),
          answerTo({ ...one, kind: "card" }, card, { outcome: "right" }, marked),
          answerTo({ ...one, kind: "write" }, card, { outcome: "right" }, marked),
          answerTo(one, card, { outcome: "right" }, { ...marked, kind: "seek" }),
        ],
      },
    });
    expect(fates.map(({ fate }) => fate)).toEqual(["kept", "kept", "refused", "refused"]);
    expect(fates[2]?.says).toBe("The check is one of another kind: Only what is in doubt.");
  });

  test("what a check changed is what the map says with it and without it", async () => {
    const before = await cellOf(ada, "i=i");
    const sitting = await begin(house, [ada], [part("card", { scope: "all" })], `${day}T09:00:00.000Z`);
    await markAll(house, sitting.checks[0] as CheckView, (item) => ({ outcome: item === "i=i" ? "none" : "right" }), {
      day,
      markedAt: `${day}T09:05:00.000Z`,
    });
    const { changes, skills } = await house.ask(getChanges, {
      params: { id: ada },
      query: { sittingId: sitting.id },
    });
    expect(skills).toBe(sitting.checks[0]?.items.length);
    const its = changes.find(({ skill }) => skill === "say i=i");
    const now = await cellOf(ada, "i=i");
    expect(its?.before.state).toBe(before.state);
    expect(Math.abs((its?.before.chance ?? 0) - before.chance)).toBeLessThan(0.006);
    expect(its?.after.state).toBe(now.state);
    expect(Math.abs((its?.after.chance ?? 0) - now.chance)).toBeLessThan(0.006);
    await expect(house.ask(getChanges, { params: { id: ada }, query: {} })).rejects.toThrow();
    const none = await house.ask(getChanges, { params: { id: ben }, query: { sittingId: sitting.id } });
    expect(none).toEqual({ changes: [], skills: 0 });
  });
});

describe("maps of other skills", () => {
  const day = "2026-11-29";
  const marked = { day, markedAt: `${day}T08:05:00.000Z` };

  test("writing and blending have maps of their own, and evidence behind each cell", async () => {
    house.now = new Date(`${day}T12:00:00.000Z`);
    const { checks } = await begin(
      house,
      [ben],
      [part("write", { scope: "all" }), part("words")],
      `${day}T08:00:00.000Z`,
    );
    const [write, words] = checks as [CheckView, CheckView];
    await markAll(house, write, (item) => (item === "s=s" ? { outcome: "none" } : { outcome: "right" }), marked);
    await markAll(house, words, () => ({ outcome: "right" }), marked);
    const mapOf = (of: "reading" | "spelling" | "blending") => house.ask(getGaps, { query: { classId, of } });
    const [reading, spelling, blending] = [await mapOf("reading"), await mapOf("spelling"), await mapOf("blending")];
    expect(reading).toEqual(await house.ask(getGaps, { query: { classId } }));
    const stands = (map: typeof reading, gpc: string) =>
      cellAt(
        map.rows.find((row) => row.id === ben)?.cells ?? "",
        map.columns.findIndex((column) => column.gpc === gpc),
      );
    expect(stands(spelling, "s=s").chance).toBeLessThan(stands(spelling, "t=t").chance);
    expect(blending.columns.map(({ gpc }) => gpc)).toContain("CVC");
    expect(stands(blending, "CVC").chance).toBeGreaterThan(0.5);
    for (const [gpc, of] of [
      ["s=s", "spelling"],
      ["CVC", "blending"],
    ] as const) {
      const told = await house.ask(evidence, { params: { id: ben }, query: { gpc, of } });
      expect(told.pieces.length).toBeGreaterThan(0);
      const map = of === "spelling" ? spelling : blending;
      expect(Math.abs(told.chance - stands(map, gpc).chance)).toBeLessThan(0.011);
    }
    await expect(house.ask(evidence, { params: { id: ben }, query: { gpc: "zq=x" } })).rejects.toThrow();
  });
});

describe("numbers of a school's own", () => {
  test("too few answers are never fitted, and numbers outside their range are refused", async () => {
    await expect(house.ask(findModel, {})).rejects.toThrow(/2000 answers/);
    const school = await house.ask(getSchool, {});
    const model = {
      ...{ values: { halfLife: 9000 }, answers: 3000, children: 30, foundOn: "2026-11-20" },
      ...{ asNow: { logLoss: 0.5, brier: 0.2 }, asFound: { logLoss: 0.4, brier: 0.1 } },
    };
    await expect(house.ask(setModel, { body: { version: school.version, model } })).rejects.toThrow();
  });

  test("every map follows them at once, and what ships is a press away", async () => {
    house.now = new Date("2026-11-30T12:00:00.000Z");
    const map = async () => (await house.ask(getGaps, { query: { classId } })).rows;
    const before = await map();
    const { version } = await house.ask(getSchool, {});
    const model = {
      ...{ values: { halfLife: 20, slip: 0.1 }, answers: 3000, children: 30, foundOn: "2026-11-20" },
      ...{ asNow: { logLoss: 0.5, brier: 0.2 }, asFound: { logLoss: 0.4, brier: 0.1 } },
    };
    await house.ask(setModel, { body: { version, model } });
    expect(await map()).not.toEqual(before);
    expect((await house.ask(getForesight, {})).ownModel).toEqual(model);
    const { version: now } = await house.ask(getSchool, {});
    await house.ask(setModel, { body: { version: now, model: null } });
    expect(await map()).toEqual(before);
  });
});
