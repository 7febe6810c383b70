import { createHash } from "node:crypto";
import { and, asc, eq, sql } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import type { Opens } from "#contract";
import type { Db } from "../store/opened.ts";
import * as t from "../store/schema.ts";

/** Finds the school before anyone is known. It sees names of schools in host names, and what links and codes are of. */
export interface Door {
  /** The ids of all schools, the first one first. */
  schools(): Promise<string[]>;
  /** The id of the school with this name in its host name; the first one without a name. */
  schoolOf(slug: string | null): Promise<string | undefined>;
  /** The id of the school that a link or a code leads to. */
  schoolBehind(opens: Opens, key: string): Promise<string | undefined>;
}

/** What the database keeps instead of a link's token: a code of six figures is kept as it is. */
export function keptKey(opens: Opens, key: string): string {
  return opens !== "face" ? createHash("sha256").update(key).digest("hex") : key;
}

/** So many names of schools are remembered; a name never goes to another school. */
const MOST_NAMES = 1000;

/** @param db of the whole database: this folder alone asks it before a school is known, in a role that sees nothing else */
export function openDoor(db: Db): Door {
  const names = new LRUCache<string, string>({ max: MOST_NAMES });
  const ask = <T>(work: (inside: Pick<Db, "select">) => Promise<T>): Promise<T> =>
    db.transaction(async (tx) => {
      await tx.execute(sql`select set_config('role', 'keen_door', true)`);
      return work(tx);
    });
  return {
    schools: async () =>
      (
        await ask((inside) =>
          inside.select({ id: t.schools.id }).from(t.schools).orderBy(asc(t.schools.createdAt), asc(t.schools.id)),
        )
      ).map(({ id }) => id),
    schoolOf: async (slug) => {
      const known = names.get(slug ?? "");
      if (known) return known;
      const [found] = await ask((inside) =>
        inside
          .select({ id: t.schools.id })
          .from(t.schools)
          .where(slug === null ? undefined : eq(t.schools.slug, slug))
          .orderBy(asc(t.schools.createdAt), asc(t.schools.id))
          .limit(1),
      );
      if (found) names.set(slug ?? "", found.id);
      return found?.id;
    },
    schoolBehind: async (opens, key) => {
      const [found] = await ask((inside) =>
        inside
          .select({ id: t.doors.schoolId })
          .from(t.doors)
          .where(and(eq(t.doors.kind, opens), eq(t.doors.key, keptKey(opens, key)))),
      );
      return found?.id;
    },
  };
}
