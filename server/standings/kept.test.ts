import { randomUUID as uuid } from "node:crypto";
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import {
  type AnswerBody,
  addChild,
  addClass,
  type CheckView,
  getSchool,
  markTaught,
  saveAnswers,
  setCheckSettings,
  setSecureWhen,
} from "#contract";
import { dice } from "#core/checks";
import { dayAt, standing } from "#core/ledger";
import { childRow, codeOf, knownBy, type SaidBy, shipped } from "#core/mastery";
import { answerTo, begin, part } from "../checks/marking.ts";
import { ruleOf } from "../ledger/standing.ts";
import * as t from "../store/schema.ts";
import { scopeOf } from "../store/scope.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { forgetKnown } from "./kept.ts";
import { lessonsIn } from "./lessons.ts";

let house: TestHouse;
const classId = uuid();
const childIds = [uuid(), uuid(), uuid()];
let checks: readonly CheckView[];
const inside = <T>(work: Parameters<ReturnType<typeof scopeOf>["run"]>[0]) =>
  scopeOf(house.store, schoolId, house.shipped).run(work) as Promise<T>;
let schoolId = "";

beforeAll(async () => {
  house = await openTestHouse();
  const { rows } = (await house.store.owner.execute("select id from schools")) as unknown as {
    rows: { id: string }[];
  };
  schoolId = rows[0]?.id ?? "";
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const taught = { id: uuid(), stepId: "s4", taughtOn: "2026-06-02", at: "2026-06-02T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: taught });
  for (const [at, id] of childIds.entries())
    await house.ask(addChild, { body: { id, classId, name: `Child ${at}`, note: "" } });
  ({ checks } = await begin(house, childIds, [part("card", { scope: "all" })], "2026-06-03T08:00:00.000Z"));
});
afterAll(() => house.close());

/** The map of the class as a replay of the whole log gives it. */
async function replayed(columns: readonly string[], today: string): Promise<Map<string, string>> {
  return inside(async (open) => {
    const rule = await ruleOf(open);
    const lessons = await lessonsIn(open);
    const secureWhen = (await house.school.settings.read()).secureWhen;
    const found = new Map<string, string>();
    for (const id of childIds) {
      const log = await house.school.ledger.logOfChildren([id]);
      const by: SaidBy = { lessons: lessons(id, classId).lessons, p: shipped, secureWhen };
      const answers = standing(log, { slowAfterMs: rule.slowAfterMs, inText: rule.wholeText });
      const known = knownBy(answers, { ...by, words: rule.words });
      found.set(id, childRow(known, columns, today, by).map(codeOf).join(""));
    }
    return found;
  });
}

test("after thousands of marks, undos, late arrivals, changed settings and starts the map is that of a replay", async () => {
  const from = dice(7);
  const all: AnswerBody[] = [];
  const start = Date.parse("2026-06-03T09:00:00.000Z");
  let [marked, compared] = [0, 0];
  for (let round = 0; round < 60; round++) {
    const batch: AnswerBody[] = [];
    for (let at = 0; at < 40; at++) {
      const check = checks[from.pick(checks.length)] as CheckView;
      const late = from.share() < 0.03 ? from.pick(120) : round * 2;
      const markedAt = new Date(start + late * 86_400_000 + at * 60_000).toISOString();
      const item = check.items[from.pick(check.items.length)] ?? "";
      const outcome = from.share() < 0.7 ? "right" : from.share() < 0.5 ? "none" : "slow";
      const mark = answerTo(check, item, { outcome }, {
        markedAt,
        day: dayAt("UTC", markedAt),
        ms: 500 + from.pick(5000),
      } as never);
      batch.push(mark);
    }
    if (from.share() < 0.3 && all.length > 0) {
      const target = all[from.pick(all.length)] as AnswerBody;
      const { id, childId, markedAt, day, markedBy } = target;
      batch.push({ id: uuid(), childId, markedAt, day, markedBy, outcome: "void", voids: id });
    }
    house.now = new Date(start + 130 * 86_400_000);
    const { refused } = await house.ask(saveAnswers, { body: { answers: batch } });
    marked += batch.length - refused.length;
    all.push(...batch.filter((one) => one.outcome !== "void"));
    if (round % 11 === 6) {
      // A step back and forth: what was taught, and since when, is part of what a child is judged by.
      const stepId = round % 2 === 0 ? "s3" : "s4";
      const at = new Date(start + round * 2 * 86_400_000).toISOString();
      await house.ask(markTaught, {
        params: { id: classId },
        body: { id: uuid(), stepId, taughtOn: dayAt("UTC", at), at },
      });
    }
    if (round % 13 === 5) {
      const { version } = await house.ask(getSchool, {});
      const secureWhen =
        round % 2 === 0 ? ({ by: "days", days: 2 } as const) : ({ by: "model", percent: 90 } as const);
      await house.ask(setSecureWhen, { body: { version, secureWhen } });
    }
    if (round % 9 === 4) {
      const { version, checks: settings } = await house.ask(getSchool, {});
      const body = { version, checks: { ...settings, slowAfter: round % 2 === 0 ? 2 : 4 } };
      await house.ask(setCheckSettings, { body });
    }
    // A start: what is in memory is gone, what is stored is there.
    if (round % 7 === 3)
      await inside(async (open) => {
        for (const id of childIds) forgetKnown(open, id);
      });
    for (const today of round % 2 === 0 ? ["2026-09-01"] : ["2026-12-24"]) {
      const map = await house.school.standings.gapMap(today, classId);
      const truth = await replayed(
        map.columns.map(({ gpc }) => gpc),
        today,
      );
      expect(new Map(map.rows.map(({ id, cells }) => [id, cells]))).toEqual(truth);
      compared++;
    }
  }
  expect(marked).toBeGreaterThan(2300);
  expect(compared).toBe(60);
});

test("what another process has stored and marked is taken up, and what is not by today's rule is made anew", async () => {
  const [childId = ""] = childIds;
  const cellsOf = async () =>
    (await house.school.standings.gapMap("2026-12-24", classId)).rows.find((row) => row.id === childId)?.cells;
  const before = await cellsOf();
  const { standings } = t;
  const stored = await inside<{ number: number; basis: string }[]>((open) =>
    open.select().from(standings).where(eq(standings.childId, childId)),
  );
  expect(stored).toHaveLength(1);
  // A number of entries that the log does not have, and a basis of another version: neither is believed.
  for (const change of [{ number: 1_000_000 }, { basis: "of another version" }]) {
    await inside((open) =>
      open
        .update(standings)
        .set({ ...change, known: {} as never })
        .where(eq(standings.childId, childId)),
    );
    await inside(async (open) => forgetKnown(open, childId));
    expect(await cellsOf()).toBe(before);
  }
  // It has been put right where it is stored, too.
  const [again] = await inside<{ basis: string }[]>((open) =>
    open.select().from(standings).where(eq(standings.childId, childId)),
  );
  expect(again?.basis).toBe(stored[0]?.basis);
});
