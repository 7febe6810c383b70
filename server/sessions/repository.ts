import { randomUUID } from "node:crypto";
import { and, between, desc, eq, gt, gte, inArray, isNotNull, isNull, lt, lte, sql } from "drizzle-orm";
import type { AnswerBody, PlanBody, ReportBody, SessionView, TaughtMark, TaughtReading } from "#contract";
import { inSession } from "#core/ledger";
import * as groups from "../groups/repository.ts";
import { append } from "../ledger/append.ts";
import { standingOfReports } from "../ledger/log.ts";
import { pointsHere } from "../orders/points.ts";
import * as readings from "../readings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

export type SessionRow = typeof t.sessions.$inferSelect;

/** Sessions of a group or of all with their plans, the latest day first; from and to a day where these are given. */
export async function list(
  inside: Inside,
  wanted: { readonly groupId?: string; readonly from?: string; readonly to?: string } = {},
): Promise<SessionRow[]> {
  const { groupId, from, to } = wanted;
  return inside
    .select()
    .from(t.sessions)
    .where(
      and(
        isNull(t.sessions.removedAt),
        groupId ? eq(t.sessions.groupId, groupId) : undefined,
        from ? gte(t.sessions.heldOn, from) : undefined,
        to ? lte(t.sessions.heldOn, to) : undefined,
      ),
    )
    .orderBy(desc(t.sessions.heldOn), desc(t.sessions.createdAt));
}

/** A session with its group, its members and what was said of it; undefined when it is not here. */
export async function view(inside: Inside, id: string): Promise<SessionView | undefined> {
  const row = await find(inside, id);
  if (!row) return undefined;
  const group = await groups.find(inside, row.groupId);
  const reports = await reportsOf(inside, [id]);
  const share = await shareOf(inside, id);
  return {
    id,
    groupId: row.groupId,
    groupName: group?.name ?? "",
    heldOn: row.heldOn,
    state: reports.length > 0 ? "held" : "planned",
    version: row.version,
    members: await membersOf(inside, id),
    targets: group?.targets ?? [],
    plan: row.plan,
    givenTo: await memberHere(inside, row.givenTo),
    point: (await pointsHere(inside))(row.plan.target),
    known: row.known,
    wholes: row.wholes,
    share: share ? { endsOn: share.endsOn, createdAt: share.createdAt, openedAt: share.openedAt } : null,
    reports,
    closed: group?.closed ?? false,
    since: reports.length > 0 ? null : await reportedSince(inside, row),
  };
}

/** Of someone who has left it is whoever's again. */
async function memberHere(inside: Inside, id: string | null): Promise<SessionView["givenTo"]> {
  if (id === null) return null;
  const { members } = t;
  const [found] = await inside
    .select({ id: members.id, name: members.name })
    .from(members)
    .where(and(eq(members.id, id), isNull(members.removedAt)));
  return found ?? null;
}

/** The newest report of another session of the group that came after this one was filled. */
async function reportedSince(inside: Inside, row: SessionRow): Promise<SessionView["since"]> {
  const [found] = await inside
    .select({ sessionId: t.sessions.id, heldOn: t.sessions.heldOn, by: t.reports.by })
    .from(t.reports)
    .innerJoin(t.sessions, eq(t.sessions.id, t.reports.sessionId))
    .where(
      and(
        eq(t.sessions.groupId, row.groupId),
        isNull(t.sessions.removedAt),
        gt(t.reports.at, row.filledAt ?? row.createdAt),
      ),
    )
    .orderBy(desc(t.reports.at))
    .limit(1);
  return found ?? null;
}

/** How many sessions of open groups lie between these days, both counted, and no one has said what happened. */
export async function countDue(inside: Inside, from: string, to: string): Promise<number> {
  const [row] = await inside
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

/** A session that was not removed, or undefined. */
export async function find(inside: Inside, id: string): Promise<SessionRow | undefined> {
  return (
    await inside
      .select()
      .from(t.sessions)
      .where(and(eq(t.sessions.id, id), isNull(t.sessions.removedAt)))
  )[0];
}

/** A session that was removed and can still be brought back, or undefined. */
export async function findRemoved(inside: Inside, id: string): Promise<SessionRow | undefined> {
  return (
    await inside
      .select()
      .from(t.sessions)
      .where(and(eq(t.sessions.id, id), isNotNull(t.sessions.removedAt)))
  )[0];
}

/** Keeps a session with who has a place in it; one that is there already stays as it was. */
export async function insert(
  inside: Inside,
  row: typeof t.sessions.$inferInsert,
  childIds: readonly string[],
): Promise<void> {
  const added = await inside.insert(t.sessions).values(row).onConflictDoNothing().returning();
  if (added.length === 0 || childIds.length === 0) return;
  await inside
    .insert(t.sessionMembers)
    .values(childIds.map((childId, place) => ({ sessionId: row.id, childId, place })));
}

/** What of a session can be changed. */
export interface SessionChange {
  readonly heldOn?: string | undefined;
  readonly plan?: PlanBody | undefined;
  readonly known?: string[];
  readonly wholes?: string[];
  /** An instant, where it is filled anew. */
  readonly filledAt?: string;
}

/** Writes over the version with this number. @returns false when someone else wrote meanwhile */
export async function update(inside: Inside, id: string, version: number, change: SessionChange): Promise<boolean> {
  const changed = await inside
    .update(t.sessions)
    .set({ ...change, version: version + 1 })
    .where(and(eq(t.sessions.id, id), eq(t.sessions.version, version)))
    .returning({ id: t.sessions.id });
  return changed.length === 1;
}

/** Gives a session to a member, or to whoever takes its group. */
export async function give(inside: Inside, id: string, to: string | null): Promise<void> {
  await inside.update(t.sessions).set({ givenTo: to }).where(eq(t.sessions.id, id));
}

/** Takes a session out of sight (an instant), or brings it back (null). */
export async function setRemoved(inside: Inside, id: string, removedAt: string | null): Promise<void> {
  await inside.update(t.sessions).set({ removedAt }).where(eq(t.sessions.id, id));
}

/** Who has a place in a session, in their order, and who of them was said to be absent on its day. */
export async function membersOf(inside: Inside, sessionId: string) {
  return inside
    .select({
      id: t.children.id,
      name: t.children.name,
      note: t.children.note,
      letterSize: t.children.letterSize,
      letterSpacing: t.children.letterSpacing,
      absent: sql<boolean>`coalesce(${t.children.absentOn} = ${t.sessions.heldOn}, false)`,
    })
    .from(t.sessionMembers)
    .innerJoin(t.sessions, eq(t.sessions.id, t.sessionMembers.sessionId))
    .innerJoin(t.children, eq(t.children.id, t.sessionMembers.childId))
    .where(eq(t.sessionMembers.sessionId, sessionId))
    .orderBy(t.sessionMembers.place);
}

/** How many children have a place in each of these sessions. */
export async function countPlaces(inside: Inside, sessionIds: readonly string[]): Promise<Map<string, number>> {
  if (sessionIds.length === 0) return new Map();
  const rows = await inside
    .select({ id: t.sessionMembers.sessionId, count: sql<number>`count(*)::int` })
    .from(t.sessionMembers)
    .where(inArray(t.sessionMembers.sessionId, [...sessionIds]))
    .groupBy(t.sessionMembers.sessionId);
  return new Map(rows.map(({ id, count }) => [id, count]));
}

/** The link of a session, or undefined. */
export async function shareOf(inside: Inside, sessionId: string) {
  return (await inside.select().from(t.shares).where(eq(t.shares.sessionId, sessionId)))[0];
}

/** Links that lead somewhere on a day, the one that ends first before others. */
export async function listShares(inside: Inside, today: string) {
  return inside
    .select({
      ...{ sessionId: t.shares.sessionId, endsOn: t.shares.endsOn, openedAt: t.shares.openedAt },
      ...{ heldOn: t.sessions.heldOn, groupId: t.sessions.groupId },
    })
    .from(t.shares)
    .innerJoin(t.sessions, eq(t.sessions.id, t.shares.sessionId))
    .where(and(gte(t.shares.endsOn, today), isNull(t.sessions.removedAt)))
    .orderBy(t.shares.endsOn, t.sessions.heldOn);
}

/** Keeps when a link was opened. */
export async function openedShare(inside: Inside, sessionId: string, openedAt: string): Promise<void> {
  await inside.update(t.shares).set({ openedAt }).where(eq(t.shares.sessionId, sessionId));
}

/** Ids of the sessions that have a link. */
export async function sharedIds(inside: Inside): Promise<Set<string>> {
  return new Set((await inside.select({ id: t.shares.sessionId }).from(t.shares)).map((row) => row.id));
}

/** Sets the one link of a session; a link made before stops working. */
export async function setShare(inside: Inside, sessionId: string, tokenHash: string, endsOn: string): Promise<void> {
  await deleteShare(inside, sessionId);
  await inside.insert(t.shares).values({ sessionId, tokenHash, endsOn });
  await inside.insert(t.doors).values({ kind: "share", key: tokenHash });
}

/** Ends the link of a session, when it has one. */
export async function deleteShare(inside: Inside, sessionId: string): Promise<void> {
  const gone = await inside.delete(t.shares).where(eq(t.shares.sessionId, sessionId)).returning();
  const keys = gone.map((share) => share.tokenHash);
  if (keys.length > 0) await inside.delete(t.doors).where(and(eq(t.doors.kind, "share"), inArray(t.doors.key, keys)));
}

/** The link with this hashed token, or undefined. */
export async function shareByHash(inside: Inside, tokenHash: string) {
  return (await inside.select().from(t.shares).where(eq(t.shares.tokenHash, tokenHash)))[0];
}

/** The reports of these sessions, oldest first. */
export async function reportsOf(
  inside: Inside,
  sessionIds: readonly string[],
): Promise<(ReportBody & { sessionId: string })[]> {
  if (sessionIds.length === 0) return [];
  const rows = await inside
    .select()
    .from(t.reports)
    .where(inArray(t.reports.sessionId, [...sessionIds]))
    .orderBy(t.reports.at);
  const ids = rows.map((row) => row.id);
  const came = ids.length ? await inside.select().from(t.reportCame).where(inArray(t.reportCame.reportId, ids)) : [];
  const marks = await standingOfReports(inside, ids);
  return rows.map((row) => ({
    id: row.id,
    sessionId: row.sessionId,
    by: row.by,
    at: row.at,
    note: row.note,
    reached: row.reached as ReportBody["reached"],
    came: came.filter((one) => one.reportId === row.id).map((one) => one.childId),
    marks: (marks.get(row.id) ?? []).filter(isOnCard).map(({ id, childId, item, outcome }) => ({
      id,
      childId,
      gpc: item,
      outcome: outcome as ReportBody["marks"][number]["outcome"],
    })),
  }));
}

/** Said of a spelling, not of a word. */
const isOnCard = ({ kind }: { readonly kind: string }) => kind === "card";

/**
 * Keeps a report, and its marks in the ledger. The same report sent again changes nothing.
 * @returns what the ledger refused, each in words; the asker then takes the whole transaction back
 */
export async function insertReport(
  inside: Inside,
  sessionId: string,
  report: ReportBody & {
    readonly taught?: readonly TaughtMark[] | undefined;
    readonly readings?: readonly TaughtReading[] | undefined;
  },
  { day, byLink }: { readonly day: string; readonly byLink: boolean },
): Promise<readonly string[]> {
  const { id, by, at, reached, note } = report;
  const added = await inside
    .insert(t.reports)
    .values({ id, sessionId, by, at, reached, note, byLink, readingIds: report.readings?.map((one) => one.id) ?? [] })
    .onConflictDoNothing()
    .returning();
  if (added.length === 0) return [];
  if (report.came.length > 0) {
    await inside.insert(t.reportCame).values([...new Set(report.came)].map((childId) => ({ reportId: id, childId })));
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
  const taught = (report.taught ?? []).map(({ kind, outcome, heard, help, at: markedAt, ...mark }): AnswerBody => {
    const said = outcome === "wrong" ? ({ outcome, heard, units: null } as const) : ({ outcome } as const);
    const base = {
      ...mark,
      tags: [],
      ms: null,
      pass: 1,
      markedAt: new Date(markedAt).toISOString(),
      day,
      markedBy: by,
    };
    return { ...base, ...inSession(kind, sessionId, id), help, ...said } as AnswerBody;
  });
  for (const { at: readAt, ...reading } of report.readings ?? [])
    await readings.put(inside, { ...readings.plainReading, ...reading, readAt, day, markedBy: by });
  const { fates } = await append(inside, [...marks, ...taught], { dayOf: () => day, isFuture: () => false });
  return fates.flatMap((fate) => (fate.fate === "refused" ? [fate.says] : []));
}

/** How many reports came by the session's link. */
export async function countByLink(inside: Inside, sessionId: string): Promise<number> {
  return inside.$count(t.reports, and(eq(t.reports.sessionId, sessionId), eq(t.reports.byLink, true)));
}

/** Takes a report away, and back what it brought: answers, and readings of texts. */
export async function deleteReport(
  inside: Inside,
  report: ReportBody,
  { markedAt, day }: { readonly markedAt: string; readonly day: string },
): Promise<void> {
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
  const [row] = await inside
    .delete(t.reports)
    .where(eq(t.reports.id, report.id))
    .returning({ readingIds: t.reports.readingIds });
  for (const id of row?.readingIds ?? []) await readings.remove(inside, id, { markedAt, day, markedBy: report.by });
}

/** Every report on a session in which the child had a place: the day, the group's name, whether the child came. */
export async function ofChild(inside: Inside, childId: string) {
  const places = await inside
    .select({ id: t.sessions.id, heldOn: t.sessions.heldOn, groupId: t.sessions.groupId })
    .from(t.sessionMembers)
    .innerJoin(t.sessions, eq(t.sessions.id, t.sessionMembers.sessionId))
    .where(and(eq(t.sessionMembers.childId, childId), isNull(t.sessions.removedAt)));
  const names = new Map((await groups.list(inside)).map((group) => [group.id, group.name]));
  const reports = await reportsOf(
    inside,
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

/** Lets go for good of sessions that were removed before this instant. */
export async function forgetRemoved(inside: Inside, before: string): Promise<void> {
  // Looked at first: what was worked out by what was taught holds until a session goes.
  const gone = await inside.select({ id: t.sessions.id }).from(t.sessions).where(lt(t.sessions.removedAt, before));
  if (gone.length === 0) return;
  await inside.delete(t.sessions).where(
    inArray(
      t.sessions.id,
      gone.map(({ id }) => id),
    ),
  );
}
