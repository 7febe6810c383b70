import { eq } from "drizzle-orm";
import type { PresetView } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** The school's own plans of checks, by name. */
export async function list(inside: Inside): Promise<PresetView[]> {
  const rows = await inside.select().from(t.presets).orderBy(t.presets.name, t.presets.id);
  return rows.map(({ schoolId: _, ...row }) => ({ ...row, shipped: false }));
}

/** A plan of the school's own, held until the transaction ends; undefined when there is none. */
export async function find(inside: Inside, id: string) {
  return (await inside.select().from(t.presets).where(eq(t.presets.id, id)).for("update"))[0];
}

/** Keeps a plan, over what stood there. */
export async function put(
  inside: Inside,
  row: Omit<typeof t.presets.$inferInsert, "schoolId" | "version"> & { readonly version: number },
): Promise<void> {
  await inside
    .insert(t.presets)
    .values(row)
    .onConflictDoUpdate({ target: [t.presets.schoolId, t.presets.id], set: row });
}

/** @returns false when there was none */
export async function remove(inside: Inside, id: string): Promise<boolean> {
  return (await inside.delete(t.presets).where(eq(t.presets.id, id)).returning({ id: t.presets.id })).length === 1;
}
