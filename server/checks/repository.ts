import { and, eq, inArray, isNull, sql } from "drizzle-orm";
import { plainSetup } from "#core/checks";
import type { KindId } from "#core/ledger";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

export type CheckRow = Omit<typeof t.checks.$inferSelect, "setup"> & {
  readonly setup: NonNullable<(typeof t.checks.$inferSelect)["setup"]>;
};

/** A check from before there were kinds was a shuffled deck. */
function whole(row: typeof t.checks.$inferSelect): CheckRow {
  return { ...row, setup: plainSetup(row.kind as KindId, row.setup) };
}

/** These checks, in no order. */
export async function byIds(inside: Inside, ids: readonly string[]): Promise<CheckRow[]> {
  if (ids.length === 0) return [];
  const rows = await inside
    .select()
    .from(t.checks)
    .where(inArray(t.checks.id, [...ids]));
  return rows.map(whole);
}

/** The newest first. */
export async function ofChild(inside: Inside, childId: string): Promise<CheckRow[]> {
  const rows = await inside
    .select()
    .from(t.checks)
    .where(eq(t.checks.childId, childId))
    .orderBy(sql`${t.checks.startedAt} desc`, t.checks.part);
  return rows.map(whole);
}

/** Checks of these children that went by the minute, the newest first. */
export async function byMinute(inside: Inside, childIds: readonly string[]): Promise<CheckRow[]> {
  if (childIds.length === 0) return [];
  const rows = await inside
    .select()
    .from(t.checks)
    .where(and(inArray(t.checks.childId, [...childIds]), sql`${t.checks.setup} ->> 'form' = 'minute'`));
  return rows.map(whole);
}

/** A sitting, or undefined. */
export async function findSitting(inside: Inside, id: string) {
  return (await inside.select().from(t.sittings).where(eq(t.sittings.id, id)))[0];
}

/** In the order in which they come: child by child, part by part. */
export async function ofSitting(inside: Inside, sittingId: string): Promise<CheckRow[]> {
  const rows = await inside
    .select()
    .from(t.checks)
    .where(eq(t.checks.sittingId, sittingId))
    .orderBy(t.checks.place, t.checks.part);
  return rows.map(whole);
}

/** Keeps a sitting with its checks; one that is there already stays as it was. */
export async function insertSitting(
  inside: Inside,
  sitting: typeof t.sittings.$inferInsert,
  checks: readonly Omit<typeof t.checks.$inferInsert, "sittingId">[],
): Promise<void> {
  const added = await inside.insert(t.sittings).values(sitting).onConflictDoNothing().returning();
  if (added.length === 0) return;
  await inside.insert(t.checks).values(checks.map((check) => ({ ...check, sittingId: sitting.id })));
}

/** Gives a sitting to a member, or to whoever comes to it. */
export async function giveSitting(inside: Inside, id: string, to: string | null): Promise<void> {
  await inside.update(t.sittings).set({ givenTo: to }).where(eq(t.sittings.id, id));
}

/** How many sittings have a check that is not ended, of a child who is here. */
export async function countOpen(inside: Inside): Promise<number> {
  const [row] = await inside
    .select({ open: sql<number>`count(distinct ${t.checks.sittingId})::int` })
    .from(t.checks)
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(and(isNull(t.checks.endedAt), eq(t.children.archived, false)));
  return row?.open ?? 0;
}

/** Sittings with an open check of a child who is here, the newest first, with all their checks. */
export async function openSittings(inside: Inside, most: number) {
  const open = await inside
    .selectDistinct({
      ...{ id: t.sittings.id, name: t.sittings.name, startedAt: t.sittings.startedAt },
      ...{ givenTo: t.sittings.givenTo, givenName: t.members.name },
    })
    .from(t.sittings)
    .leftJoin(t.members, and(eq(t.members.id, t.sittings.givenTo), isNull(t.members.removedAt)))
    .innerJoin(t.checks, eq(t.checks.sittingId, t.sittings.id))
    .innerJoin(t.children, eq(t.children.id, t.checks.childId))
    .where(and(isNull(t.checks.endedAt), eq(t.children.archived, false)))
    .orderBy(sql`${t.sittings.startedAt} desc`)
    .limit(most);
  const rows =
    open.length === 0
      ? []
      : await inside
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
export async function recentlyEnded(inside: Inside, most: number) {
  const last = sql<string>`max(${t.checks.endedAt})`;
  return inside
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
