import { desc, eq, sql } from "drizzle-orm";
import type { ClassView } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { type ClassInOutline, outlineOf } from "./outline.ts";

/** Classes with how far they are taught and how many children are in them, oldest first. */
export async function list(inside: Inside): Promise<ClassView[]> {
  const { classes } = await outlineOf(inside);
  const counts = await inside
    .select({ classId: t.children.classId, count: sql<number>`count(*)::int` })
    .from(t.children)
    .where(eq(t.children.archived, false))
    .groupBy(t.children.classId);
  const count = new Map(counts.map((one) => [one.classId, one.count]));
  return classes.map((one) => ({ ...one, children: count.get(one.id) ?? 0 }));
}

/** Classes with how far they are taught, oldest first. */
export async function brief(inside: Inside): Promise<readonly ClassInOutline[]> {
  return (await outlineOf(inside)).classes;
}

/** One class, or undefined. */
export async function find(inside: Inside, id: string): Promise<ClassView | undefined> {
  return (await list(inside)).find((one) => one.id === id);
}

/** Adds a class; one whose id is there already stays as it is. */
export async function insert(inside: Inside, row: typeof t.classes.$inferInsert): Promise<void> {
  await inside.insert(t.classes).values(row).onConflictDoNothing();
}

/** Changes what is given of a class. */
export async function update(
  inside: Inside,
  id: string,
  change: Partial<typeof t.classes.$inferInsert>,
): Promise<void> {
  if (Object.keys(change).length > 0) await inside.update(t.classes).set(change).where(eq(t.classes.id, id));
}

/** Marks how far a class has been taught; the same mark sent again changes nothing. The one that came last counts. */
export async function insertTaught(
  inside: Inside,
  row: Omit<typeof t.taught.$inferInsert, "schoolId" | "number">,
): Promise<void> {
  // Held, so that two marks at once come one after the other.
  await inside.select({ id: t.classes.id }).from(t.classes).where(eq(t.classes.id, row.classId)).for("update");
  const [last] = await inside
    .select({ number: sql<number>`coalesce(max(${t.taught.number}), 0)::int` })
    .from(t.taught)
    .where(eq(t.taught.classId, row.classId));
  await inside
    .insert(t.taught)
    .values({ ...row, number: (last?.number ?? 0) + 1 })
    .onConflictDoNothing({ target: [t.taught.schoolId, t.taught.id] });
}

/** Every mark of how far a class has been taught, the newest first. */
export async function taughtMarks(inside: Inside, classId: string) {
  return inside.select().from(t.taught).where(eq(t.taught.classId, classId)).orderBy(desc(t.taught.number));
}
