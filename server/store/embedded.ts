import { mkdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import type { Signals } from "../frame/signals.ts";
import { holdFolder, inWords } from "./lock.ts";
import type { OpenStore } from "./opened.ts";
import * as schema from "./schema.ts";

/** One process holds the embedded database: there is no one to tell. */
const noOne: Signals = { me: null, tell: () => undefined, listen: () => undefined };

/** A database in memory that keeps nothing. @param snapshot of another one, to begin from */
export async function openMemory(snapshot: Blob | undefined, migrationsFolder: string): Promise<OpenStore> {
  const client = new PGlite(snapshot ? { loadDataDir: snapshot } : {});
  const db = drizzle(client, { schema });
  await migrate(db, { migrationsFolder });
  return { db, owner: db, kind: "embedded", signals: noOne, close: () => client.close() };
}

/**
 * The database of a folder, held for this process.
 * @throws CannotOpen when another process holds it, or it cannot be written
 */
export async function openFolder(
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
    const db = drizzle(client, { schema });
    await migrate(db, { migrationsFolder });
    return {
      db,
      owner: db,
      kind: "embedded",
      signals: noOne,
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
