import { and, eq, ilike, inArray, or, sql } from "drizzle-orm";
import type { ChildView } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

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
