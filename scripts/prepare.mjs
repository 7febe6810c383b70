// What every command needs before it runs: packages, and a build that is as new as its sources.
// Plain JavaScript, since it runs before anything is installed.
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, relative, resolve } from "node:path";

export const root = resolve(import.meta.dirname, "..");
const cache = join(root, "node_modules", ".cache", "keen");

/** Runs a program with its output on the terminal. Ends this process with its code when it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: "inherit", ...options });
  if (error) {
    console.error(`${command} could not be started: ${error.message}`);
    process.exit(1);
  }
  if (status !== 0) process.exit(status ?? 1);
}

function hashOf(paths) {
  const hash = createHash("sha256");
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) add(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const path of paths) add(join(root, path));
  return hash.digest("hex");
}

function isFresh(name, value, product) {
  const stamp = join(cache, name);
  return existsSync(join(root, product)) && existsSync(stamp) && readFileSync(stamp, "utf8") === value;
}

function remember(name, value) {
  mkdirSync(cache, { recursive: true });
  writeFileSync(join(cache, name), value);
}

/** Installs the packages of the lock file when they are not there or the lock file is another. */
export function installPackages() {
  const value = hashOf(["package-lock.json"]);
  if (isFresh("installed", value, "node_modules")) return;
  console.log("Installing packages …");
  run("npm", ["install", "--no-save", "--no-audit", "--no-fund", "--loglevel=error"]);
  remember("installed", value);
}

/** What the server runs, built. */
export const serverFile = join(root, "dist-server", "main.js");

/** An empty database from which new ones are copied. */
export const emptyDatabaseFile = join(root, "dist-empty", "database.tar.gz");

/** Builds the web application and the server when a source of one is newer than its build. */
export function build() {
  const shared = ["core", "contract", "package-lock.json"];
  const web = hashOf([...shared, "web", "vite.config.ts"]);
  if (!isFresh("built", web, "dist/index.html")) {
    console.log("Building the web application …");
    run("npx", ["vite", "build", "--logLevel", "warn"]);
    remember("built", web);
  }
  const server = hashOf([...shared, "server", "vite.server.config.ts"]);
  if (!isFresh("built-server", server, "dist-server/main.js")) {
    console.log("Building the server …");
    run("npx", ["vite", "build", "--config", "vite.server.config.ts", "--logLevel", "warn"]);
    remember("built-server", server);
  }
  const empty = hashOf(["package-lock.json", "scripts/empty-database.mjs"]);
  if (!isFresh("empty", empty, relative(root, emptyDatabaseFile))) {
    run("node", [join(root, "scripts", "empty-database.mjs")]);
    remember("empty", empty);
  }
}
