import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle as overPg } from "drizzle-orm/node-postgres";
import { migrate as migratePg } from "drizzle-orm/node-postgres/migrator";
import type { PgDatabase, PgQueryResultHKT } from "drizzle-orm/pg-core";
import { drizzle as overPglite } from "drizzle-orm/pglite";
import { migrate as migratePglite } from "drizzle-orm/pglite/migrator";
import pg from "pg";
import { holdFolder, inWords } from "./lock.ts";
import * as schema from "./schema.ts";

export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenStore {
  readonly db: Db;
  /** `embedded` in a folder, or a PostgreSQL `server`. */
  readonly kind: "embedded" | "server";
  close(): Promise<void>;
}

/** Where the migrations stand when this file runs as it is; a built server says where. */
const besides = join(import.meta.dirname, "migrations");

/**
 * Opens the database and brings it to the newest migration. With `url` a PostgreSQL server; else PGlite in
 * `folder`, which one process at a time may hold; `memory://` keeps nothing (tests), and can begin from a `snapshot` of another. `fresh` empties the
 * embedded database first, once the folder is held; a server's database is never emptied.
 * Throws `CannotOpen` when another process holds the folder, or it cannot be written.
 */
export async function openStore(where: {
  folder: string;
  url?: string | undefined;
  fresh?: boolean;
  snapshot?: Blob | undefined;
  migrations?: string;
}): Promise<OpenStore> {
  const migrationsFolder = where.migrations ?? besides;
  if (where.url) {
    const pool = new pg.Pool({ connectionString: where.url, max: 8 });
    const db = overPg(pool, { schema });
    await migratePg(db, { migrationsFolder });
    return { db, kind: "server", close: () => pool.end() };
  }
  if (where.folder === "memory://") {
    const memory = new PGlite(where.snapshot ? { loadDataDir: where.snapshot } : {});
    const db = overPglite(memory, { schema });
    await migratePglite(db, { migrationsFolder });
    return { db, kind: "embedded", close: () => memory.close() };
  }
  return openFolder(where.folder, { fresh: where.fresh ?? false, migrationsFolder });
}

async function openFolder(
  folder: string,
  { fresh, migrationsFolder }: { readonly fresh: boolean; readonly migrationsFolder: string },
): Promise<OpenStore> {
  let release = () => {};
  try {
    mkdirSync(folder, { recursive: true });
    release = holdFolder(folder);
    const data = join(folder, "pg");
    if (fresh) rmSync(data, { recursive: true, force: true });
    const client = await PGlite.create(data);
    const db = overPglite(client, { schema });
    await migratePglite(db, { migrationsFolder });
    return {
      db,
      kind: "embedded",
      close: async () => {
        await client.close();
        release();
      },
    };
  } catch (error) {
    release();
    throw inWords(error, folder);
  }
}
