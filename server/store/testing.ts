import { cpSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { inject } from "vitest";
import { emptyEmbedded } from "./copies.ts";
import { migrationsUpTo } from "./migrated.ts";
import { openStore } from "./open.ts";
import type { OpenStore } from "./opened.ts";
import { onServer } from "./testing-server.ts";

declare module "vitest" {
  interface ProvidedContext {
    /** What tests run on, and a migrated empty database to begin from: a file, or a database of that server. */
    database: { readonly kind: "embedded" | "server"; readonly empty: string };
  }
}

export const allMigrations = join(import.meta.dirname, "migrations");

/**
 * Folders of the embedded database as they are after a first start, which takes seconds; copying one does not. To be called once
 * a file, before all of its tests.
 * @returns `another` makes a copy that the test removes; `remove` removes what the copies are made of
 */
export async function openedFolders(): Promise<{ another: () => string; remove: () => void }> {
  const first = mkdtempSync(join(tmpdir(), "keen-opened-"));
  await (await openStore({ folder: first })).close();
  return {
    another: () => {
      const folder = mkdtempSync(join(tmpdir(), "keen-folder-"));
      cpSync(first, folder, { recursive: true });
      return folder;
    },
    remove: () => rmSync(first, { recursive: true }),
  };
}

let made = 0;

/** An empty database, for tests only: in memory, or one of its own on the server. */
export async function openTestStore(): Promise<OpenStore> {
  const { kind, empty } = inject("database");
  if (kind === "embedded") return openStore({ folder: "memory://", snapshot: new Blob([readFileSync(empty)]) });
  return openStore({ folder: "", url: await emptyDatabase(empty) });
}

/** A new empty database on the server of the tests. @returns its address */
export async function emptyDatabase(template: string): Promise<string> {
  const url = new URL(template);
  const name = `t${process.pid}_${made++}_${Math.random().toString(36).slice(2, 8)}`;
  await onServer(template, `create database ${name} template ${url.pathname.slice(1)}`);
  url.pathname = `/${name}`;
  return url.href;
}

/** An empty database in memory as it was after the migration with this number, for tests of the ones behind it. */
export async function databaseAt(last: number): Promise<PGlite> {
  const folder = migrationsUpTo(allMigrations, last + 1);
  const client = await emptyEmbedded();
  await migrate(drizzle(client), { migrationsFolder: folder });
  rmSync(folder, { recursive: true });
  return client;
}

/** Rows of every table of a school as one version of the program left them. */
export type Dump = Readonly<Record<string, readonly Readonly<Record<string, unknown>>[]>>;

/** Puts the rows of a dump into a database that stands at its migration. */
export async function fillFrom(client: PGlite, dump: Dump): Promise<void> {
  // The rows were whole when they were dumped; their tables come in no order.
  await client.exec("set session_replication_role = replica");
  for (const [table, rows] of Object.entries(dump)) {
    await client.exec(`delete from "${table}"`);
    await client.query(`insert into "${table}" select * from jsonb_populate_recordset(null::"${table}", $1)`, [
      JSON.stringify(rows),
    ]);
  }
  await client.exec("set session_replication_role = origin");
}
