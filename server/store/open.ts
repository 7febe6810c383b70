import { createHmac } from "node:crypto";
import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { sql } from "drizzle-orm";
import { drizzle as overPg } from "drizzle-orm/node-postgres";
import { migrate as migratePg } from "drizzle-orm/node-postgres/migrator";
import type { PgDatabase, PgQueryResultHKT } from "drizzle-orm/pg-core";
import { drizzle as overPglite } from "drizzle-orm/pglite";
import { migrate as migratePglite } from "drizzle-orm/pglite/migrator";
import pg from "pg";
import { CannotOpen, holdFolder, inWords } from "./lock.ts";
import * as schema from "./schema.ts";

export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenStore {
  /** For the application. On a server it logs in as a role that owns nothing and reads nothing outside of a school. */
  readonly db: Db;
  /** For the program's own start and commands: the owner of the tables. */
  readonly owner: Db;
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
  if (where.url) return openServer(where.url, migrationsFolder);
  if (where.folder === "memory://") {
    const memory = new PGlite(where.snapshot ? { loadDataDir: where.snapshot } : {});
    const db = overPglite(memory, { schema });
    await migratePglite(db, { migrationsFolder });
    return { db, owner: db, kind: "embedded", close: () => memory.close() };
  }
  return openFolder(where.folder, { fresh: where.fresh ?? false, migrationsFolder });
}

/** Connections of the application to a server. */
const MOST_CONNECTIONS = 8;

/**
 * The address names the owner, who migrates. The application has a login of its own, made here: it inherits nothing, and may
 * only become the two roles of `columns.ts`. Its password follows from the owner's, so that several processes agree on it.
 */
async function openServer(url: string, migrationsFolder: string): Promise<OpenStore> {
  const quiet = (pool: pg.Pool) => pool.on("error", () => undefined);
  const owning = quiet(new pg.Pool({ connectionString: url, max: 1 }));
  const owner = overPg(owning, { schema });
  await migratePg(owner, { migrationsFolder });
  const address = new URL(url);
  const name = `keen_login_${address.pathname.slice(1)}`.slice(0, 63);
  const password = createHmac("sha256", decodeURIComponent(address.password)).update(name).digest("hex");
  const [role, secret] = [sql.identifier(name), sql.raw(`'${password}'`)];
  const { rows } = await owner.execute(sql`select 1 from pg_roles where rolname = ${name}`);
  await owner.execute(
    rows.length === 0
      ? sql`create role ${role} login noinherit password ${secret}`
      : sql`alter role ${role} login noinherit password ${secret}`,
  );
  await owner.execute(sql`grant keen_app, keen_door to ${role}`);
  address.username = name;
  address.password = password;
  const pool = quiet(new pg.Pool({ connectionString: address.href, max: MOST_CONNECTIONS }));
  const db = overPg(pool, { schema });
  const close = async () => {
    await pool.end();
    await owning.end();
  };
  try {
    await db.execute(sql`select 1`);
  } catch (error) {
    await close();
    const { code = "no answer" } = ((error as { cause?: unknown }).cause ?? error) as { code?: string };
    throw new CannotOpen(
      `The database server refuses the application's own login, ${name} (${code}). Let it in by password (pg_hba.conf) and start again. Nothing was changed.`,
    );
  }
  return { db, owner, kind: "server", close };
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
      owner: db,
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
