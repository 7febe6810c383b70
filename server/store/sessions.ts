import { randomUUID } from "node:crypto";
import { and, between, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import type { AnswerBody, PlanBody, ReportBody } from "#contract";
import { inSession } from "#core/ledger";
import { append } from "../ledger/append.ts";
import { standingOfReports } from "../ledger/log.ts";
import { listGroups } from "./groups.ts";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

export type SessionRow = typeof t.sessions.$inferSelect;

export async function listSessionRows(db: Db, groupId?: string): Promise<SessionRow[]> {
  return db
    .select()
    .from(t.sessions)
    .where(and(isNull(t.sessions.removedAt), groupId ? eq(t.sessions.groupId, groupId) : undefined))
    .orderBy(desc(t.sessions.heldOn), desc(t.sessions.createdAt));
}

/** How many sessions of open groups lie between these days, both counted, and no one has said what happened. */
export async function countDueSessions(db: Db, from: string, to: string): Promise<number> {
  const [row] = await db
    .select({ due: sql<number>`count(*)::int` })
    .from(t.sessions)
    .innerJoin(t.groups, eq(t.groups.id, t.sessions.groupId))
    .leftJoin(t.reports, eq(t.reports.sessionId, t.sessions.id))
    .where(
      and(
        isNull(t.sessions.removedAt),
        isNull(t.reports.id),
        eq(t.groups.closed, false),
        between(t.sessions.heldOn, from, to),
      ),
    );
  return row?.due ?? 0;
}

export async function findSessionRow(db: Db, id: string): Promise<SessionRow | undefined> {
  return (
    await db
      .select()
      .from(t.sessions)
      .where(and(eq(t.sessions.id, id), isNull(t.sessions.removedAt)))
  )[0];
}

/** A session that was removed and can still be brought back, or undefined. */
export async function findRemovedSession(db: Db, id: string): Promise<SessionRow | undefined> {
  return (
    await db
      .select()
      .from(t.sessions)
      .where(and(eq(t.sessions.id, id), isNotNull(t.sessions.removedAt)))
  )[0];
}

export async function insertSession(
  db: Db,
  row: typeof t.sessions.$inferInsert,
  childIds: readonly string[],
): Promise<void> {
  await db.transaction(async (inside) => {
    const added = await inside.insert(t.sessions).values(row).onConflictDoNothing().returning();
    if (added.length === 0 || childIds.length === 0) return;
    await inside
      .insert(t.sessionMembers)
      .values(childIds.map((childId, place) => ({ sessionId: row.id, childId, place })));
  });
}

/** Writes over the version with this number. @returns false when someone else wrote meanwhile */
export async function updateSession(
  db: Db,
  id: string,
  version: number,
  change: { heldOn?: string | undefined; plan?: PlanBody | undefined; known?: string[]; wholes?: string[] },
): Promise<boolean> {
  const changed = await db
    .update(t.sessions)
    .set({ ...change, version: version + 1 })
    .where(and(eq(t.sessions.id, id), eq(t.sessions.version, version)))
    .returning({ id: t.sessions.id });
  return changed.length === 1;
}

/** Takes a session out of sight (an instant), or brings it back (null). */
export async function setSessionRemoved(db: Db, id: string, removedAt: string | null): Promise<void> {
  await db.update(t.sessions).set({ removedAt }).where(eq(t.sessions.id, id));
}

export async function membersOfSession(db: Db, sessionId: string) {
  return db
    .select({ id: t.children.id, name: t.children.name, note: t.children.note })
    .from(t.sessionMembers)
    .innerJoin(t.children, eq(t.children.id, t.sessionMembers.childId))
    .where(eq(t.sessionMembers.sessionId, sessionId))
    .orderBy(t.sessionMembers.place);
}

export async function shareOf(db: Db, sessionId: string) {
  return (await db.select().from(t.shares).where(eq(t.shares.sessionId, sessionId)))[0];
}

export async function shareByHash(db: Db, tokenHash: string) {
  return (await db.select().from(t.shares).where(eq(t.shares.tokenHash, tokenHash)))[0];
}

export async function sharedSessionIds(db: Db): Promise<Set<string>> {
  return new Set((await db.select({ id: t.shares.sessionId }).from(t.shares)).map((row) => row.id));
}

/** Sets the one link of a session; a link made before stops working. */
export async function setShare(db: Db, sessionId: string, tokenHash: string, endsOn: string): Promise<void> {
  await db
    .insert(t.shares)
    .values({ sessionId, tokenHash, endsOn })
    .onConflictDoUpdate({
      target: t.shares.sessionId,
      set: { tokenHash, endsOn, createdAt: new Date().toISOString() },
    });
}

export async function deleteShare(db: Db, sessionId: string): Promise<void> {
  await db.delete(t.shares).where(eq(t.shares.sessionId, sessionId));
}

/** The reports of these sessions, oldest first. */
export async function reportsOf(
  db: Db,
  sessionIds: readonly string[],
): Promise<(ReportBody & { sessionId: string })[]> {
  if (sessionIds.length === 0) return [];
  const rows = await db
    .select()
    .from(t.reports)
    .where(inArray(t.reports.sessionId, [...sessionIds]))
    .orderBy(t.reports.at);
  const ids = rows.map((row) => row.id);
  const came = ids.length ? await db.select().from(t.reportCame).where(inArray(t.reportCame.reportId, ids)) : [];
  const marks = await standingOfReports(db, ids);
  return rows.map((row) => ({
    id: row.id,
    sessionId: row.sessionId,
    by: row.by,
    at: row.at,
    note: row.note,
    reached: row.reached as ReportBody["reached"],
    came: came.filter((one) => one.reportId === row.id).map((one) => one.childId),
    marks: (marks.get(row.id) ?? []).map(({ id, childId, item, outcome }) => ({
      id,
      childId,
      gpc: item,
      outcome: outcome as ReportBody["marks"][number]["outcome"],
    })),
  }));
}

/**
 * Keeps a report, and its marks in the ledger. The same report sent again changes nothing.
 * @returns what the ledger refused, each in words; then nothing of the report was kept
 */
export async function insertReport(
  db: Db,
  sessionId: string,
  report: ReportBody,
  { day, byLink }: { readonly day: string; readonly byLink: boolean },
): Promise<readonly string[]> {
  const keep = async (inside: Db) => {
    const { id, by, at, reached, note } = report;
    const added = await inside
      .insert(t.reports)
      .values({ id, sessionId, by, at, reached, note, byLink })
      .onConflictDoNothing()
      .returning();
    if (added.length === 0) return;
    if (report.came.length > 0) {
      await inside
        .insert(t.reportCame)
        .values([...new Set(report.came)].map((childId) => ({ reportId: id, childId })));
    }
    const marks = report.marks.map((mark): AnswerBody => {
      const given = {
        id: mark.id,
        childId: mark.childId,
        ...inSession("card", sessionId, id),
        tags: [],
        item: mark.gpc,
        ms: null,
        pass: 1,
        markedAt: new Date(at).toISOString(),
        day,
        markedBy: by,
      };
      return mark.outcome === "wrong"
        ? { ...given, outcome: mark.outcome, heard: null, units: null }
        : { ...given, outcome: mark.outcome };
    });
    const { fates } = await append(inside, marks, { dayOf: () => day, isFuture: () => false });
    const refused = fates.flatMap((fate) => (fate.fate === "refused" ? [fate.says] : []));
    if (refused.length > 0) throw new NotKept(refused);
  };
  try {
    await db.transaction(keep);
    return [];
  } catch (error) {
    if (error instanceof NotKept) return error.says;
    throw error;
  }
}

/** Takes a transaction back, with the reasons. */
class NotKept extends Error {
  constructor(readonly says: readonly string[]) {
    super("Not kept");
  }
}

/** How many reports came by the session's link. */
export async function countByLink(db: Db, sessionId: string): Promise<number> {
  return db.$count(t.reports, and(eq(t.reports.sessionId, sessionId), eq(t.reports.byLink, true)));
}

/** Takes a report away, and back what it brought into the log of answers. */
export async function deleteReport(
  db: Db,
  report: ReportBody,
  { markedAt, day }: { readonly markedAt: string; readonly day: string },
): Promise<void> {
  await db.transaction(async (inside) => {
    const standing = (await standingOfReports(inside, [report.id])).get(report.id) ?? [];
    const back = standing.map(
      ({ id, childId }): AnswerBody => ({
        id: randomUUID(),
        childId,
        markedAt,
        day,
        markedBy: report.by,
        outcome: "void",
        voids: id,
      }),
    );
    await append(inside, back, { dayOf: () => day, isFuture: () => false });
    await inside.delete(t.reports).where(eq(t.reports.id, report.id));
  });
}

/** Every report on a session in which the child had a place: the day, the group's name, whether the child came. */
export async function sessionsOfChild(db: Db, childId: string) {
  const places = await db
    .select({ id: t.sessions.id, heldOn: t.sessions.heldOn, groupId: t.sessions.groupId })
    .from(t.sessionMembers)
    .innerJoin(t.sessions, eq(t.sessions.id, t.sessionMembers.sessionId))
    .where(and(eq(t.sessionMembers.childId, childId), isNull(t.sessions.removedAt)));
  const names = new Map((await listGroups(db)).map((group) => [group.id, group.name]));
  const reports = await reportsOf(
    db,
    places.map((place) => place.id),
  );
  return reports.flatMap((report) => {
    const place = places.find((one) => one.id === report.sessionId);
    if (!place) return [];
    return {
      heldOn: place.heldOn,
      group: names.get(place.groupId) ?? "",
      came: report.came.includes(childId),
      by: report.by,
    };
  });
}
