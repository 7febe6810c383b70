import { join } from "node:path";
import { openFolder, openMemory } from "./embedded.ts";
import type { OpenStore } from "./opened.ts";
import { openServer } from "./server.ts";

/** Where the migrations stand when this file runs as it is; a built server says where. */
const besides = join(import.meta.dirname, "migrations");

/**
 * Opens the database and brings it to the newest migration. With `url` a PostgreSQL server; else PGlite in
 * `folder`, which one process at a time may hold; `memory://` keeps nothing (tests), and can begin from a `snapshot` of another. `fresh` empties the
 * embedded database first, once the folder is held; a server's database is never emptied.
 * @throws CannotOpen when another process holds the folder, it cannot be written, or the server cannot be used
 */
export async function openStore(where: {
  folder: string;
  url?: string | undefined;
  fresh?: boolean;
  snapshot?: Blob | undefined;
  migrations?: string;
  /** Told in a sentence what was done to get data of the embedded database back. */
  says?: (sentence: string) => void;
  /** Bytes of its journal after which it is dumped, by the bytes of the last dump; for tests. */
  mostJournal?: (lastDump: number) => number;
}): Promise<OpenStore> {
  const migrationsFolder = where.migrations ?? besides;
  if (where.url) return openServer(where.url, migrationsFolder);
  if (where.folder === "memory://") return openMemory(where.snapshot, migrationsFolder);
  return openFolder(where.folder, {
    fresh: where.fresh ?? false,
    migrationsFolder,
    says: where.says,
    mostJournal: where.mostJournal,
  });
}
