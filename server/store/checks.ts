import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import type { PresetView } from "#contract";
import { plainSetup } from "#core/checks";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

export type CheckRow = Omit<typeof t.checks.$inferSelect, "setup"> & {
  readonly setup: NonNullable<(typeof t.checks.$inferSelect)["setup"]>;
};

/** A check from before there were kinds was a shuffled deck. */
function whole(row: typeof t.checks.$inferSelect): CheckRow {
  return { ...row, setup: { ...(row.setup ?? { ...plainSetup, pool: [], sheet: {} }) } };
}

export async function checksByIds(db: Db, ids: readonly string[]): Promise<CheckRow[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(t.checks)
    .where(inArray(t.checks.id, [...ids]));
  return rows.map(whole);
}

/** The newest first. */
export async function checksOfChild(db: Db, childId: string): Promise<CheckRow[]> {
  const rows = await db
    .select()
    .from(t.checks)
    .where(eq(t.checks.childId, childId))
    .orderBy(sql`${t.checks.startedAt} desc`, t.checks.part);
  return rows.map(whole);
}

/** Checks of these children that went by the minute, the newest first. */
export async function minuteChecks(db: Db, childIds: readonly string[]): Promise<CheckRow[]> {
  if (childIds.length === 0) return [];
  const rows = await db
    .select()
    .from(t.checks)
    .where(and(inArray(t.checks.childId, [...childIds]), sql`${t.checks.setup} ->> 'form' = 'minute'`));
  return rows.map(whole);
}

export async function setCheckEnd(db: Db, id: string, endedAt: string | null): Promise<void> {
  await db.update(t.checks).set({ endedAt }).where(eq(t.checks.id, id));
}

export async function findSitting(db: Db, id: string) {
  return (await db.select().from(t.sittings).where(eq(t.sittings.id, id)))[0];
}

/** In the order in which they come: child by child, part by part. */
export async function checksOfSitting(db: Db, sittingId: string): Promise<CheckRow[]> {
  const rows = await db
    .select()
    .from(t.checks)
    .where(eq(t.checks.sittingId, sittingId))
    .orderBy(t.checks.place, t.checks.part);
  return rows.map(whole);
}

/** Keeps a sitting with its checks; one that is there already stays as it was. */
export async function insertSitting(
  db: Db,
  sitting: typeof t.sittings.$inferInsert,
  checks: readonly Omit<typeof t.checks.$inferInsert, "sittingId">[],
): Promise<void> {
  await db.transaction(async (inside) => {
    const added = await inside.insert(t.sittings).values(sitting).onConflictDoNothing().returning();
    if (added.length === 0) return;
    await inside.insert(t.checks).values(checks.map((check) => ({ ...check, sittingId: sitting.id })));
  });
}

/** How many sittings have a check that is not ended, of a child who is here. */
export async function countOpenSittings(db: Db): Promise<number> {
  const [row] = await db
    .select({ open: sql<number>`count(distinct ${t.checks.sittingId})::int` })
    .from(t.checks)
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(and(isNull(t.checks.endedAt), eq(t.children.archived, false)));
  return row?.open ?? 0;
}

/** Sittings with an open check of a child who is here, the newest first, with all their checks. */
export async function openSittings(db: Db, most: number) {
  const open = await db
    .selectDistinct({ id: t.sittings.id, name: t.sittings.name, startedAt: t.sittings.startedAt })
    .from(t.sittings)
    .innerJoin(t.checks, eq(t.checks.sittingId, t.sittings.id))
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(and(isNull(t.checks.endedAt), eq(t.children.archived, false)))
    .orderBy(sql`${t.sittings.startedAt} desc`)
    .limit(most);
  const rows =
    open.length === 0
      ? []
      : await db
          .select({ check: t.checks, childName: t.children.name })
          .from(t.checks)
          .innerJoin(t.children, eq(t.children.id, t.checks.childId))
          .where(
            inArray(
              t.checks.sittingId,
              open.map((sitting) => sitting.id),
            ),
          )
          .orderBy(t.checks.place, t.checks.part);
  return open.map((sitting) => ({
    ...sitting,
    checks: rows
      .filter((row) => row.check.sittingId === sitting.id)
      .map(({ check, childName }) => ({ ...whole(check), childName })),
  }));
}

/** Checks that ended last, one a child and sitting. */
export async function recentlyEndedChecks(db: Db, most: number) {
  const last = sql<string>`max(${t.checks.endedAt})`;
  return db
    .select({
      sittingId: t.checks.sittingId,
      childId: t.checks.childId,
      childName: t.children.name,
      endedAt: sql<string>`to_char(${last} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
    })
    .from(t.checks)
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(sql`${t.checks.endedAt} is not null`)
    .groupBy(t.checks.sittingId, t.checks.childId, t.children.name)
    .orderBy(sql`${last} desc`)
    .limit(most);
}

export async function listOwnPresets(db: Db): Promise<PresetView[]> {
  const rows = await db.select().from(t.presets).orderBy(t.presets.name, t.presets.id);
  return rows.map((row) => ({ ...row, shipped: false }));
}

export async function putPreset(db: Db, row: typeof t.presets.$inferInsert): Promise<void> {
  await db.insert(t.presets).values(row).onConflictDoUpdate({ target: t.presets.id, set: row });
}

export async function deletePreset(db: Db, id: string): Promise<boolean> {
  return (await db.delete(t.presets).where(eq(t.presets.id, id)).returning({ id: t.presets.id })).length === 1;
}
