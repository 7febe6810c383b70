// npm test: checks of every kind on a fresh clone in less than ten minutes, with no network but the package registries and no
// monitor. `npm test -- all` leaves nothing out but the long runs (`npm run test:long`). `npm run lint`, `types`, `unit` and
// `e2e` run a part alone, and all of it; what follows `--` of unit and e2e is handed on to their runners.
import { spawn, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { join, relative } from "node:path";
import { chromium } from "./chromium.mjs";
import { build, installPackages, root, run, serverFile } from "./prepare.mjs";

/** Debian's chromium, installed when it is not there. */
function installChromium() {
  if (existsSync(chromium())) return;
  console.log("Installing chromium …");
  const quiet = {
    stdio: ["ignore", "ignore", "inherit"],
    env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
  };
  run("apt-get", ["update", "-qq"], quiet);
  const install = ["install", "-y", "-qq", "--no-install-recommends"];
  // An older Debian has only the whole one.
  if (spawnSync("apt-get", [...install, "chromium-headless-shell"], quiet).status !== 0)
    run("apt-get", [...install, "chromium"], quiet);
}

/** Seconds that each part should take on two cores. */
const budgets = {
  short: { static: 40, build: 30, unit: 240, "end-to-end": 240, all: 600 },
  all: { static: 40, build: 30, unit: 600, "end-to-end": 1200, all: 1900 },
};
const took = {};
const began = Date.now();

function told(name, status, since) {
  console.log(`== ${name}: ${status === 0 ? "good" : "failed"} after ${Math.round((Date.now() - since) / 1000)} s`);
  if (status !== 0) failed.push(name);
}

/** Runs a part and remembers what it took. */
async function part(name, work) {
  const since = Date.now();
  await work();
  took[name] = Math.round((Date.now() - since) / 1000);
}

function step(name, command, args) {
  console.log(`\n== ${name}`);
  const since = Date.now();
  told(name, spawnSync(command, args, { cwd: root, stdio: "inherit" }).status, since);
}

/** Checks that only read, side by side; what each says is printed in one piece when it has ended. */
async function sideBySide(steps) {
  await Promise.all(
    Object.entries(steps).map(async ([name, [command, ...args]]) => {
      const since = Date.now();
      let said = "";
      const child = spawn(command, args, { cwd: root, stdio: ["ignore", "pipe", "pipe"] });
      for (const stream of [child.stdout, child.stderr]) stream.on("data", (part) => (said += String(part)));
      const status = await new Promise((done) => child.on("close", done).on("error", () => done(1)));
      console.log(`\n== ${name}\n${said.trimEnd()}`);
      told(name, status, since);
    }),
  );
}

const failed = [];
const results = join(root, "test-results");
const [asked, ...handedOn] = process.argv.slice(2);
const isShort = asked === undefined;
const isWhole = isShort || asked === "all";
const wanted = (name) => isWhole || asked === name;
// What each runner leaves out then, its configuration says.
if (isShort) process.env.KEEN_SHORT = "1";
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
installPackages();

const rooms = ["core", "contract", "server", "web", "demo", "scripts", "e2e"];
const looks = {
  lint: { "format and lint": ["npx", "biome", "check", "--error-on-warnings", "."] },
  types: { types: ["npx", "tsc", "--noEmit"] },
};
if (isWhole)
  await part("static", () =>
    sideBySide({
      ...looks.lint,
      ...looks.types,
      "room boundaries": ["npx", "depcruise", "--config", ".dependency-cruiser.cjs", ...rooms],
      "unused code": ["npx", "knip"],
    }),
  );
else if (looks[asked]) await part("static", () => sideBySide(looks[asked]));
// Of the unit tests one kills the server again and again, as it is built.
if (wanted("unit") || wanted("e2e")) await part("build", build);
if (wanted("unit")) {
  process.env.KEEN_BUILT = serverFile;
  await part("unit", () =>
    step("unit tests", "npx", [
      "vitest",
      "run",
      "--reporter=default",
      "--reporter=json",
      "--outputFile.json=test-results/unit.json",
      ...handedOn,
    ]),
  );
}
if (wanted("e2e")) {
  installChromium();
  await part("end-to-end", () => step("end-to-end tests", "npx", ["playwright", "test", ...handedOn]));
}

const read = (file) =>
  existsSync(join(results, file)) ? JSON.parse(readFileSync(join(results, file), "utf8")) : undefined;

/** Which unit tests failed and why, once more at the end: of a long run often nothing but its end is kept. */
function unitFailures() {
  return (read("unit.json")?.testResults ?? []).flatMap(({ name, status, message, assertionResults }) => {
    const file = relative(root, name);
    const tests = assertionResults.filter((one) => one.status === "failed");
    // A file that could not even be read has no tests.
    if (tests.length === 0) return status === "failed" ? [`${file}\n${message}`] : [];
    return tests.map((one) => `${file} › ${one.fullName}\n${one.failureMessages.join("\n")}`);
  });
}

function counts() {
  const unit = read("unit.json");
  const e2e = read("e2e.json")?.stats;
  return {
    passed: (unit?.numPassedTests ?? 0) + (e2e?.expected ?? 0) + (e2e?.flaky ?? 0),
    failed: (unit?.numFailedTests ?? 0) + (e2e?.unexpected ?? 0),
  };
}

for (const failure of unitFailures()) console.log(`\n✘ ${failure.split("\n").slice(0, 30).join("\n    ")}`);
const { passed, failed: failures } = counts();
console.log("\nSeconds, and what each part should take:");
const budget = budgets[isShort ? "short" : "all"];
if (isWhole) took.all = Math.round((Date.now() - began) / 1000);
for (const [name, seconds] of Object.entries(took))
  console.log(`  ${name.padEnd(12)} ${String(seconds).padStart(4)}  of ${String(budget[name]).padStart(4)}`);
if (failed.length > 0) console.log(`\nNot good: ${failed.join(", ")}`);
console.log(`\n${passed} passed, ${failures} failed`);
if (isShort)
  console.log(
    "Left out: page tests without @main, tests on a PostgreSQL server, the longest files. npm test -- all runs them.",
  );
process.exit(failed.length > 0 ? 1 : 0);
