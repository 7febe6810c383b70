// npm test: every check, on a fresh clone, with no network but the package registries and no monitor.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { build, installPackages, root, run } from "./prepare.mjs";

/** Debian's chromium, installed when it is not there. KEEN_CHROMIUM names another one. */
function installChromium() {
  const path = process.env.KEEN_CHROMIUM ?? "/usr/bin/chromium";
  if (existsSync(path)) return;
  console.log("Installing chromium …");
  const quiet = {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
  };
  run("apt-get", ["update", "-qq"], quiet);
  run("apt-get", ["install", "-y", "-qq", "--no-install-recommends", "chromium"], quiet);
}

function told(name, status, began) {
  console.log(`== ${name}: ${status === 0 ? "good" : "failed"} after ${Math.round((Date.now() - began) / 1000)} s`);
  if (status !== 0) failed.push(name);
}

function step(name, command, args) {
  console.log(`\n== ${name}`);
  const began = Date.now();
  told(name, spawnSync(command, args, { cwd: root, stdio: "inherit" }).status, began);
}

/** Checks that only read, side by side; what each says is printed in one piece when it has ended. */
async function sideBySide(steps) {
  await Promise.all(
    Object.entries(steps).map(async ([name, [command, ...args]]) => {
      const began = Date.now();
      let said = "";
      const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"] });
      for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => (said += String(part)));
      const status = await new Promise((done) => child.on("close", done).on("error", () => done(1)));
      console.log(`\n== ${name}\n${said.trimEnd()}`);
      told(name, status, began);
    }),
  );
}

const failed = [];
const results = join(root, "test-results");
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
installPackages();
installChromium();

const rooms = ["core", "contract", "server", "web", "demo", "scripts", "e2e"];
await sideBySide({
  "format and lint": ["npx", "biome", "check", "--error-on-warnings", "."],
  types: ["npx", "tsc", "--noEmit"],
  "room boundaries": ["npx", "depcruise", "--config", ".dependency-cruiser.cjs", ...rooms],
  "unused code": ["npx", "knip"],
});
step("unit tests", "npx", [
  "vitest",
  "run",
  "--reporter=default",
  "--reporter=json",
  "--outputFile.json=test-results/unit.json",
]);
build();
step("end-to-end tests", "npx", ["playwright", "test"]);

function counts() {
  const read = (file) =>
    existsSync(join(results, file)) ? JSON.parse(readFileSync(join(results, file), "utf8")) : undefined;
  const unit = read("unit.json");
  const e2e = read("e2e.json")?.stats;
  return {
    passed: (unit?.numPassedTests ?? 0) + (e2e?.expected ?? 0) + (e2e?.flaky ?? 0),
    failed: (unit?.numFailedTests ?? 0) + (e2e?.unexpected ?? 0),
  };
}

const { passed, failed: failures } = counts();
if (failed.length > 0) console.log(`\nNot good: ${failed.join(", ")}`);
console.log(`\n${passed} passed, ${failures} failed`);
process.exit(failed.length > 0 ? 1 : 0);
