import { cpSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

/**
 * The first migrations of this program alone, in a folder that is the caller's to remove: for a database as it was at one of
 * them.
 * @param folder of all migrations
 */
export function migrationsUpTo(folder: string, count: number): string {
  const part = mkdtempSync(join(tmpdir(), "keen-migrations-"));
  cpSync(folder, part, { recursive: true });
  const journal = join(part, "meta", "_journal.json");
  const { entries, ...rest } = JSON.parse(readFileSync(journal, "utf8"));
  writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, count) }));
  return part;
}

/** How many migrations this program has. */
export function knownMigrations(folder: string): number {
  return JSON.parse(readFileSync(join(folder, "meta", "_journal.json"), "utf8")).entries.length;
}
