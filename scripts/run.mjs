// Starts a school on this machine: installs, builds and opens what is needed first.
import { spawn, spawnSync } from "node:child_process";
import { join, resolve } from "node:path";
import { build, installPackages, root, serverFile } from "./prepare.mjs";

/**
 * Runs the server until it is stopped. `folder` is where the school's data lie unless KEEN_DATA says otherwise; with
 * `demo` an empty school is filled with the demo data, and --fresh empties it first.
 */
export async function runSchool({ folder: usual, demo }) {
  const [major] = process.versions.node.split(".").map(Number);
  if (major < 20) {
    console.error(`Node ${process.versions.node} is too old: Keen Sapling needs Node 20 or newer.`);
    process.exit(1);
  }
  const fresh = process.argv.includes("--fresh");
  if (fresh && !demo) {
    console.error("A school is not emptied by --fresh: that is for the demo. Nothing was done.");
    process.exit(1);
  }
  installPackages();
  await build();

  const port = process.env.PORT ?? "4310";
  const folder = resolve(process.env.KEEN_DATA ?? join(root, usual));
  console.log("Opening the database …");
  const server = spawn(process.execPath, [serverFile], {
    cwd: root,
    stdio: ["ignore", "inherit", "inherit", "ipc"],
    env: { ...process.env, PORT: port, KEEN_DATA: folder, KEEN_FRESH: fresh ? "1" : "", KEEN_DEMO: demo ? "1" : "" },
  });
  const stop = () => server.kill("SIGTERM");
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
  server.on("exit", (code) => process.exit(code ?? 0));
  // Null when it ended before it listened; it has said why.
  const ready = await new Promise((done) => {
    server.on("message", (message) => message === "ready" && done(true));
    server.on("exit", () => done(false));
  });
  if (!ready) return;

  if (demo) {
    const fill = join(root, "scripts", "fill.ts");
    const filled = spawnSync(process.execPath, ["--import", "tsx", fill, `http://127.0.0.1:${port}`], {
      cwd: root,
      stdio: "inherit",
    });
    if (filled.status !== 0)
      console.error(
        "The demo data could not be filled in. What is there is kept; npm run demo -- --fresh starts anew.",
      );
  }
  const where = process.env.DATABASE_URL ? "" : ` Its data lie in ${folder}.`;
  console.log(
    `\nKeen Sapling is at http://localhost:${port}\n${demo ? "Come in there as the lead, a teacher or an assistant. " : ""}${process.env.KEEN_ORIGIN ? "" : "It answers on this machine only; docs/running.md says how others reach it."}${where} Ctrl-C stops it; everything is kept.`,
  );
}
