import { and, eq, lt, notInArray } from "drizzle-orm";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

export async function faceByCode(db: Db, code: string) {
  return (await db.select().from(t.faces).where(eq(t.faces.code, code)))[0];
}

/** The code of a desk; null while no one asked for one. */
export async function faceCodeOf(db: Db, deskId: string): Promise<string | null> {
  return (await db.select().from(t.faces).where(eq(t.faces.deskId, deskId)))[0]?.code ?? null;
}

/** Opens a face, unless its desk has one or another desk has the code; `faceCodeOf` tells. */
export async function insertFace(db: Db, row: typeof t.faces.$inferInsert): Promise<void> {
  await db.insert(t.faces).values(row).onConflictDoNothing();
}

export async function deleteFace(db: Db, deskId: string): Promise<void> {
  await db.delete(t.faces).where(eq(t.faces.deskId, deskId));
}

/** Closes faces that were opened before `instant` and belong to no sitting: no one came to close them. */
export async function deleteFacesBefore(db: Db, instant: string): Promise<void> {
  const sittings = db.select({ id: t.sittings.id }).from(t.sittings);
  await db.delete(t.faces).where(and(lt(t.faces.openedAt, instant), notInArray(t.faces.deskId, sittings)));
}
