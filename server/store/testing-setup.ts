import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import type { TestProject } from "vitest/node";
import { emptyEmbedded } from "./copies.ts";
import { openStore } from "./open.ts";
import { onServer, startTestServer } from "./testing-server.ts";

const migrationsFolder = join(import.meta.dirname, "migrations");

/** Before all tests: an empty migrated database is made once, since making one takes seconds and copying it does not. */
export default async function setup({ name, provide }: TestProject): Promise<() => Promise<void>> {
  if (name === "postgres") {
    const server = await startTestServer(await freePort());
    const url = server.urlOf(`keen_empty_${process.pid}`);
    await onServer(url, `create database ${new URL(url).pathname.slice(1)}`);
    await (await openStore({ folder: "", url, migrations: migrationsFolder })).close();
    provide("database", { kind: "server", empty: url });
    return () => server.stop();
  }
  const folder = mkdtempSync(join(tmpdir(), "keen-snapshot-"));
  const client = await emptyEmbedded();
  await migrate(drizzle(client), { migrationsFolder });
  const dump = await client.dumpDataDir("none");
  await client.close();
  const file = join(folder, "empty.tar");
  writeFileSync(file, Buffer.from(await dump.arrayBuffer()));
  provide("database", { kind: "embedded", empty: file });
  return async () => rmSync(folder, { recursive: true, force: true });
}

function freePort(): Promise<number> {
  return new Promise((done, failed) => {
    const server = createServer().listen(0, "127.0.0.1", () => {
      const address = server.address();
      server.close(() => done(typeof address === "object" && address ? address.port : 0));
    });
    server.on("error", failed);
  });
}
