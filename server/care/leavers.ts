import { and, desc, eq, inArray, isNotNull, sql } from "drizzle-orm";
import type { AnswerOf, listLeavers } from "#contract";
import { dueOn, outOfBackupsOn } from "#core/roster";
import { eraseAll } from "../classes/erasing.ts";
import { dayOf, read } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/**
 * Children who left, with the day from which on the school's rule wants each erased, the one due first first; and until when
 * backups from before an erasing may still be there, by the school's own number of weeks.
 */
export async function list(inside: Inside, now: Date): Promise<AnswerOf<typeof listLeavers>> {
  const { keeping } = await read(inside);
  const today = await dayOf(inside, now);
  const rows = await inside
    .select({ id: t.children.id, name: t.children.name, className: t.classes.name, leftOn: t.children.leftOn })
    .from(t.children)
    .innerJoin(t.classes, eq(t.classes.id, t.children.classId))
    .where(and(eq(t.children.archived, true), isNotNull(t.children.leftOn)))
    .orderBy(t.children.leftOn, t.classes.name, t.children.name);
  const leavers = rows.map(({ leftOn, ...one }) => {
    const left = leftOn ?? today;
    const due = dueOn(left, keeping.leaversMonths);
    return { ...one, leftOn: left, dueOn: due, due: due <= today };
  });
  const [last] = await inside
    .select({ at: t.erased.erasedAt })
    .from(t.erased)
    .orderBy(desc(t.erased.erasedAt))
    .limit(1);
  const until = last ? outOfBackupsOn(await dayOf(inside, last.at), keeping.backupWeeks) : null;
  return { leavers, inBackupsUntil: until !== null && until > today ? until : null };
}

/** Erases those of these children who left. @returns how many */
export async function erase(inside: Inside, ids: readonly string[]): Promise<number> {
  const rows = await inside
    .select({ id: t.children.id, name: t.children.name })
    .from(t.children)
    .where(and(inArray(t.children.id, [...ids]), eq(t.children.archived, true)));
  await eraseAll(inside, rows);
  return rows.length;
}

/** Ids of all children who were ever erased. */
export async function erasedIds(inside: Inside): Promise<string[]> {
  const rows = await inside
    .select({ id: t.erased.childId })
    .from(t.erased)
    .orderBy(t.erased.erasedAt, t.erased.childId);
  return rows.map((row) => row.id);
}

/** How many children were ever erased. */
export async function countErased(inside: Inside): Promise<number> {
  const [row] = await inside.select({ count: sql<number>`count(*)::int` }).from(t.erased);
  return row?.count ?? 0;
}
