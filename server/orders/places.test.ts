import { randomUUID as uuid } from "node:crypto";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  addChild,
  addClass,
  addOrder,
  editOrder,
  exportChild,
  getGaps,
  getPlaceOfChild,
  getPlaceOfGroup,
  getSchool,
  markTaught,
  type OrderBody,
  removeOrder,
  saveGroup,
  setPlaceOfChild,
  setPlaceOfGroup,
} from "#contract";
import { cellAt } from "#core/mastery";
import { begin, part } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const [classId, groupId] = [uuid(), uuid()];
const [ada, ben, cy] = [uuid(), uuid(), uuid()];
let order: { id: string; content: OrderBody };
const step = (at: number) => order.content.steps[at]?.id ?? "";
const upTo = (at: number) => order.content.steps.slice(0, at + 1).flatMap((one) => one.gpcs);
const place = (stepId: string | null, change: object = {}) => ({
  ...{ id: uuid(), orderId: stepId === null ? null : order.id, stepId, again: false },
  ...{ since: "2026-11-10", at: "2026-11-10T09:00:00.000Z" },
  ...change,
});
/** What a deck of all that was taught asks a child. */
async function deckOf(childId: string): Promise<readonly string[]> {
  const { checks } = await begin(house, [childId], [part("card", { scope: "all" })], "2026-11-20T08:00:00.000Z");
  return checks.flatMap(({ items }) => items);
}
const faces = (gpcs: readonly string[]) => [...new Set(gpcs.map((gpc) => gpc.split("=")[0]))].sort();
async function stateOf(childId: string, gpc: string) {
  const map = await house.ask(getGaps, { query: { classId } });
  const at = map.columns.findIndex((column) => column.gpc === gpc);
  return cellAt(map.rows.find((row) => row.id === childId)?.cells ?? "", at).state;
}

beforeAll(async () => {
  house = await openTestHouse();
  house.now = new Date("2026-11-20T12:00:00.000Z");
  order = (await house.ask(getSchool, {})).orders[0] as typeof order;
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId: order.id } });
  const taught = { id: uuid(), stepId: step(8), taughtOn: "2026-09-07", at: "2026-09-07T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: taught });
  for (const [id, name] of [
    [ada, "Ada M."],
    [ben, "Ben T."],
    [cy, "Cy F."],
  ] as const)
    await house.ask(addChild, { body: { id, classId, name, note: "" } });
  const members = [ben, cy].map((childId) => ({ childId, locked: false }));
  await house.ask(saveGroup, {
    params: { id: groupId },
    body: { versionId: uuid(), version: 0, name: "Towpath", members, targets: [], at: "2026-11-09T08:00:00.000Z" },
  });
});
afterAll(() => house.close());

test("a child goes along with its class until it has a place of its own, which decks and the map follow", async () => {
  expect(await house.ask(getPlaceOfChild, { params: { id: ada } })).toMatchObject({ of: "class", stepId: step(8) });
  expect(faces(await deckOf(ada))).toEqual(faces(upTo(8)));
  const own = await house.ask(setPlaceOfChild, { params: { id: ada }, body: place(step(3)) });
  expect(own).toMatchObject({ of: "child", stepId: step(3), since: "2026-11-10" });
  expect(faces(await deckOf(ada))).toEqual(faces(upTo(3)));
  expect(faces(await deckOf(ben))).toEqual(faces(upTo(8)));
  const beyond = upTo(8).at(-1) as string;
  expect(await stateOf(ada, beyond)).toBe("not taught");
  expect(await stateOf(ben, beyond)).toBe("not checked");
});
test("a second time through what comes later was taught before, and decks end at its place", async () => {
  await house.ask(setPlaceOfChild, { params: { id: ada }, body: place(step(2), { again: true }) });
  expect(faces(await deckOf(ada))).toEqual(faces(upTo(2)));
  expect(await stateOf(ada, upTo(8).at(-1) as string)).toBe("not checked");
});
test("a group's place counts for its children, a child's own before it; ended, all is as before", async () => {
  await house.ask(setPlaceOfGroup, { params: { id: groupId }, body: place(step(5)) });
  await house.ask(setPlaceOfChild, { params: { id: cy }, body: place(step(1)) });
  expect(await house.ask(getPlaceOfChild, { params: { id: ben } })).toMatchObject({
    of: "group",
    groupName: "Towpath",
    stepId: step(5),
  });
  expect(faces(await deckOf(ben))).toEqual(faces(upTo(5)));
  expect(faces(await deckOf(cy))).toEqual(faces(upTo(1)));
  await house.ask(setPlaceOfChild, { params: { id: cy }, body: place(null) });
  expect(await house.ask(getPlaceOfChild, { params: { id: cy } })).toMatchObject({ of: "group", stepId: step(5) });
  await house.ask(setPlaceOfGroup, { params: { id: groupId }, body: place(null) });
  expect((await house.ask(getPlaceOfGroup, { params: { id: groupId } })).of).toBe("class");
  expect(faces(await deckOf(cy))).toEqual(faces(upTo(8)));
});
test("the same asking twice marks once; a step of another order, a day to come and no such child are refused", async () => {
  const body = place(step(4));
  await house.ask(setPlaceOfChild, { params: { id: cy }, body });
  await house.ask(setPlaceOfChild, { params: { id: cy }, body });
  const { places } = await house.ask(exportChild, { params: { id: cy } });
  expect(places.map(({ step: title }) => title)).toEqual([
    order.content.steps[1]?.title,
    null,
    order.content.steps[4]?.title,
  ]);
  const refused = (id: string, asked: object) =>
    house.ask(setPlaceOfChild, { params: { id }, body: place(step(3), asked) });
  await expect(refused(cy, { stepId: "nowhere" })).rejects.toThrow(/step/);
  await expect(refused(cy, { orderId: uuid() })).rejects.toThrow(/teaching order/);
  await expect(refused(cy, { since: "2027-01-01" })).rejects.toThrow(/ahead/);
  await expect(refused(uuid(), {})).rejects.toThrow();
});
test("an order in which someone has a place keeps its step and stays; once ended it can go", async () => {
  const content = { ...order.content, name: "Ours" };
  const mine = await house.ask(addOrder, { body: { id: uuid(), content } });
  await house.ask(setPlaceOfChild, { params: { id: cy }, body: place(step(6), { orderId: mine.id }) });
  expect(faces(await deckOf(cy))).toEqual(faces(upTo(6)));
  const without = { ...content, steps: content.steps.filter(({ id }) => id !== step(6)) };
  const edit = () =>
    house.ask(editOrder, { params: { id: mine.id }, body: { version: mine.version, content: without } });
  await expect(edit()).rejects.toThrow(/A child with a place of its own/);
  await expect(house.ask(removeOrder, { params: { id: mine.id } })).rejects.toThrow(/uses this order/);
  await house.ask(setPlaceOfChild, { params: { id: cy }, body: place(null) });
  await house.ask(removeOrder, { params: { id: mine.id } });
  expect(faces(await deckOf(cy))).toEqual(faces(upTo(8)));
});
