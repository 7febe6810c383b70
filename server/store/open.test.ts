import { spawn } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { firstSchool } from "../testing.ts";
import { CannotOpen, holdFolder, inWords } from "./lock.ts";
import { openStore } from "./open.ts";

const folder = mkdtempSync(join(tmpdir(), "keen-open-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test("what was written is there after closing and opening, and migrating twice changes nothing", async () => {
  const first = await openStore({ folder });
  await (await firstSchool(first)).settings.change({ name: "Marlpit Lock School" }, null);
  await expect(openStore({ folder })).rejects.toThrow(CannotOpen);
  await first.close();
  const second = await openStore({ folder });
  expect((await (await firstSchool(second)).settings.read()).name).toBe("Marlpit Lock School");
  await second.close();
  const fresh = await openStore({ folder, fresh: true });
  expect((await (await firstSchool(fresh)).settings.read()).name).toBe("");
  await fresh.close();
});

/** A process that tries to hold the folder, says whether it does, and stays. */
function holder(here: string, env: NodeJS.ProcessEnv = {}) {
  const code = `import("${join(import.meta.dirname, "lock.ts")}").then((m) => { try { m.holdFolder(${JSON.stringify(here)}); process.send("held"); } catch (error) { process.send(error.name); } setInterval(() => {}, 1000); })`;
  const child = spawn(process.execPath, ["--import", "tsx", "-e", code], {
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, ...env },
  });
  return { child, said: once(child, "message").then(([said]) => String(said)) };
}

test("one of several processes holds a folder, whatever their temporary directory; after kill -9 it is free", async () => {
  const here = mkdtempSync(join(tmpdir(), "keen-lock-"));
  const other = mkdtempSync(join(tmpdir(), "keen-lock-tmp-"));
  const racing = [{}, { TMPDIR: other }, {}, { TMPDIR: other }].map((env) => holder(here, env));
  const said = await Promise.all(racing.map((one) => one.said));
  expect([...said].sort()).toEqual(["CannotOpen", "CannotOpen", "CannotOpen", "held"]);
  expect(() => holdFolder(here)).toThrow(/already running/);
  for (const { child } of racing) {
    child.kill("SIGKILL");
    await once(child, "exit");
  }
  const release = holdFolder(here);
  release();
  holdFolder(here)();
  expect(existsSync(join(here, "lock"))).toBe(true);
  for (const one of [here, other]) rmSync(one, { recursive: true });
});

test("a folder that cannot be used is told in a sentence", async () => {
  const file = join(mkdtempSync(join(tmpdir(), "keen-file-")), "file");
  writeFileSync(file, "");
  await expect(openStore({ folder: file })).rejects.toThrow(/It is a file, not a folder/);
  const full = Object.assign(new Error("ENOSPC: no space left on device, write"), { code: "ENOSPC" });
  expect(inWords(full, "/school")).toMatchObject({
    name: "CannotOpen",
    message:
      "The folder /school cannot be used. The disk is full. Make room on it, and start again. Nothing was lost.",
  });
  expect(inWords(Object.assign(new Error(), { code: "EROFS" }), "/school")).toBeInstanceOf(CannotOpen);
  const other = new Error("something else");
  expect(inWords(other, "/school")).toBe(other);
});
