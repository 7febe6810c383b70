import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { schoolSettings, setSchool } from "./classes.ts";
import { FolderInUse, holdFolder } from "./lock.ts";
import { openStore } from "./open.ts";

const folder = mkdtempSync(join(tmpdir(), "keen-open-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("what was written is there after closing and opening, and migrating twice changes nothing", async () => {
  const first = await openStore({ folder });
  await setSchool(first.db, { name: "Marlpit Lock School" });
  await expect(openStore({ folder })).rejects.toThrow(FolderInUse);
  await first.close();
  const second = await openStore({ folder });
  expect((await schoolSettings(second.db)).name).toBe("Marlpit Lock School");
  await second.close();
  const fresh = await openStore({ folder, fresh: true });
  expect((await schoolSettings(fresh.db)).name).toBe("");
  await fresh.close();
});

test("a folder whose holder was killed with -9 can be held again", async () => {
  const here = mkdtempSync(join(tmpdir(), "keen-lock-"));
  const code = `import("${join(import.meta.dirname, "lock.ts")}").then(async (m) => { await m.holdFolder(${JSON.stringify(here)}); setInterval(() => {}, 1000); process.send("held"); })`;
  const holder = spawn(process.execPath, ["--import", "tsx", "-e", code], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
  });
  await once(holder, "message");
  await expect(holdFolder(here)).rejects.toThrow(/already running/);
  holder.kill("SIGKILL");
  await once(holder, "exit");
  const release = await holdFolder(here);
  await release();
  rmSync(here, { recursive: true });
});
