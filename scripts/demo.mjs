// npm run demo: from a fresh clone to a school that can be used, in one command.
import { spawn, spawnSync } from "node:child_process";
import { join, resolve } from "node:path";
import { build, installPackages, root, serverFile } from "./prepare.mjs";

const [major] = process.versions.node.split(".").map(Number);
if (major < 20) {
  console.error(`Node ${process.versions.node} is too old: Keen Sapling needs Node 20 or newer.`);
  process.exit(1);
}

installPackages();
build();

const port = process.env.PORT ?? "4310";
const folder = resolve(process.env.KEEN_DATA ?? join(root, ".keen"));
const fresh = process.argv.includes("--fresh");

/** Starts the server and waits until it listens. Resolves to null when it ended before that. */
function startServer() {
  const server = spawn(process.execPath, [serverFile], {
    cwd: root,
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, PORT: port, KEEN_DATA: folder, KEEN_FRESH: fresh ? "1" : "" },
  });
  const ready = new Promise((done) => {
    server.on("message", (message) => message === "ready" && done(server));
    server.on("exit", () => done(null));
  });
  return { server, ready };
}

console.log("Opening the database …");
const { server, ready } = startServer();
const stop = () => server.kill("SIGTERM");
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
server.on("exit", (code) => process.exit(code ?? 0));

if (await ready) {
  const filled = spawnSync(
    process.execPath,
    ["--import", "tsx", join(root, "scripts", "fill.ts"), `http://127.0.0.1:${port}`],
    { cwd: root, stdio: "inherit" },
  );
  if (filled.status !== 0) {
    console.error(
      "The demo data could not be filled in. What is there is kept; npm run demo -- --fresh starts anew.",
    );
  }
  console.log(
    `\nKeen Sapling is at http://localhost:${port}\nIt answers on this machine only, until people and sign-in come. Ctrl-C stops it; everything is kept.`,
  );
}
