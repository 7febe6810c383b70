import { randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import type { Db } from "../store/opened.ts";
import * as t from "../store/schema.ts";

/** A school cannot be made, for a reason that can be told in a sentence. */
export class CannotMake extends Error {
  constructor(message: string) {
    super(message);
    this.name = "CannotMake";
  }
}

/**
 * A name as it can stand in a host name: small letters, figures and single hyphens.
 * @example slugOf("St. Orm’s — Upper Lock") // "st-orms-upper-lock"
 */
function slugOf(name: string): string {
  return name
    .normalize("NFD")
    .replace(/[\p{M}'’.]/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 40)
    .replace(/-+$/, "");
}

/**
 * Makes another school on this server.
 * @param db of the whole database, as its owner: only the program's own command makes schools
 * @throws CannotMake when the name has no letters, or there is one of the name
 */
export async function addSchool(db: Db, name: string): Promise<{ id: string; slug: string }> {
  const called = name.trim();
  const slug = slugOf(called);
  if (called.length > 80) throw new CannotMake("A school's name has at most 80 characters. No school was made.");
  if (!slug)
    throw new CannotMake(
      "A school's name needs at least one letter from a to z, or a figure: it stands in its address. No school was made.",
    );
  const id = randomUUID();
  await asOwner(db, async (inside) => {
    const there = await inside.select({ slug: t.schools.slug }).from(t.schools);
    if (there.some((one) => one.slug === slug))
      throw new CannotMake(
        `There is a school at ${slug}.localhost already. Choose another name. No school was made.`,
      );
    await inside.insert(t.schools).values({ id, slug, name: called });
  });
  return { id, slug };
}

/** The ids of all schools, the first one first. */
export async function listSchools(db: Db): Promise<{ id: string; slug: string; name: string }[]> {
  return asOwner(db, (inside) =>
    inside
      .select({ id: t.schools.id, slug: t.schools.slug, name: t.schools.name })
      .from(t.schools)
      .orderBy(t.schools.createdAt, t.schools.id),
  );
}

/**
 * As the owner of the tables. The wall is forced on owners too, so it is let down for the one table of schools, within the
 * transaction; the lock that this takes keeps everyone else out meanwhile.
 */
export function asOwner<T>(db: Db, work: (inside: Db) => Promise<T>): Promise<T> {
  return db.transaction(async (tx) => {
    await tx.execute(sql`alter table ${t.schools} no force row level security`);
    const done = await work(tx as unknown as Db);
    await tx.execute(sql`alter table ${t.schools} force row level security`);
    return done;
  });
}
