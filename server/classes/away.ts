import { and, eq, sql } from "drizzle-orm";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** Says that a child was away on a day, or was here after all. @returns false when there is no such child */
export async function say(
  inside: Inside,
  id: string,
  { day, absent, today }: { readonly day: string; readonly absent: boolean; readonly today: string },
): Promise<boolean> {
  const without = sql`array_remove(${t.children.awayOn}, ${day}::date)`;
  const days = absent
    ? sql`(select array_agg(one order by one) from unnest(${without} || ${day}::date) one)`
    : without;
  const changed = await inside
    .update(t.children)
    .set({ awayOn: days, ...(day === today ? { absentOn: absent ? day : null } : {}) })
    .where(eq(t.children.id, id))
    .returning({ id: t.children.id });
  return changed.length === 1;
}

/** The days on which children were away, of all or of one, by child; a child who never was is left out. */
export async function days(inside: Inside, childId?: string): Promise<ReadonlyMap<string, readonly string[]>> {
  const { id, awayOn } = t.children;
  const its = childId === undefined ? undefined : eq(id, childId);
  const rows = await inside
    .select({ id, awayOn })
    .from(t.children)
    .where(and(sql`cardinality(${awayOn}) > 0`, its));
  return new Map(rows.map((row) => [row.id, row.awayOn]));
}
