import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { inject } from "vitest";
import type { TestProject } from "vitest/node";
import { type OpenStore, openStore } from "./open.ts";

declare module "vitest" {
  interface ProvidedContext {
    snapshot: string;
  }
}

export const allMigrations = join(import.meta.dirname, "migrations");

/** Before all tests: makes an empty migrated database once, since making one takes seconds and copying it does not. */
export default async function setup({ provide }: TestProject): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), "keen-snapshot-"));
  const client = new PGlite();
  await migrate(drizzle(client), { migrationsFolder: allMigrations });
  const dump = await client.dumpDataDir("none");
  await client.close();
  const file = join(folder, "empty.tar");
  writeFileSync(file, Buffer.from(await dump.arrayBuffer()));
  provide("snapshot", file);
  return () => rmSync(folder, { recursive: true, force: true });
}

/** An empty database in memory, for tests only. */
export function openTestStore(): Promise<OpenStore> {
  return openStore({ folder: "memory://", snapshot: new Blob([readFileSync(inject("snapshot"))]) });
}

/** An empty database in memory as it was after the migration with this number, for tests of the ones behind it. */
export async function databaseAt(last: number): Promise<PGlite> {
  const folder = mkdtempSync(join(tmpdir(), "keen-migrations-"));
  cpSync(allMigrations, folder, { recursive: true });
  const journal = join(folder, "meta", "_journal.json");
  const { entries, ...rest } = JSON.parse(readFileSync(journal, "utf8"));
  const upTo = entries.filter((entry: { idx: number }) => entry.idx <= last);
  writeFileSync(journal, JSON.stringify({ ...rest, entries: upTo }));
  const client = new PGlite();
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
