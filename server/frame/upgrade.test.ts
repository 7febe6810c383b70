import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { sql } from "drizzle-orm";
import { beforeAll, describe, expect, test } from "vitest";
import {
  exportChild,
  getGaps,
  getSchool,
  getSession,
  getSitting,
  listChildren,
  listPresets,
  listReadings,
  listSessions,
} from "#contract";
import { sectionOf } from "#core/checks";
import { taughtUpTo } from "#core/order";
import { openStore } from "../store/open.ts";
import { type Dump, databaseAt, fillFrom } from "../store/testing.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";

/** A folder that was filled before the fifth migration: five children of the demo school, with all that was theirs. */
const dump: Dump = JSON.parse(
  gunzipSync(readFileSync(join(import.meta.dirname, "../store/fixtures/school-at-0004.json.gz"))).toString(),
);
const preset = {
  id: crypto.randomUUID(),
  name: "Monday look",
  purpose: "",
  sections: [
    { ...sectionOf("words"), picked: [] },
    { ...sectionOf("card"), picked: [], kind: "say" },
  ],
};

describe("a school that was filled by the version before", () => {
  let house: TestHouse;
  beforeAll(async () => {
    const client = await databaseAt(4);
    await fillFrom(client, { ...dump, presets: [preset] });
    const snapshot = await client.dumpDataDir("none");
    await client.close();
    house = await openTestHouse(await openStore({ folder: "memory://", snapshot }));
    return () => house.close();
  }, 60_000);

  test("has its classes at their steps, taught what they were taught, on orders of its own", async () => {
    const { classes, orders } = await house.ask(getSchool, {});
    expect(classes).toHaveLength(dump.classes?.length ?? 0);
    for (const one of classes) {
      const before = dump.orders?.find(({ id }) => id === one.orderId)?.content as never;
      const now = orders.find(({ id }) => id === one.orderId);
      expect(taughtUpTo(now?.content as never, one.stepId)).toEqual(taughtUpTo(before, one.stepId));
      expect(taughtUpTo(before, one.stepId).length).toBeGreaterThan(10);
      expect(now).toMatchObject({ shipped: false });
    }
    expect(orders.filter((order) => order.shipped).map((order) => order.content.name)).toHaveLength(3);
  });
  test("has every answer of every child, spelling cards under their code of today", async () => {
    for (const { id } of await house.ask(listChildren, {})) {
      const { answers } = await house.ask(exportChild, { params: { id } });
      const before = (dump.answers ?? []).filter((row) => row.child_id === id);
      // Words of readings had rows of their own; a reading is one entry.
      const readings = (dump.readings ?? []).filter((row) => row.child_id === id && row.how !== "together");
      expect(answers.map((answer) => answer.id).sort()).toEqual(
        [...before.filter((row) => row.reading_id === null), ...readings].map((row) => row.id).sort(),
      );
      const cards = answers.filter((answer) => "kind" in answer && answer.kind === "card");
      expect(cards.length).toBeGreaterThan(10);
      expect(cards.length).toBe(
        before.filter((row) => row.kind === "say" && !["void", "note", "stop"].includes(String(row.outcome))).length,
      );
      expect(await house.ask(listReadings, { params: { id } })).toHaveLength(
        (dump.readings ?? []).filter((row) => row.child_id === id).length,
      );
    }
    const left = await house.store.owner.execute(
      sql`select 1 from answers where kind = 'say' union all select 1 from checks where kind = 'say'`,
    );
    expect((left as { rows: unknown[] }).rows).toEqual([]);
  });
  test("opens its sittings, sessions, plans and its map", async () => {
    for (const row of dump.sittings ?? []) {
      const { checks } = await house.ask(getSitting, { params: { id: String(row.id) } });
      expect(checks.length).toBeGreaterThan(0);
    }
    const sessions = await house.ask(listSessions, { query: {} });
    expect(sessions).toHaveLength(dump.sessions?.length ?? 0);
    for (const { id } of sessions)
      expect((await house.ask(getSession, { params: { id } })).plan.parts).not.toEqual([]);
    const plan = (await house.ask(listPresets, {})).find(({ id }) => id === preset.id);
    expect(plan?.sections.map(({ kind }) => kind)).toEqual(["words", "card"]);
    expect((await house.ask(getGaps, { query: {} })).rows).toHaveLength(dump.children?.length ?? 0);
  });
});
