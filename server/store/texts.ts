import { and, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import type { PreparationBody, TextContentBody, TextVersion } from "#contract";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

interface OwnText {
  readonly id: string;
  readonly version: number;
  readonly content: TextContentBody;
}

/** The newest version of each own text, by title. */
export async function ownTexts(db: Db): Promise<OwnText[]> {
  const rows = await db
    .selectDistinctOn([t.textVersions.textId], {
      id: t.textVersions.textId,
      version: t.textVersions.version,
      content: t.textVersions.content,
    })
    .from(t.textVersions)
    .innerJoin(t.texts, and(eq(t.texts.id, t.textVersions.textId), isNull(t.texts.removedAt)))
    .orderBy(t.textVersions.textId, desc(t.textVersions.version));
  return rows.sort((one, other) => one.content.title.localeCompare(other.content.title));
}

/** The newest first. */
export async function versionsOf(db: Db, textId: string): Promise<TextVersion[]> {
  const { version, content, savedAt, savedBy } = t.textVersions;
  return db
    .select({ version, content, savedAt, savedBy })
    .from(t.textVersions)
    .innerJoin(t.texts, and(eq(t.texts.id, t.textVersions.textId), isNull(t.texts.removedAt)))
    .where(eq(t.textVersions.textId, textId))
    .orderBy(desc(t.textVersions.version));
}

/** Adds a version; false when this number is taken, since someone else kept one meanwhile. */
export async function addVersion(db: Db, textId: string, row: TextVersion): Promise<boolean> {
  return db.transaction(async (inside) => {
    await inside.insert(t.texts).values({ id: textId }).onConflictDoNothing();
    const added = await inside
      .insert(t.textVersions)
      .values({ textId, ...row })
      .onConflictDoNothing()
      .returning({ version: t.textVersions.version });
    return added.length === 1;
  });
}

/**
 * Takes an own text out of sight with its versions (an instant), or brings it back (null). What was prepared for it
 * stays with it. @returns false when there was none to take, or none to bring back
 */
export async function setTextRemoved(db: Db, id: string, removedAt: string | null): Promise<boolean> {
  const now = removedAt === null ? isNotNull(t.texts.removedAt) : isNull(t.texts.removedAt);
  const changed = await db
    .update(t.texts)
    .set({ removedAt })
    .where(and(eq(t.texts.id, id), now))
    .returning({ id: t.texts.id });
  return changed.length === 1;
}

export async function findPreparation(db: Db, textId: string, forKey: string): Promise<PreparationBody | null> {
  const rows = await db
    .select()
    .from(t.preparations)
    .where(and(eq(t.preparations.textId, textId), eq(t.preparations.forKey, forKey)));
  return rows[0]?.preparation ?? null;
}

export async function putPreparation(
  db: Db,
  textId: string,
  forKey: string,
  preparation: PreparationBody | null,
): Promise<void> {
  if (preparation === null) {
    await db.delete(t.preparations).where(and(eq(t.preparations.textId, textId), eq(t.preparations.forKey, forKey)));
    return;
  }
  await db
    .insert(t.preparations)
    .values({ textId, forKey, preparation })
    .onConflictDoUpdate({
      target: [t.preparations.textId, t.preparations.forKey],
      set: { preparation: sql`excluded.preparation` },
    });
}
