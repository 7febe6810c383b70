// What every command needs before it runs: packages, and a build that is as new as its sources.
// Plain JavaScript, since it runs before anything is installed.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { once } from "node:events";
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

/** Runs a program beside others, with its output on the terminal. @returns its exit code */
async function runBeside(command, args) {
  try {
    const [code] = await once(spawn(command, args, { cwd: root, stdio: "inherit" }), "exit");
    return code ?? 1;
  } catch (error) {
    console.error(`${command} could not be started: ${error.message}`);
    return 1;
  }
}

/**
 * Builds side by side what is older than its sources: the web application, the server, the database that is copied. Ends
 * this process when one of them fails.
 */
export async function build() {
  const shared = ["core", "contract", "package-lock.json"];
  const products = [
    {
      says: "Building the web application …",
      stamp: "built",
      sources: [...shared, "web", "vite.config.ts"],
      file: "dist/index.html",
      command: ["npx", "vite", "build", "--logLevel", "warn"],
    },
    {
      says: "Building the server …",
      stamp: "built-server",
      sources: [...shared, "server", "vite.server.config.ts"],
      file: "dist-server/main.js",
      command: ["npx", "vite", "build", "--config", "vite.server.config.ts", "--logLevel", "warn"],
    },
    {
      says: "Making an empty database …",
      stamp: "empty",
      sources: ["package-lock.json", "scripts/empty-database.mjs"],
      file: relative(root, emptyDatabaseFile),
      command: ["node", join("scripts", "empty-database.mjs")],
    },
  ];
  const codes = await Promise.all(
    products.map(async ({ says, stamp, sources, file, command: [program, ...args] }) => {
      const value = hashOf(sources);
      if (isFresh(stamp, value, file)) return 0;
      console.log(says);
      const code = await runBeside(program, args);
      if (code === 0) remember(stamp, value);
      return code;
    }),
  );
  const failed = codes.find((code) => code !== 0);
  if (failed !== undefined) process.exit(failed);
}
