import { createReadStream } from "node:fs";
import { sql } from "drizzle-orm";
import { asOwner } from "../people/schools.ts";
import type { Db, OpenStore } from "../store/opened.ts";
import { BadBackup, migrationsOf, type Part, readBackup, rowsOf, tablesInOrder } from "./backup.ts";

/** Takes away the school that every new database begins with. @throws BadBackup when someone has begun to use it */
async function emptied(store: OpenStore): Promise<void> {
  await asOwner(store.owner, async (tx) => {
    const schools = await rowsOf<{ id: string }>(tx, sql`select id from schools`);
    for (const { id } of schools) {
      await tx.execute(sql`select set_config('role', 'keen_app', true), set_config('app.school', ${id}, true)`);
      const [used] = await rowsOf<{ used: boolean }>(
        tx,
        sql`select exists (select 1 from children) or exists (select 1 from classes) as used`,
      );
      if (used?.used)
        throw new BadBackup(
          "There is data in this database already, and a backup is only put back into an empty one. Nothing was changed. Make a new database, and put its address into DATABASE_URL.",
        );
      const there = await rowsOf<{ name: string }>(
        tx,
        sql`select table_name as name from information_schema.tables where table_schema = 'public'`,
      );
      const names = new Set(there.map(({ name }) => name));
      for (const table of tablesInOrder().toReversed())
        if (names.has(table)) await tx.execute(sql`delete from ${sql.identifier(table)}`);
      await tx.execute(sql`select set_config('role', 'none', true), set_config('app.school', '', true)`);
    }
    await tx.execute(sql`delete from schools`);
  });
}

/** Puts rows of a table back, as they were: only columns that the backup has; others have what they begin with. */
async function put(tx: Db, { table, rows }: Part): Promise<void> {
  if (rows.length === 0) return;
  if (!/^[a-z_]+$/.test(table))
    throw new BadBackup("This backup names a table that cannot be. Nothing was put back.");
  const columns = [...new Set(rows.flatMap((row) => Object.keys(row as object)))];
  const names = sql.join(
    columns.map((name) => sql.identifier(name)),
    sql`, `,
  );
  const name = sql.identifier(table);
  await tx.execute(
    sql`insert into ${name} (${names}) select ${names} from jsonb_populate_recordset(null::${name}, ${JSON.stringify(rows)}::jsonb)`,
  );
}

/**
 * Puts a backup into an empty store that stands at the backup's migration. All of it or nothing.
 * @param file a backup that was read to its end before
 */
export async function fillFrom(store: OpenStore, file: string): Promise<void> {
  await emptied(store);
  const most = await migrationsOf(store.owner);
  await asOwner(store.owner, async (tx) => {
    await readBackup(
      () => createReadStream(file),
      most,
      async (part) => {
        if (part.table === "schools") {
          await tx.execute(sql`select set_config('role', 'none', true)`);
          await put(tx, part);
          await tx.execute(
            sql`select set_config('role', 'keen_app', true), set_config('app.school', ${part.school}, true)`,
          );
        } else await put(tx, part);
      },
    );
    await tx.execute(sql`select set_config('role', 'none', true)`);
  });
}

/** Children who were erased in a store: by school, their ids. */
export async function erasedIn(store: OpenStore): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  await store.owner.transaction(async (tx) => {
    await tx.execute(sql`select set_config('role', 'keen_door', true)`);
    const schools = await rowsOf<{ id: string }>(tx as unknown as Db, sql`select id from schools`);
    for (const { id } of schools) {
      await tx.execute(sql`select set_config('role', 'keen_app', true), set_config('app.school', ${id}, true)`);
      const rows = await rowsOf<{ id: string }>(tx as unknown as Db, sql`select child_id as id from erased`);
      found.set(
        id,
        rows.map((row) => row.id),
      );
    }
  });
  return found;
}
