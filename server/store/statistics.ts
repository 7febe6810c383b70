import type { PGlite } from "@electric-sql/pglite";

/**
 * Tables of which the database does not know how much they hold: those with rows that were never counted, and those that have
 * grown to twice their size since. A server counts by itself; the embedded database never does.
 */
const uncounted = `
  select c.oid::regclass::text as name
  from pg_class c join pg_namespace n on n.oid = c.relnamespace
  where n.nspname in ('public', 'accounts') and c.relkind = 'r' and pg_relation_size(c.oid) > 0
    and (c.reltuples < 0 or pg_relation_size(c.oid) > 2 * current_setting('block_size')::int * greatest(c.relpages, 4))
  order by 1`;

/**
 * Counts what such tables hold. Without it a query is planned as for tables of any size: what stands of a child's log (its marks
 * without those that were taken back) was looked up mark by mark.
 * @returns the tables that were counted, by name
 */
export async function count(client: PGlite): Promise<readonly string[]> {
  const { rows } = await client.query<{ name: string }>(uncounted);
  const names = rows.map(({ name }) => name);
  if (names.length > 0) await client.exec(`analyze ${names.join(", ")}`);
  return names;
}
