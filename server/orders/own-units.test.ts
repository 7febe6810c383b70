import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addOrder,
  editOrder,
  evidence,
  getGaps,
  getSchool,
  getWorth,
  markTaught,
  type OrderBody,
  planNewSession,
  removeOrder,
  saveAnswers,
  saveGroup,
  saveSplit,
} from "#contract";
import { cellAt } from "#core/mastery";
import { holds } from "#core/words";
import { answerTo, begin, markAll, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

const nk = "n+k=ng+k";
let house: TestHouse;
let mine: { id: string; version: number; content: OrderBody };
const [withUnit, without] = [uuid(), uuid()];
const [ada, ben] = [uuid(), uuid()];
const cell = async (classId: string, childId: string, gpc: string, of?: "spelling") => {
  const map = await house.ask(getGaps, { query: { classId, ...(of ? { of } : {}) } });
  const at = map.columns.findIndex((column) => column.gpc === gpc);
  return at < 0 ? undefined : cellAt(map.rows.find((row) => row.id === childId)?.cells ?? "", at);
};

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  const shipped = (await house.ask(getSchool, {})).orders[0];
  const content = shipped?.content as OrderBody;
  const steps = content.steps.map((step, at) => (at === 4 ? { ...step, gpcs: [...step.gpcs, nk] } : step));
  mine = await house.ask(addOrder, { body: { id: uuid(), content: { ...content, name: "Ours", steps } } });
  for (const [id, orderId, childId, name] of [
    [withUnit, mine.id, ada, "Ada M."],
    [without, shipped?.id ?? "", ben, "Ben T."],
  ] as const) {
    await house.ask(addClass, { body: { id, name: name.slice(0, 3), yearGroup: "", orderId } });
    const body = {
      ...{ id: uuid(), stepId: content.steps[8]?.id ?? "", taughtOn: "2026-09-07" },
      at: "2026-09-07T08:00:00.000Z",
    };
    await house.ask(markTaught, { params: { id }, body });
    await house.ask(addChild, { body: { id: childId, classId: id, name, note: "" } });
  }
});
afterAll(() => house.close());

test("a deck of what was taught asks the unit, and its card speaks of it and of its parts", async () => {
  const day = "2026-11-10";
  const { checks } = await begin(house, [ada, ben], [part("card", { scope: "all" })], `${day}T08:00:00.000Z`);
  const [hers, his] = [ada, ben].map((id) => checks.find(({ childId }) => childId === id));
  expect(hers?.items).toContain(nk);
  expect(his?.items).not.toContain(nk);
  for (const check of checks)
    await markAll(house, check, (item) => (item === nk ? { outcome: "none" } : { outcome: "right" }), {
      ...{ day, markedAt: `${day}T08:10:00.000Z` },
    });
  const unit = await cell(withUnit, ada, nk);
  expect(unit).toMatchObject({ taught: true });
  expect(unit?.chance).toBeLessThan((await cell(withUnit, ada, "k=k"))?.chance ?? 0);
  expect(await cell(without, ben, nk)).toBeUndefined();
  const told = await house.ask(evidence, { params: { id: ada }, query: { gpc: nk } });
  expect(told.pieces.map(({ says }) => says)).toEqual(["no answer"]);
});

test("a word speaks of the unit for who is taught it; a unit of an order that is edited is forgotten and comes back", async () => {
  const day = "2026-11-17";
  const { checks } = await begin(
    house,
    [ada, ben],
    [part("words", { scope: "picked", picked: ["p i n=ng k"] } as never)],
    `${day}T08:00:00.000Z`,
  );
  const answers = checks.map((check) =>
    answerTo(check, "p i n=ng k", { outcome: "wrong", heard: "pin" }, { day, markedAt: `${day}T08:10:00.000Z` }),
  );
  expect((await house.ask(saveAnswers, { body: { answers } })).refused).toEqual([]);
  const said = async () =>
    (await house.ask(evidence, { params: { id: ada }, query: { gpc: nk } })).pieces.map(({ says }) => says);
  expect(await said()).toEqual(["went wrong in “pink”, read as “pin”", "no answer"]);
  const before = await cell(withUnit, ada, nk);
  const edited = async (change: (gpcs: readonly string[]) => readonly string[]) => {
    const steps = mine.content.steps.map((step, at) => (at === 4 ? { ...step, gpcs: change(step.gpcs) } : step));
    const body = { version: mine.version, content: { ...mine.content, steps } };
    mine = await house.ask(editOrder, { params: { id: mine.id }, body });
  };
  const units = async () => (await house.school.words.read()).lexicon.ownUnits;
  expect(await units()).toEqual([nk]);
  await edited((gpcs) => gpcs.filter((gpc) => gpc !== nk));
  expect(await units()).toEqual([]);
  // What was asked of it is still there, as of anything that is not taught.
  expect((await cell(withUnit, ada, nk))?.taught).not.toBe(true);
  await edited((gpcs) => [...gpcs, nk]);
  expect(await units()).toEqual([nk]);
  expect(await cell(withUnit, ada, nk)).toEqual(before);
});

test("it is worth teaching, and a group's session is planned for it", async () => {
  const worth = await house.ask(getWorth, { query: { classId: withUnit } });
  const at = worth.gpcs.indexOf(nk);
  expect(worth.rows.find(({ id }) => id === ada)?.opens[at]).toBeGreaterThan(0);
  expect(worth.examples[nk]?.length).toBeGreaterThan(0);
  const groupId = uuid();
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: {
      ...{ versionId: uuid(), version: 0, name: "Otters", targets: [nk], at: "2026-11-20T08:00:00.000Z", why: "" },
      members: [{ childId: ada, locked: false }],
    },
  });
  const { plan } = await house.ask(planNewSession, {
    body: { id: uuid(), groupId, heldOn: "2026-11-23", target: nk, seed: 1 },
  });
  expect(plan.target).toBe(nk);
  const read = plan.parts.find(({ kind }) => kind === "readWords")?.items ?? [];
  expect(read.length).toBeGreaterThan(3);
  const { lexicon } = await house.school.words.read();
  for (const text of read) expect(lexicon.find(text).some(({ units }) => holds(units, nk))).toBe(true);
});

test("what is no unit is refused, and a unit is no part of a split", async () => {
  const { id, version, content } = mine;
  const withGpc = (gpc: string) => ({
    params: { id },
    body: {
      version,
      content: { ...content, steps: [{ ...content.steps[0], gpcs: [gpc] }, ...content.steps.slice(1)] },
    },
  });
  for (const gpc of ["n+zq=ng+k", "n+k=ng", "k+a_e=k+ai", "a+b+c+d+e=a+b+k+d+e", "n+=ng+"])
    expect((await house.refused(editOrder, withGpc(gpc) as never)).status, gpc).toBe(422);
  const split = {
    id: uuid(),
    text: "pink",
    units: ["p=p", "i=i", nk],
    reason: "",
    savedAt: "2026-11-20T08:00:00.000Z",
  };
  expect((await house.refused(saveSplit, { params: { id: split.id }, body: split } as never)).status).toBe(422);
});

test("an order that goes takes its units with it", async () => {
  const other = await house.ask(addOrder, {
    body: {
      id: uuid(),
      content: { ...mine.content, name: "Theirs", steps: [{ ...mine.content.steps[0], gpcs: ["s+t=s+t"] }] } as never,
    },
  });
  const units = async () => (await house.school.words.read()).lexicon.ownUnits;
  expect(await units()).toEqual([nk, "s+t=s+t"]);
  await house.ask(removeOrder, { params: { id: other.id } });
  expect(await units()).toEqual([nk]);
});
