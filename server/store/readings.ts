import { desc, eq } from "drizzle-orm";
import type { ReadingView } from "#contract";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

/** The newest first. */
export async function readingsOfChild(db: Db, childId: string): Promise<ReadingView[]> {
  return db
    .select()
    .from(t.readings)
    .where(eq(t.readings.childId, childId))
    .orderBy(desc(t.readings.readAt), t.readings.id);
}

export async function findReading(db: Db, id: string): Promise<ReadingView | undefined> {
  return (await db.select().from(t.readings).where(eq(t.readings.id, id)))[0];
}

/** Keeps a reading; the same id again is written over. */
export async function putReading(db: Db, row: ReadingView): Promise<void> {
  await db.insert(t.readings).values(row).onConflictDoUpdate({ target: t.readings.id, set: row });
}
