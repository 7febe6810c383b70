import { afterAll, beforeAll, expect, test } from "vitest";
import { type AnswerBody, type CheckView, getChild, saveAnswers } from "#contract";
import { answerTo, beginOne } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";

let house: TestHouse;
let childId = "";
let check: CheckView;
beforeAll(async () => {
  house = await openTestHouse();
  ({ childId } = await oneOfEach(house.ask, "Reed"));
  check = await beginOne(house, childId, { scope: "all" }, "2026-11-20T08:40:00.000Z");
});
afterAll(() => house.close());

const send = (...answers: AnswerBody[]) => house.ask(saveAnswers, { body: { answers } });
const page = async () => {
  const { checks, confusions } = await house.ask(getChild, { params: { id: childId } });
  const { asked, right } = checks.find((one) => one.id === check.id) ?? {};
  return { asked, right, confusions: confusions.map((one) => `${one.given} for ${one.asked} ${one.count}`) };
};
const marked = (item: string, minute: string, mark: Parameters<typeof answerTo>[2], change: object = {}) =>
  answerTo(check, item, mark, { markedAt: `2026-11-20T08:${minute}:00.000Z`, ...change });

test("a check counts its items by the first answer of its first round, without what was taken back", async () => {
  const [a = "", b = "", c = ""] = check.items;
  const missed = marked(a, "41", { outcome: "none" });
  const undone = marked(c, "43", { outcome: "right" });
  await send(missed, marked(b, "42", { outcome: "slow" }), undone);
  expect(await page()).toEqual({ asked: 3, right: 2, confusions: [] });
  // A second round wins nothing back here, and is no item more; neither is a second mark of the same card.
  await send(marked(a, "44", { outcome: "right" }, { pass: 2 }), marked(b, "45", { outcome: "none" }));
  expect(await page()).toMatchObject({ asked: 3, right: 2 });
  const { id, markedAt, day, markedBy } = undone;
  await send({ id: crypto.randomUUID(), childId, markedAt, day, markedBy, outcome: "void", voids: id });
  expect(await page()).toMatchObject({ asked: 2, right: 1 });
  // With the first mark of a card taken back the next one is the first.
  await send({ id: crypto.randomUUID(), childId, markedAt, day, markedBy, outcome: "void", voids: missed.id });
  expect(await page()).toMatchObject({ asked: 1, right: 1 });
});

test("what is taken for what leaves with the mark that said it", async () => {
  const item = check.items.find((one) => one === "d=d") ?? check.items[3] ?? "";
  const wrong = marked(item, "46", { outcome: "wrong", heard: "b" });
  await send(wrong);
  // Found once and kept until there is more: the same when it is asked again.
  for (let again = 0; again < 2; again++)
    expect((await page()).confusions).toEqual([`b for ${item.split("=")[1]} 1`]);
  const { id, markedAt, day, markedBy } = wrong;
  await send({ id: crypto.randomUUID(), childId, markedAt, day, markedBy, outcome: "void", voids: id });
  expect((await page()).confusions).toEqual([]);
});
