import { and, eq, sql } from "drizzle-orm";
import type { RoutineBody } from "#contract";
import { type Routine, shippedRoutine, shippedRoutines, USUAL } from "#core/plans";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** A routine of the school's own. */
export interface OwnRoutine {
  readonly id: string;
  readonly version: number;
  readonly routine: RoutineBody;
}

/** The school's own routines, by name. */
export async function list(inside: Inside): Promise<OwnRoutine[]> {
  const rows = await inside.select().from(t.routines).orderBy(sql`${t.routines.routine} ->> 'name'`, t.routines.id);
  return rows.map(({ id, version, routine }) => ({ id, version, routine }));
}

/** One of them, or undefined. */
export async function find(inside: Inside, id: string): Promise<OwnRoutine | undefined> {
  const [row] = await inside.select().from(t.routines).where(eq(t.routines.id, id));
  return row && { id: row.id, version: row.version, routine: row.routine };
}

const anId = /^[0-9a-f]{8}-/;

/** The routine that is meant: one that ships, one of the school's own, or the usual one where that is gone. */
export async function named(inside: Inside, which: string): Promise<Routine> {
  const own = anId.test(which) ? await find(inside, which) : undefined;
  return own?.routine ?? shippedRoutine(which) ?? shippedRoutines[USUAL];
}

/**
 * Keeps a routine over a version, 0 for a new one.
 * @returns the version now, or null when it was changed meanwhile
 */
export async function save(
  inside: Inside,
  id: string,
  { version, routine }: { readonly version: number; readonly routine: RoutineBody },
): Promise<number | null> {
  const next = { routine, version: version + 1 };
  const written =
    version === 0
      ? await inside
          .insert(t.routines)
          .values({ id, ...next })
          .onConflictDoNothing()
          .returning()
      : await inside
          .update(t.routines)
          .set(next)
          .where(and(eq(t.routines.id, id), eq(t.routines.version, version)))
          .returning();
  return written[0]?.version ?? null;
}

/** Takes a routine away; groups that had it go by the usual one. */
export async function remove(inside: Inside, id: string): Promise<void> {
  await inside.update(t.groups).set({ routine: USUAL }).where(eq(t.groups.routine, id));
  await inside.delete(t.routines).where(eq(t.routines.id, id));
}
