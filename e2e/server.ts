import { spawn } from "node:child_process";
import { once } from "node:events";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { basename, join, resolve } from "node:path";

const root = resolve(import.meta.dirname, "..");
export const filledFolder = join(tmpdir(), "keen-e2e-filled");
export const emptyFolder = join(tmpdir(), "keen-e2e-empty");
/** The folder of the server that all tests share. */
export const schoolsFolder = join(tmpdir(), "keen-e2e-schools");
/** An empty folder in it for each school of that server which a test has taken. */
export const schoolTaken = join(tmpdir(), "keen-e2e-taken");
/** Schools of that server that no one has set up, one a test. */
export const SCHOOLS_WITHOUT_DATA = Array.from({ length: 16 }, (_, at) => `bare-${at + 1}`);
/** The host name of the school of a file of tests. @example slugOfFile("e2e/check.spec.ts") // "of-check" */
export const slugOfFile = (file: string): string => `of-${basename(file, ".spec.ts")}`;

/** A running Keen Sapling, as `npm run demo` starts it, without the demo data. */
export interface RunningServer {
  readonly base: string;
  readonly pid: number | undefined;
  /** What it printed so far. */
  said(): string;
  /** Asks it to end, as Ctrl-C does. */
  stop(): Promise<void>;
  /** kill -9. */
  kill(): Promise<void>;
}

export async function freePort(): Promise<number> {
  const server = createServer().listen(0, "127.0.0.1");
  await once(server, "listening");
  const address = server.address();
  server.close();
  await once(server, "close");
  return typeof address === "object" && address ? address.port : 0;
}

interface StartWanted {
  /** Serves the application that lies there instead of the one that was built. */
  readonly web?: string;
  /** A PostgreSQL server instead of the folder. */
  readonly url?: string;
}

/** Starts the built server on a folder of data. */
export async function startServer(
  folder: string,
  port: number,
  { web, url = "" }: StartWanted = {},
): Promise<RunningServer> {
  const child = spawn(process.execPath, [join(root, "dist-server", "main.js")], {
    cwd: root,
    stdio: ["ignore", "pipe", "pipe", "ipc"],
    env: {
      ...process.env,
      PORT: String(port),
      KEEN_DATA: folder,
      DATABASE_URL: url,
      ...(web ? { KEEN_WEB: web } : {}),
    },
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (part) => (said += String(part)));
  await new Promise<void>((done, failed) => {
    child.on("message", (message) => message === "ready" && done());
    child.on("exit", (code) => failed(new Error(`The server ended with ${code} before it listened: ${said}`)));
  });
  let asked = false;
  child.on("exit", (code, signal) => {
    if (!asked) console.error(`The server ended by itself with ${code ?? signal}: ${said}`);
  });
  const end = async (signal: NodeJS.Signals) => {
    asked = true;
    if (child.exitCode !== null || child.signalCode !== null) return;
    const gone = once(child, "exit");
    child.kill(signal);
    await gone;
  };
  return {
    base: `http://127.0.0.1:${port}`,
    pid: child.pid,
    said: () => said,
    stop: () => end("SIGTERM"),
    kill: () => end("SIGKILL"),
  };
}
