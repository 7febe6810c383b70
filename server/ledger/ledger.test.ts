import { randomUUID as uuid } from "node:crypto";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import {
  type AnswerBody,
  addChild,
  addClass,
  type CheckView,
  eraseChild,
  getSchool,
  getSitting,
  markTaught,
  saveAnswers,
} from "#contract";
import { answerTo, beginOne, stopOf } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

let house: TestHouse;
const classId = uuid();
const ada = uuid();
let check: CheckView;
const at = "2026-11-20T08:31:00.000Z";

beforeAll(async () => {
  house = await openTestHouse();
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  await house.ask(markTaught, {
    params: { id: classId },
    body: { id: uuid(), stepId: "s3", taughtOn: "2026-11-02", at },
  });
  await house.ask(addChild, { body: { id: ada, classId, name: "Ada M.", note: "" } });
  check = await beginOne(house, ada, undefined, "2026-11-20T08:30:00.000Z");
});
afterAll(() => house.close());

const given = (item: string, change: Partial<AnswerBody> = {}): AnswerBody =>
  answerTo(check, item, { outcome: "right" }, { markedAt: at, ...change });
const undo = (voids: string): AnswerBody => ({
  id: uuid(),
  childId: ada,
  markedAt: "2026-11-20T08:32:00.000Z",
  day: "2026-11-20",
  markedBy: "Ms Harrow",
  outcome: "void",
  voids,
});
const send = (...answers: AnswerBody[]) => house.ask(saveAnswers, { body: { answers } });
const ended = async () => {
  const sitting = (await house.store.owner.execute(
    sql`select sitting_id as id from checks where id = ${check.id}`,
  )) as unknown as { rows: { id: string }[] };
  return (await house.ask(getSitting, { params: { id: sitting.rows[0]?.id ?? "" } })).checks[0]?.endedAt;
};
/** How many entries the child's log has, the highest number among them, and the number that the child is said to be at. */
async function numbers() {
  const found = (await house.store.owner.execute(
    sql`select count(*)::int as count, max(number) as last, (select entries from children where id = ${ada}) as told from answers where child_id = ${ada}`,
  )) as unknown as { rows: { count: number; last: number; told: number }[] };
  return found.rows[0];
}

describe("marks that are sent", () => {
  test("a malformed one is refused alone, with its reason; each is told its fate in the order it was sent", async () => {
    const [one, two] = [given("s=s"), given("i=i")];
    const { source: _, help: __, way: ___, ...rest } = given("n=n") as Extract<AnswerBody, { outcome: "right" }>;
    const bad = { ...given("p=p"), ms: "soon" } as never;
    const told = await send(one, bad, null as never, { ...rest, checkId: check.id } as never, one, two);
    expect(told.fates.map((fate) => [fate.at, fate.fate])).toEqual([
      [0, "kept"],
      [1, "refused"],
      [2, "refused"],
      [3, "kept"],
      [4, "there"],
      [5, "kept"],
    ]);
    expect(told.fates[1]?.says).toMatch(/cannot be read \(ms: /);
    const log = await house.school.ledger.logOfChildren([ada]);
    expect(log.map((entry) => entry.id).sort()).toEqual([one.id, rest.id, two.id].sort());
    expect(log.find((entry) => entry.id === rest.id)).toMatchObject({
      source: { kind: "check", checkId: check.id },
      help: "none",
      way: "seen",
    });
    // A web application of the version before reads these two.
    expect(told.saved).toEqual([one.id, rest.id, one.id, two.id]);
    expect(told.refused).toHaveLength(2);
  });
  test("the same id with other content is refused; what was kept first stays", async () => {
    const one = given("d=d");
    await send(one);
    const told = await send({ ...one, item: "m=m" } as AnswerBody, one);
    expect(told.fates.map(({ fate, says }) => [fate, says])).toEqual([
      ["refused", "Another mark has this id."],
      ["there", ""],
    ]);
  });
  test("of four ends at once one counts, and the numbers of a child's log have no gap", async () => {
    const ends = [1, 2, 3, 4].map((minute) => stopOf(check, `2026-11-20T08:3${minute}:00.000Z`));
    const told = await Promise.all(ends.map((one) => send(one, given("d=d"))));
    const all = told.flatMap(({ fates }) => fates.map(({ fate }) => fate));
    expect(all.filter((fate) => fate === "there")).toHaveLength(3);
    expect(all).not.toContain("refused");
    const counted = await numbers();
    expect(counted).toEqual({ count: counted?.count, last: counted?.count, told: counted?.count });
    const end = ends[told.findIndex(({ fates }) => fates[0]?.fate === "kept")];
    expect(await ended()).toBe(end?.markedAt);
    await send(undo(end?.id ?? ""));
    expect(await ended()).toBeNull();
  });
  test("what is taken back with its transaction leaves neither a mark nor a number nor an end", async () => {
    const before = await numbers();
    const failing = house.school.together(async () => {
      await house.school.ledger.take([given("a=a"), stopOf(check)], () => false);
      // What is read on the way is not remembered.
      await house.school.ledger.standingOfChildren([ada]);
      throw new Error("the line broke");
    });
    await expect(failing).rejects.toThrow("the line broke");
    expect(await numbers()).toEqual(before);
    expect(await ended()).toBeNull();
    const { fates } = await house.school.ledger.take([given("a=a")], () => false);
    expect(fates).toMatchObject([{ fate: "kept" }]);
    expect(
      (await house.school.ledger.standingOfChildren([ada])).get(ada)?.filter((one) => one.item === "a=a"),
    ).toHaveLength(1);
    expect((await numbers())?.last).toBe((before?.last ?? 0) + 1);
  });
  test("what stands is followed mark by mark, also when it comes late and when it is taken back", async () => {
    const { ledger } = house.school;
    const read = async () => (await ledger.standingOfChildren([ada])).get(ada)?.map((answer) => answer.id) ?? [];
    const before = await read();
    const late = given("t=t", { markedAt: "2026-11-20T08:30:30.000Z" });
    await send(late);
    expect(await read()).toEqual([late.id, ...before]);
    await send(undo(late.id));
    expect(await read()).toEqual(before);
  });
  test("for a child who was erased meanwhile are refused, with the reason", async () => {
    const [gone, back] = [uuid(), uuid()];
    await house.ask(addChild, { body: { id: gone, classId, name: "Bo K.", note: "" } });
    const its = await beginOne(house, gone, undefined, "2026-11-20T08:30:00.000Z");
    await house.ask(eraseChild, { params: { id: gone } });
    const told = await send(answerTo(its, "s=s", { outcome: "right" }, { id: back, markedAt: at }), given("m=m"));
    expect(told.fates).toEqual([
      { at: 0, fate: "refused", says: "This child is not here any more." },
      { at: 1, fate: "kept", says: "" },
    ]);
  });
});
