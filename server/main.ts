import { createServer } from "node:http";
import { createServer as createSecureServer } from "node:https";
import { extname, join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import pino from "pino";
import { buildApp } from "./app.ts";
import { BadBackup, backupOf } from "./care/backup.ts";
import { careCommand } from "./care/command.ts";
import { wind } from "./frame/clockwork.ts";

import { poolOfJobs } from "./frame/jobs.ts";
import { keeping } from "./frame/jobs-kept.ts";
import { CannotListen, networkOf } from "./frame/network.ts";
import { loggedError } from "./frame/trouble.ts";
import { answerUnreadable } from "./frame/unreadable.ts";
import { openHouse, type School } from "./house.ts";
import { type jobTable, keptJobs } from "./jobs.ts";
import { openAccounts } from "./people/accounts.ts";
import { schoolCommand } from "./people/command.ts";
import { openDoor } from "./people/door.ts";
import { openEntrance } from "./people/entrance.ts";
import { postOf } from "./people/post.ts";
import { CannotMake } from "./people/schools.ts";
import { setUpAddresses } from "./people/set-up.ts";
import { triesOn } from "./people/tries.ts";
import { readShipped } from "./shipped.ts";
import { CannotOpen } from "./store/lock.ts";
import { openStore } from "./store/open.ts";

// As it stands in `server/`, and as it is built in `dist-server/`.
const root = resolve(import.meta.dirname, "..");
const log = pino({ level: process.env.KEEN_LOG ?? "warn" });
const port = Number(process.env.PORT ?? 4310);
const folder = resolve(process.env.KEEN_DATA ?? join(root, ".keen"));

/** What a thread of the pool is started with, beside this file in either place. */
const threadEntry = pathToFileURL(join(import.meta.dirname, `jobs-thread${extname(import.meta.filename)}`));

const migrations = join(root, "server", "store", "migrations");

/** What was removed can be brought back for ten seconds; a page that was left open may ask later. */
const KEPT_REMOVED_MS = 24 * 3_600_000;

/** A note is shown until its last day, and goes for good a month later. */
const KEPT_ENDED_MS = 30 * 24 * 3_600_000;

const TIDY_MS = 3_600_000;

/** What was removed and not brought back goes for good, and what a school year found that cannot be taken back. */
async function tidy(school: School): Promise<void> {
  const before = new Date(Date.now() - KEPT_REMOVED_MS).toISOString();
  await school.together(async () => {
    await school.sessions.forgetRemoved(before);
    await school.texts.forgetRemoved(before);
    const day = await school.settings.dayOf(new Date(Date.now() - KEPT_ENDED_MS));
    await school.notes.forgetGone({ at: before, day });
    await school.years.forgetBefore(before);
    await school.outbox.clear(new Date());
    const { keeping } = await school.settings.read();
    await school.trail.forgetOld(keeping.trailMonths, new Date());
  });
}

/** Opens the database, serves, and closes both when asked to stop. */
async function main(): Promise<void> {
  const network = networkOf(process.env);
  const post = postOf(process.env);
  if (process.env.KEEN_FRESH === "1" && process.env.DATABASE_URL) {
    console.log("A PostgreSQL server is never emptied from here, so nothing was removed.");
  }
  const shipped = readShipped(join(root, "data"));
  const store = await openStore({
    folder,
    url: process.env.DATABASE_URL,
    fresh: process.env.KEEN_FRESH === "1",
    migrations,
    says: (sentence) => log.warn(sentence),
  });
  const house = openHouse(store, shipped);
  const door = openDoor(store.db);
  const accounts = await openAccounts(
    store.accounts,
    network.origin?.origin ?? `http://localhost:${port}`,
    store.signals,
  );
  const entrance = openEntrance({ door, accounts, house, network, signals: store.signals });
  const eachSchool = async (work: (school: School) => Promise<void>) => {
    for (const schoolId of await door.schools()) await work(house.as({ schoolId }));
  };
  // The orders that ship are those of this program, before anyone asks for them.
  await eachSchool((school) => school.orders.ship());
  await store.alone("tidy", () => eachSchool(tidy));
  const stopClock = wind({
    alone: store.alone,
    everyMs: TIDY_MS,
    works: { tidy: () => eachSchool(tidy) },
    failed: (name, error) => log.error({ work: name, ...loggedError(error) }, "not done by the clock"),
  });
  const web = process.env.KEEN_WEB === "none" ? undefined : resolve(process.env.KEEN_WEB ?? join(root, "dist"));
  const pool = poolOfJobs<typeof jobTable>({ entry: threadEntry, workerData: { data: join(root, "data") } });
  const jobs = keeping(pool, keptJobs);
  const app = buildApp({
    jobs,
    signals: store.signals,
    backup: backupOf(store),
    house,
    accounts,
    post,
    entrance,
    network,
    openTries: triesOn(store),
    shipped,
    now: () => new Date(),
    log,
    web,
  });
  const server = network.tls ? createSecureServer(network.tls, app) : createServer(app);
  server.on("error", (error) => {
    console.error(`Port ${port} cannot be used (${error.message}). Choose another: PORT=4311 npm run demo`);
    void store.close().finally(() => process.exit(1));
  });
  server.listen(port, network.host, async () => {
    if (process.send) process.send("ready");
    else
      console.log(
        network.origin
          ? `Keen Sapling is at ${network.origin.origin}`
          : `Keen Sapling is at http://localhost:${port} (this machine only; docs/running.md says how others reach it).`,
      );
    if (process.env.KEEN_DEMO !== "1")
      for (const line of await setUpAddresses({
        door,
        house,
        origin: network.origin?.origin ?? `http://localhost:${port}`,
      }))
        console.log(line);
  });

  answerUnreadable(server);
  // A browser keeps a line for about a minute; one that is closed under it costs a failed request.
  server.keepAliveTimeout = 75_000;
  server.headersTimeout = 80_000;

  let closing = false;
  const stop = () => {
    if (closing) return;
    closing = true;
    server.close(async () => {
      await stopClock();
      await jobs.close();
      await store.close();
      process.exit(0);
    });
    server.closeAllConnections();
  };
  process.on("SIGINT", stop);
  process.on("SIGTERM", stop);
  // Started by another program: end with it, also when that one was killed.
  if (process.send) process.on("disconnect", stop);
}

/** `npm run school`: opens the same database, does one thing and closes it. */
async function school(words: readonly string[]): Promise<void> {
  const here = networkOf(process.env).origin?.origin ?? `http://localhost:${port}`;
  const store = await openStore({ folder, url: process.env.DATABASE_URL, migrations });
  try {
    console.log(await schoolCommand(store, openHouse(store, readShipped(join(root, "data"))), words, here));
  } finally {
    await store.close();
  }
}

/** `npm run backup`, `restore` and `move`. */
async function care(words: readonly string[]): Promise<void> {
  const shipped = readShipped(join(root, "data"));
  const place = { folder, url: process.env.DATABASE_URL };
  console.log(await careCommand({ place, migrations, shipped, now: new Date() }, words));
}

const [command, ...words] = process.argv.slice(2);
(command === "school" ? school(words) : command === "care" ? care(words) : main()).catch((error: unknown) => {
  if (
    error instanceof CannotOpen ||
    error instanceof CannotMake ||
    error instanceof BadBackup ||
    error instanceof CannotListen
  )
    console.error(error.message);
  else console.error("Keen Sapling could not start:", error);
  process.exit(1);
});
