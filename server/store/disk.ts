import { closeSync, fsync, fsyncSync, openSync, readFileSync, renameSync, writeSync } from "node:fs";
import { dirname } from "node:path";

/** Makes sure that names in a folder are on the disk: new files, and what was renamed. */
export function syncFolder(folder: string): void {
  const handle = openSync(folder, "r");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Makes sure that what was written to a file is on the disk, without holding anyone up. */
export function syncFile(path: string): Promise<void> {
  const handle = openSync(path, "r+");
  return new Promise((done, failed) =>
    fsync(handle, (error) => {
      closeSync(handle);
      if (error) failed(error);
      else done();
    }),
  );
}

/** Writes a file whole or not at all: another of the name stays until this one is on the disk. */
export function writeWhole(path: string, content: string | Uint8Array): void {
  const beside = `${path}.new`;
  const handle = openSync(beside, "w");
  try {
    const bytes = typeof content === "string" ? Buffer.from(content) : content;
    let written = 0;
    while (written < bytes.length) written += writeSync(handle, bytes, written);
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
  renameSync(beside, path);
  syncFolder(dirname(path));
}

/** Which run of the machine this is; null where the system does not say. What was not flushed outlives only one run. */
export function bootOfMachine(): string | null {
  try {
    return readFileSync("/proc/sys/kernel/random/boot_id", "utf8").trim();
  } catch {
    return null;
  }
}
