import { createHash } from "node:crypto";
import { realpathSync, rmSync } from "node:fs";
import { connect, createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

export class FolderInUse extends Error {
  constructor(folder: string) {
    super(
      `Another Keen Sapling is already running on ${folder}. Nothing was changed. Use the one that runs, or stop it first, or choose another folder with KEEN_DATA.`,
    );
    this.name = "FolderInUse";
  }
}

/**
 * Holds the folder for this process by listening on a local socket named after it. A socket dies with its
 * process, also after kill -9, so a stale hold never locks a school out.
 * @returns a function that lets go
 */
export async function holdFolder(folder: string): Promise<() => Promise<void>> {
  const name = createHash("sha256").update(realpathSync(folder)).digest("hex").slice(0, 24);
  const address = process.platform === "win32" ? `\\\\.\\pipe\\keen-${name}` : join(tmpdir(), `keen-${name}.sock`);
  const server = createServer((socket) => socket.end());
  if (!(await listens(server, address))) {
    if (await answers(address)) throw new FolderInUse(folder);
    rmSync(address, { force: true });
    if (!(await listens(server, address))) throw new FolderInUse(folder);
  }
  server.unref();
  return () => new Promise((resolve) => server.close(() => resolve()));
}

function listens(server: ReturnType<typeof createServer>, address: string): Promise<boolean> {
  return new Promise((resolve, reject) => {
    const failed = (error: NodeJS.ErrnoException) => (error.code === "EADDRINUSE" ? resolve(false) : reject(error));
    server.once("error", failed);
    server.listen(address, () => {
      server.off("error", failed);
      resolve(true);
    });
  });
}

function answers(address: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(address);
    socket.once("connect", () => {
      socket.destroy();
      resolve(true);
    });
    socket.once("error", () => resolve(false));
  });
}
