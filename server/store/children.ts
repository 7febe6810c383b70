import { and, eq, ilike, inArray, ne, sql } from "drizzle-orm";
import type { ChildView } from "#contract";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

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
  lastChecked,
};

export async function listChildren(db: Db, classId?: string): Promise<ChildView[]> {
  return db
    .select(view)
    .from(t.children)
    .where(classId ? eq(t.children.classId, classId) : undefined)
    .orderBy(t.children.name, t.children.id);
}

export async function findChild(db: Db, id: string): Promise<ChildView | undefined> {
  return (await db.select(view).from(t.children).where(eq(t.children.id, id)))[0];
}

export async function findChildren(db: Db, ids: readonly string[]): Promise<ChildView[]> {
  return ids.length === 0
    ? []
    : db
        .select(view)
        .from(t.children)
        .where(inArray(t.children.id, [...ids]));
}

/** Is a child of this name already in the class, and not archived? Case makes no difference. */
export async function nameTaken(db: Db, classId: string, name: string, exceptId?: string): Promise<boolean> {
  const escaped = name.replace(/[\\%_]/g, "\\$&");
  const rows = await db
    .select({ id: t.children.id })
    .from(t.children)
    .where(and(eq(t.children.classId, classId), ilike(t.children.name, escaped), eq(t.children.archived, false)));
  return rows.some((row) => row.id !== exceptId);
}

/** Adds children; one whose id is there already is left as it is. @returns the ids that are new */
export async function insertChildren(db: Db, rows: readonly (typeof t.children.$inferInsert)[]): Promise<string[]> {
  if (rows.length === 0) return [];
  const added = await db
    .insert(t.children)
    .values([...rows])
    .onConflictDoNothing()
    .returning({ id: t.children.id });
  return added.map((row) => row.id);
}

export async function updateChild(
  db: Db,
  id: string,
  change: Partial<typeof t.children.$inferInsert>,
): Promise<void> {
  if (Object.keys(change).length > 0) await db.update(t.children).set(change).where(eq(t.children.id, id));
}

/** How a child's first name may stand in a note: as a whole word, as written. */
function naming(name: string): RegExp | undefined {
  const first = name.split(/\s+/)[0] ?? "";
  if (first.length < 2) return undefined;
  return new RegExp(`(?<![\\p{L}\\p{N}])${first.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")}(?![\\p{L}\\p{N}])`, "gu");
}

/** What reports of the child's sessions, and notes in checks of others, say by its name. */
async function notesNaming(db: Db, child: { id: string; name: string }) {
  const pattern = naming(child.name);
  if (!pattern) return { reports: [], marks: [] };
  const notes = await db
    .select({ id: t.answers.id, text: t.answers.text })
    .from(t.answers)
    .where(and(eq(t.answers.outcome, "note"), ne(t.answers.childId, child.id)));
  const rows = await db
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
export async function countTraces(db: Db, child: { id: string; name: string }) {
  const count = async (table: typeof t.answers | typeof t.checks | typeof t.readings | typeof t.sessionMembers) =>
    (await db.select({ count: sql<number>`count(*)::int` }).from(table).where(eq(table.childId, child.id)))[0]
      ?.count ?? 0;
  const groups = await db
    .selectDistinct({ id: t.groupVersions.groupId })
    .from(t.groupMembers)
    .innerJoin(t.groupVersions, eq(t.groupVersions.id, t.groupMembers.versionId))
    .where(eq(t.groupMembers.childId, child.id));
  const notes = await notesNaming(db, child);
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
export async function eraseChild(db: Db, child: { id: string; name: string }): Promise<void> {
  await db.transaction(async (inside) => {
    const { reports, marks } = await notesNaming(inside, child);
    for (const { id, note } of reports) await inside.update(t.reports).set({ note }).where(eq(t.reports.id, id));
    for (const { id, text } of marks) await inside.update(t.answers).set({ text }).where(eq(t.answers.id, id));
    await inside.delete(t.children).where(eq(t.children.id, child.id));
    await inside.delete(t.preparations).where(eq(t.preparations.forKey, `child:${child.id}`));
    await inside
      .delete(t.sittings)
      .where(sql`not exists (select 1 from ${t.checks} c where c.sitting_id = ${t.sittings.id})`);
  });
}
