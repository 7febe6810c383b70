import { closeSync, openSync } from "node:fs";
import { join } from "node:path";
import { tryLock, unlock } from "fs-native-extensions";

/** The database cannot be opened, for a reason that can be told in a sentence. */
export class CannotOpen extends Error {
  constructor(message: string) {
    super(message);
    this.name = "CannotOpen";
  }
}

/**
 * Holds the folder for this process: an advisory lock of the operating system on the file `lock` in it. It ends with its
 * process, also after kill -9, and is the same whatever name or temporary directory a process has. The file stays.
 * @returns a function that lets go
 * @throws CannotOpen when another process holds it
 */
export function holdFolder(folder: string): () => void {
  const file = openSync(join(folder, "lock"), "a+");
  if (!tryLock(file)) {
    closeSync(file);
    throw new CannotOpen(
      `Another Keen Sapling is already running on ${folder}. Nothing was changed. Use the one that runs, or stop it first, or choose another folder with KEEN_DATA.`,
    );
  }
  return () => {
    unlock(file);
    closeSync(file);
  };
}

const reasons: Readonly<Record<string, string>> = {
  ENOSPC: "The disk is full. Make room on it",
  EDQUOT: "The disk quota of this user is used up. Make room in it",
  EROFS: "The disk can only be read. Choose another folder with KEEN_DATA",
  EACCES: "This user may not write there. Give it the folder, or choose another with KEEN_DATA",
  EPERM: "This user may not write there. Give it the folder, or choose another with KEEN_DATA",
  ENOTDIR: "It is a file, not a folder. Choose another with KEEN_DATA",
  EEXIST: "It is a file, not a folder. Choose another with KEEN_DATA",
};

/** Codes of the embedded database's own system, and the database's, as the system would say them. */
const otherCodes: Readonly<Record<string, string>> = {
  2: "EACCES",
  19: "EDQUOT",
  51: "ENOSPC",
  63: "EPERM",
  69: "EROFS",
  "53100": "ENOSPC",
};

/** What the system says of a folder that cannot be used, in a sentence; any other error as it is. */
export function inWords(error: unknown, folder: string): unknown {
  const { code, name, errno } = (error ?? {}) as { code?: unknown; name?: unknown; errno?: unknown };
  const said = name === "ErrnoError" ? otherCodes[String(errno)] : (otherCodes[String(code)] ?? code);
  const reason = typeof said === "string" ? reasons[said] : undefined;
  if (reason === undefined) return error;
  return new CannotOpen(`The folder ${folder} cannot be used. ${reason}, and start again. Nothing was lost.`);
}
