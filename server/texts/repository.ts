import { and, desc, eq, inArray, isNotNull, isNull, lt, sql } from "drizzle-orm";
import type { PreparationBody, TextContentBody, TextVersion } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

interface OwnText {
  readonly id: string;
  readonly version: number;
  readonly content: TextContentBody;
}

/** The newest version of each own text, by title. */
export async function listOwn(inside: Inside): Promise<OwnText[]> {
  const rows = await inside
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
export async function versionsOf(inside: Inside, textId: string): Promise<TextVersion[]> {
  const { version, content, savedAt, savedBy } = t.textVersions;
  return inside
    .select({ version, content, savedAt, savedBy })
    .from(t.textVersions)
    .innerJoin(t.texts, and(eq(t.texts.id, t.textVersions.textId), isNull(t.texts.removedAt)))
    .where(eq(t.textVersions.textId, textId))
    .orderBy(desc(t.textVersions.version));
}

/** Adds a version; false when this number is taken, since someone else kept one meanwhile. */
export async function addVersion(inside: Inside, textId: string, row: TextVersion): Promise<boolean> {
  await inside.insert(t.texts).values({ id: textId }).onConflictDoNothing();
  const added = await inside
    .insert(t.textVersions)
    .values({ textId, ...row })
    .onConflictDoNothing()
    .returning({ version: t.textVersions.version });
  return added.length === 1;
}

/**
 * Takes an own text out of sight with its versions (an instant), or brings it back (null). What was prepared for it
 * stays with it. @returns false when there was none to take, or none to bring back
 */
export async function setRemoved(inside: Inside, id: string, removedAt: string | null): Promise<boolean> {
  const now = removedAt === null ? isNotNull(t.texts.removedAt) : isNull(t.texts.removedAt);
  const changed = await inside
    .update(t.texts)
    .set({ removedAt })
    .where(and(eq(t.texts.id, id), now))
    .returning({ id: t.texts.id });
  return changed.length === 1;
}

/** What adults made of the preparation of a text for some readers, with its version: 0 when no one did. */
export async function findPreparation(
  inside: Inside,
  textId: string,
  forKey: string,
): Promise<{ preparation: PreparationBody | null; version: number }> {
  const [row] = await inside
    .select()
    .from(t.preparations)
    .where(and(eq(t.preparations.textId, textId), eq(t.preparations.forKey, forKey)))
    .for("update");
  return { preparation: row?.preparation ?? null, version: row?.version ?? 0 };
}

/** Keeps a preparation, over what stood there; null takes the changes back. */
export async function putPreparation(
  inside: Inside,
  row: {
    readonly textId: string;
    readonly forKey: string;
    readonly version: number;
    readonly preparation: PreparationBody | null;
  },
): Promise<void> {
  await inside
    .insert(t.preparations)
    .values(row)
    .onConflictDoUpdate({
      target: [t.preparations.schoolId, t.preparations.textId, t.preparations.forKey],
      set: { preparation: sql`excluded.preparation`, version: sql`excluded.version` },
    });
}

/** Lets go for good of own texts that were removed before this instant, with what was prepared for them. */
export async function forgetRemoved(inside: Inside, before: string): Promise<void> {
  const gone = await inside.delete(t.texts).where(lt(t.texts.removedAt, before)).returning({ id: t.texts.id });
  const ids = gone.map((text) => text.id);
  if (ids.length > 0) await inside.delete(t.preparations).where(inArray(t.preparations.textId, ids));
}
