import { and, eq, ilike, inArray, ne, or, sql } from "drizzle-orm";
import type { ChildView } from "#contract";
import { forgetChild } from "../ledger/standing.ts";
import { forgetKnown } from "../standings/kept.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { forgetChildren as forgetInYears } from "./years.ts";

/** The last day on which an answer of the child was marked. */
const lastChecked = sql<
  string | null
>`(select max(a.day)::text from ${t.answers} a where a.child_id = ${t.children}.id and a.outcome not in ('void', 'note', 'stop') and a.source <> 'reading')`;

const view = {
  id: t.children.id,
  classId: t.children.classId,
  name: t.children.name,
  note: t.children.note,
  archived: t.children.archived,
  letterSize: t.children.letterSize,
  letterSpacing: t.children.letterSpacing,
  absentOn: t.children.absentOn,
  version: t.children.version,
  lastChecked,
};

/** By name; of one class, or of all. */
export async function list(inside: Inside, classId?: string): Promise<ChildView[]> {
  return inside
    .select(view)
    .from(t.children)
    .where(classId ? eq(t.children.classId, classId) : undefined)
    .orderBy(t.children.name, t.children.id);
}

/** One child, or undefined. */
export async function find(inside: Inside, id: string): Promise<ChildView | undefined> {
  return (await inside.select(view).from(t.children).where(eq(t.children.id, id)))[0];
}

/** Those of these children who are here, in no order. */
export async function findMany(inside: Inside, ids: readonly string[]): Promise<ChildView[]> {
  return ids.length === 0
    ? []
    : inside
        .select(view)
        .from(t.children)
        .where(inArray(t.children.id, [...ids]));
}

/** Of these children, and of all of these classes: who they are, and no more. */
export async function whoIsIn(
  inside: Inside,
  { ids, classIds }: { readonly ids: readonly string[]; readonly classIds: readonly string[] },
): Promise<Pick<ChildView, "id" | "classId" | "name" | "note" | "archived">[]> {
  const { id, classId, name, note, archived } = view;
  return inside
    .select({ id, classId, name, note, archived })
    .from(t.children)
    .where(or(inArray(t.children.id, [...ids]), inArray(t.children.classId, [...classIds])));
}

/** Is a child of this name already in the class, and not archived? Case makes no difference. */
export async function nameTaken(inside: Inside, classId: string, name: string, exceptId?: string): Promise<boolean> {
  const escaped = name.replace(/[\\%_]/g, "\\$&");
  const rows = await inside
    .select({ id: t.children.id })
    .from(t.children)
    .where(and(eq(t.children.classId, classId), ilike(t.children.name, escaped), eq(t.children.archived, false)));
  return rows.some((row) => row.id !== exceptId);
}

/** Adds children; one whose id is there already is left as it is. @returns the ids that are new */
export async function insert(inside: Inside, rows: readonly (typeof t.children.$inferInsert)[]): Promise<string[]> {
  if (rows.length === 0) return [];
  const added = await inside
    .insert(t.children)
    .values([...rows])
    .onConflictDoNothing()
    .returning({ id: t.children.id });
  return added.map((row) => row.id);
}

/**
 * Changes what is given of a child, over the version with this number.
 * @returns false when someone else changed it meanwhile; then nothing was written
 */
export async function update(
  inside: Inside,
  id: string,
  version: number,
  change: { classId?: string; name?: string; note?: string; archived?: boolean; leftOn?: string | null },
): Promise<boolean> {
  const changed = await inside
    .update(t.children)
    .set({ ...change, version: version + 1 })
    .where(and(eq(t.children.id, id), eq(t.children.version, version)))
    .returning({ id: t.children.id });
  return changed.length === 1;
}

/** How a child's first name may stand in a note: as a whole word, as written. */
function naming(name: string): RegExp | undefined {
  const first = name.split(/\s+/)[0] ?? "";
  if (first.length < 2) return undefined;
  return new RegExp(`(?<![\\p{L}\\p{N}])${first.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}(?![\\p{L}\\p{N}])`, "gu");
}

/** What reports of the child's sessions, and notes in checks of others, say by its name. */
async function notesNaming(inside: Inside, child: { id: string; name: string }) {
  const pattern = naming(child.name);
  if (!pattern) return { reports: [], marks: [] };
  const notes = await inside
    .select({ id: t.answers.id, text: t.answers.text })
    .from(t.answers)
    .where(and(eq(t.answers.outcome, "note"), ne(t.answers.childId, child.id)));
  const rows = await inside
    .select({ id: t.reports.id, note: t.reports.note })
    .from(t.reports)
    .innerJoin(t.sessionMembers, eq(t.sessionMembers.sessionId, t.reports.sessionId))
    .where(eq(t.sessionMembers.childId, child.id));
  const clean = (text: string) => text.replace(pattern, "this child");
  return {
    reports: rows.filter((row) => row.note.search(pattern) >= 0).map(({ id, note }) => ({ id, note: clean(note) })),
    marks: notes.flatMap(({ id, text }) => (text && text.search(pattern) >= 0 ? [{ id, text: clean(text) }] : [])),
  };
}

/** What is kept about a child, counted. */
export async function countTraces(inside: Inside, child: { id: string; name: string }) {
  const count = async (table: typeof t.answers | typeof t.checks | typeof t.readings | typeof t.sessionMembers) =>
    (await inside.select({ count: sql<number>`count(*)::int` }).from(table).where(eq(table.childId, child.id)))[0]
      ?.count ?? 0;
  const groups = await inside
    .selectDistinct({ id: t.groupVersions.groupId })
    .from(t.groupMembers)
    .innerJoin(t.groupVersions, eq(t.groupVersions.id, t.groupMembers.versionId))
    .where(eq(t.groupMembers.childId, child.id));
  const notes = await notesNaming(inside, child);
  return {
    answers: await count(t.answers),
    checks: await count(t.checks),
    readings: await count(t.readings),
    groups: groups.length,
    sessions: await count(t.sessionMembers),
    notesNaming: notes.reports.length + notes.marks.length,
  };
}

/**
 * Erases the child and every row that names it: answers, checks, places in groups and sessions, marks in
 * reports. Notes about a session in which the child was keep their words, with "this child" for the name.
 */
export async function erase(inside: Inside, child: { id: string; name: string }): Promise<void> {
  const { reports, marks } = await notesNaming(inside, child);
  for (const { id, note } of reports) await inside.update(t.reports).set({ note }).where(eq(t.reports.id, id));
  for (const { id, text } of marks) await inside.update(t.answers).set({ text }).where(eq(t.answers.id, id));
  await forgetInPlans(inside, child.id);
  await inside.delete(t.children).where(eq(t.children.id, child.id));
  await inside.insert(t.erased).values({ childId: child.id }).onConflictDoNothing();
  await forgetInYears(inside, [child.id]);
  forgetChild(inside, child.id);
  forgetKnown(inside, child.id);
  await inside.delete(t.preparations).where(eq(t.preparations.forKey, `child:${child.id}`));
  await inside
    .delete(t.sittings)
    .where(sql`not exists (select 1 from ${t.checks} c where c.sitting_id = ${t.sittings.id})`);
}

/** Takes the cards of a child out of the plans of sessions in which it has a place. */
async function forgetInPlans(inside: Inside, childId: string): Promise<void> {
  const rows = await inside
    .select({ id: t.sessions.id, plan: t.sessions.plan })
    .from(t.sessionMembers)
    .innerJoin(t.sessions, eq(t.sessions.id, t.sessionMembers.sessionId))
    .where(eq(t.sessionMembers.childId, childId));
  for (const { id, plan } of rows) {
    if (!plan.parts.some(({ each }) => each?.some((one) => one.childId === childId))) continue;
    const parts = plan.parts.map(({ each, ...part }) =>
      each ? { ...part, each: each.filter((one) => one.childId !== childId) } : part,
    );
    await inside
      .update(t.sessions)
      .set({ plan: { ...plan, parts } })
      .where(eq(t.sessions.id, id));
  }
}
