import { and, desc, eq, gte, isNull, max, or, sql } from "drizzle-orm";
import type { PlanBody } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

// Sessions and reports as lists show them. A school has thousands of them after some years, each with a plan and with marks
// in the ledger: what a list does not show is not read.

/** A session without its plan. */
export interface DiaryRow {
  readonly id: string;
  readonly groupId: string;
  readonly heldOn: string;
  readonly givenTo: string | null;
  readonly target: string;
  readonly second: string | null;
  readonly focus: NonNullable<PlanBody["focus"]> | null;
  /** Something was told of it. */
  readonly held: boolean;
}

/** The sessions of which something was told. */
const toldIn = (inside: Inside) =>
  inside.selectDistinct({ sessionId: t.reports.sessionId }).from(t.reports).as("told");

/** Sessions of a group or of all, the latest day first. @param wanted.since held ones of before that day are left out */
export async function sessions(
  inside: Inside,
  wanted: { readonly groupId?: string | undefined; readonly since?: string } = {},
): Promise<DiaryRow[]> {
  const { groupId, since } = wanted;
  const { sessions: s } = t;
  const told = toldIn(inside);
  return inside
    .select({
      ...{ id: s.id, groupId: s.groupId, heldOn: s.heldOn, givenTo: s.givenTo },
      target: sql<string>`${s.plan}->>'target'`,
      second: sql<string | null>`${s.plan}->>'second'`,
      focus: sql<DiaryRow["focus"]>`${s.plan}->'focus'`,
      held: sql<boolean>`${told.sessionId} is not null`,
    })
    .from(s)
    .leftJoin(told, eq(told.sessionId, s.id))
    .where(
      and(
        isNull(s.removedAt),
        groupId ? eq(s.groupId, groupId) : undefined,
        since ? or(isNull(told.sessionId), gte(s.heldOn, since)) : undefined,
      ),
    )
    .orderBy(desc(s.heldOn), desc(s.createdAt));
}

/** The last day on which each group had a session that was held; a group that had none is left out. */
export async function lastHeld(inside: Inside): Promise<ReadonlyMap<string, string>> {
  const { sessions: s } = t;
  const told = toldIn(inside);
  const rows = await inside
    .select({ groupId: s.groupId, on: max(s.heldOn) })
    .from(s)
    .innerJoin(told, eq(told.sessionId, s.id))
    .where(isNull(s.removedAt))
    .groupBy(s.groupId);
  return new Map(rows.flatMap(({ groupId, on }) => (on === null ? [] : [[groupId, on] as const])));
}

/** What was told of a session, without its marks. */
export interface ReportHead {
  readonly sessionId: string;
  readonly groupId: string;
  readonly by: string;
  readonly at: string;
  readonly note: string;
  /** How many children came. */
  readonly came: number;
}

/** What was told of the sessions of a group or of all, the earliest first. @param wanted.since an instant; what was told before it is left out */
export async function heads(
  inside: Inside,
  wanted: { readonly groupId?: string | undefined; readonly since?: string } = {},
): Promise<ReportHead[]> {
  const { groupId, since } = wanted;
  const { sessions: s, reports: r, reportCame: c } = t;
  const head = { sessionId: r.sessionId, groupId: s.groupId, by: r.by, at: r.at, note: r.note };
  return inside
    .select({ ...head, came: sql<number>`count(${c.childId})::int` })
    .from(r)
    .innerJoin(s, eq(s.id, r.sessionId))
    .leftJoin(c, eq(c.reportId, r.id))
    .where(
      and(isNull(s.removedAt), groupId ? eq(s.groupId, groupId) : undefined, since ? gte(r.at, since) : undefined),
    )
    .groupBy(r.id, ...Object.values(head))
    .orderBy(r.at, r.id);
}
