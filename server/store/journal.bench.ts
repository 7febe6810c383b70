import { randomUUID as uuid } from "node:crypto";
import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { bench, describe } from "vitest";
import { addChild, addClass, type CheckView, getSchool, markTaught, saveAnswers } from "#contract";
import { answerTo, beginOne } from "../checks/marking.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { openStore } from "./open.ts";
import type { OpenStore } from "./opened.ts";
import * as schema from "./schema.ts";
import { allMigrations } from "./testing.ts";

// What it costs that an acknowledged mark is on the disk: the same folder with and without a journal.

interface Marked {
  readonly house: TestHouse;
  readonly check: CheckView;
  marks: number;
}

async function withCheck(store: OpenStore): Promise<Marked> {
  const house = await openTestHouse(store);
  const [classId, childId] = [uuid(), uuid()];
  const orderId = (await house.ask(getSchool, {})).orders[0]?.id ?? "";
  await house.ask(addClass, { body: { id: classId, name: "Kiln", yearGroup: "", orderId } });
  const taught = { id: uuid(), stepId: "s14", taughtOn: "2026-11-02", at: "2026-11-20T08:00:00.000Z" };
  await house.ask(markTaught, { params: { id: classId }, body: taught });
  await house.ask(addChild, { body: { id: childId, classId, name: "Ada M.", note: "" } });
  return { house, check: await beginOne(house, childId), marks: 0 };
}

const newFolder = () => mkdtempSync(join(tmpdir(), "keen-bench-"));

/** The database of a folder as it would be without a journal: nothing of it is flushed before the answer. */
async function withoutJournal(): Promise<OpenStore> {
  const client = new PGlite(join(newFolder(), "pg"));
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder: allMigrations });
  const memory = await openStore({ folder: "memory://" });
  await memory.close();
  return { ...memory, db: db as never, owner: db as never, close: () => client.close() };
}

const [without, journalled] = [
  await withCheck(await withoutJournal()),
  await withCheck(await openStore({ folder: newFolder() })),
];

async function mark(desk: Marked, desks: number): Promise<void> {
  const { house, check } = desk;
  await Promise.all(
    Array.from({ length: desks }, () => {
      const item = check.items[desk.marks++ % check.items.length] ?? "";
      const answers = [answerTo(check, item, { outcome: "right" }, { pass: 1 + (desk.marks % 20) })];
      return house.ask(saveAnswers, { body: { answers } });
    }),
  );
}

const often = { time: 3000, warmupIterations: 20 };

describe("a mark, no one else there", () => {
  bench("baseline: without a journal", () => mark(without, 1), often);
  bench("with the journal, flushed before the answer", () => mark(journalled, 1), often);
});

describe("forty marks in the same moment", () => {
  bench("baseline: without a journal", () => mark(without, 40), often);
  bench("with the journal, flushed before the answer", () => mark(journalled, 40), often);
});
