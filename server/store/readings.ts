import { desc, eq, inArray } from "drizzle-orm";
import type { AnswerBody, ReadingView } from "#contract";
import { append } from "../ledger/append.ts";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

/** The newest first. */
export async function readingsOfChild(db: Db, childId: string): Promise<ReadingView[]> {
  return readingsOfChildren(db, [childId]);
}

/** The readings of these children, the newest first. */
export async function readingsOfChildren(db: Db, childIds: readonly string[]): Promise<ReadingView[]> {
  if (childIds.length === 0) return [];
  return db
    .select()
    .from(t.readings)
    .where(inArray(t.readings.childId, [...childIds]))
    .orderBy(desc(t.readings.readAt), t.readings.id);
}

export async function findReading(db: Db, id: string): Promise<ReadingView | undefined> {
  return (await db.select().from(t.readings).where(eq(t.readings.id, id)))[0];
}

/**
 * Keeps a reading; the same id again is written over. `entries` gives what then enters the answer log: it is asked once
 * the row is held, so that two writers of one reading come one after the other.
 */
export async function putReading(
  db: Db,
  row: ReadingView,
  entries: (inside: Db) => Promise<readonly AnswerBody[]>,
): Promise<void> {
  await db.transaction(async (inside) => {
    await inside.insert(t.readings).values(row).onConflictDoUpdate({ target: t.readings.id, set: row });
    await append(inside, await entries(inside), { dayOf: () => row.day, isFuture: () => false });
  });
}
