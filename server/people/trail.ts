import { randomUUID } from "node:crypto";
import { subMonths } from "date-fns";
import { and, desc, eq, gte, lt, sql } from "drizzle-orm";
import type { Did } from "#contract";
import { TRAIL_AT_ONCE } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** Something that was seen or done. */
export interface Deed {
  readonly at: string;
  readonly memberId: string | null;
  readonly by: string;
  readonly did: Did;
  readonly about?: string;
  readonly count?: number;
}

/** Writes a row of the trail, in the transaction of what it speaks of. */
export async function write(inside: Inside, deed: Deed): Promise<void> {
  await inside.insert(t.trail).values({ id: randomUUID(), ...deed });
}

/** Rows of the trail, the newest first, and whether there are more than are told. */
export async function read(
  inside: Inside,
  wanted: {
    readonly memberId?: string | undefined;
    readonly did?: Did | undefined;
    readonly about?: string | undefined;
    /** Instants: from this one, and before that one. */
    readonly from?: string | undefined;
    readonly before?: string | undefined;
  },
) {
  const { memberId, did, about, from, before } = wanted;
  const rows = await inside
    .select()
    .from(t.trail)
    .where(
      and(
        memberId ? eq(t.trail.memberId, memberId) : undefined,
        did ? eq(t.trail.did, did) : undefined,
        about ? eq(t.trail.about, about) : undefined,
        from ? gte(t.trail.at, from) : undefined,
        before ? lt(t.trail.at, before) : undefined,
      ),
    )
    .orderBy(desc(t.trail.at), desc(t.trail.id))
    .limit(TRAIL_AT_ONCE + 1);
  return { rows: rows.slice(0, TRAIL_AT_ONCE), more: rows.length > TRAIL_AT_ONCE };
}

/** Takes away rows that are older than so many months. */
export async function forgetOld(inside: Inside, months: number, now: Date): Promise<void> {
  const before = subMonths(now, months).toISOString();
  await inside.delete(t.trail).where(sql`${t.trail.at} < ${before}`);
}
