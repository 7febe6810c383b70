import { type ChildProcess, spawn } from "node:child_process";
import { once } from "node:events";
import { cpSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { expect, test } from "@playwright/test";
import { filledFolder, freePort } from "./server.ts";

const root = resolve(import.meta.dirname, "..");
const running: ChildProcess[] = [];

interface Demo {
  readonly child: ChildProcess;
  /** Everything it printed so far. */
  said(): string;
  /** Waits until it printed this, or ended. */
  says(text: string): Promise<boolean>;
  readonly ended: Promise<number | null>;
}

/** `npm run demo`, without npm. */
function demo(folder: string, port: number): Demo {
  const child = spawn(process.execPath, [join(root, "scripts", "demo.mjs")], {
    cwd: root,
    env: { ...process.env, KEEN_DATA: folder, PORT: String(port), DATABASE_URL: "" },
  });
  running.push(child);
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream?.on("data", (part) => (said += String(part)));
  const ended = once(child, "exit").then(([code]) => code as number | null);
  return {
    child,
    said: () => said,
    says: async (text) => {
      for (let tries = 0; tries < 300; tries++) {
        if (said.includes(text)) return true;
        if (child.exitCode !== null) return said.includes(text);
        await new Promise((done) => setTimeout(done, 100));
      }
      return false;
    },
    ended,
  };
}

test.afterEach(() => {
  for (const child of running.splice(0)) child.kill("SIGKILL");
});

test("a second start takes no install and no build, keeps all data, and lets no second process in", async () => {
  test.setTimeout(120_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-start-"));
  cpSync(filledFolder, folder, { recursive: true });
  const port = await freePort();
  const children = async () =>
    ((await (await fetch(`http://127.0.0.1:${port}/api/children`)).json()) as unknown[]).length;

  const first = demo(folder, port);
  expect(await first.says(`Keen Sapling is at http://localhost:${port}`)).toBe(true);
  expect(first.said()).not.toMatch(/Installing|Building|Filling/);
  expect(first.said()).toContain("this machine only");
  expect(await children()).toBe(48);

  const second = demo(folder, await freePort());
  expect(await second.ended).toBe(1);
  expect(second.said()).toContain(`Another Keen Sapling is already running on ${folder}. Nothing was changed.`);
  expect(await children()).toBe(48);

  first.child.kill("SIGINT");
  expect(await first.ended).toBe(0);

  const third = demo(folder, port);
  expect(await third.says("Keen Sapling is at")).toBe(true);
  expect(await children()).toBe(48);
  third.child.kill("SIGKILL");
  await third.ended;
  await expect.poll(() => children().catch(() => "gone")).toBe("gone");

  const fourth = demo(folder, port);
  expect(await fourth.says("Keen Sapling is at")).toBe(true);
  expect(await children()).toBe(48);
  fourth.child.kill("SIGINT");
  await fourth.ended;
  rmSync(folder, { recursive: true, force: true });
});

test("a port that is taken is named, with the way out", async () => {
  test.setTimeout(60_000);
  const folder = mkdtempSync(join(tmpdir(), "keen-start-"));
  cpSync(filledFolder, folder, { recursive: true });
  const { createServer } = await import("node:net");
  const holder = createServer().listen(0, "127.0.0.1");
  await once(holder, "listening");
  const address = holder.address();
  const port = typeof address === "object" && address ? address.port : 0;
  const blocked = demo(folder, port);
  expect(await blocked.ended).toBe(1);
  expect(blocked.said()).toContain(`Port ${port} cannot be used`);
  expect(blocked.said()).toContain("PORT=4311 npm run demo");
  holder.close();
  rmSync(folder, { recursive: true, force: true });
});
