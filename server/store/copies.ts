import { existsSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import { PGlite } from "@electric-sql/pglite";

/** Where the build has put it, seen from the built server and from this file. */
const built = ["../dist-empty", "../../dist-empty"].map((folder) =>
  join(import.meta.dirname, folder, "database.tar.gz"),
);

/**
 * A database as it was when it was dumped.
 * @param file a compressed dump of its folder
 * @param dataDir a folder that is not there yet; in memory without one
 * @throws when the file is no such dump
 */
export function databaseFrom(file: string, dataDir?: string): Promise<PGlite> {
  const loadDataDir = new Blob([gunzipSync(readFileSync(file))]);
  return PGlite.create({ ...(dataDir ? { dataDir } : {}), loadDataDir });
}

/**
 * A new database with nothing in it: a copy of the one that was made with the program, which takes a fifth of the time, or
 * made here when that is not there or of another version.
 * @param dataDir a folder that is not there yet; in memory without one
 * @param files where the one that was made may lie
 */
export async function emptyEmbedded(dataDir?: string, files: readonly string[] = built): Promise<PGlite> {
  const file = files.find((path) => existsSync(path));
  if (file) {
    try {
      return await databaseFrom(file, dataDir);
    } catch {
      if (dataDir) rmSync(dataDir, { recursive: true, force: true });
    }
  }
  return PGlite.create(dataDir ?? "memory://");
}
