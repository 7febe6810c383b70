import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
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

/** Before all tests: makes an empty migrated database once, since making one takes seconds and copying it does not. */
export default async function setup({ provide }: TestProject): Promise<() => void> {
  const folder = mkdtempSync(join(tmpdir(), "keen-snapshot-"));
  const client = new PGlite();
  await migrate(drizzle(client), { migrationsFolder: join(import.meta.dirname, "migrations") });
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
