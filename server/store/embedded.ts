import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
} from "node:fs";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGzip } from "node:zlib";
import { PGlite } from "@electric-sql/pglite";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import type { Signals } from "../frame/signals.ts";
import { databaseFrom, emptyEmbedded } from "./copies.ts";
import { bootOfMachine, syncFile, syncFolder, writeWhole } from "./disk.ts";
import { type Durably, durable, keepNumber, numberOf, replay } from "./durable.ts";
import { DamagedJournal, entriesAfter, openJournal } from "./journal.ts";
import { CannotOpen, holdFolder, inWords } from "./lock.ts";
import type { OpenStore } from "./opened.ts";
import { prepared } from "./prepared.ts";
import * as schema from "./schema.ts";

/** One process holds the embedded database: there is no one to tell. */
const noOne: Signals = { me: null, tell: () => undefined, listen: () => undefined };
const alone: OpenStore["alone"] = async (_name, work) => {
  await work();
  return true;
};

/** A database in memory that keeps nothing. @param snapshot of another one, to begin from */
export async function openMemory(snapshot: Blob | undefined, migrationsFolder: string): Promise<OpenStore> {
  const client = new PGlite(snapshot ? { loadDataDir: snapshot } : {});
  await migrate(drizzle(client, { schema }), { migrationsFolder });
  const db = drizzle(prepared(client), { schema });
  return {
    db,
    owner: db,
    accounts: db,
    kind: "embedded",
    signals: noOne,
    dump: async () => undefined,
    alone,
    close: () => client.close(),
  };
}

/**
 * Bytes of the journal after which the database is dumped and the journal cut: some ten thousand marks. A database whose last
 * dump is larger waits until the journal is as large, so that what dumps cost grows with what is written and no faster.
 */
export const mostJournalAfter = (lastDump: number): number => Math.max(16_000_000, lastDump);
/** Between two tries to write to a disk that was full. */
const AGAIN_MS = 1000;

export interface FolderWanted {
  readonly fresh: boolean;
  readonly migrationsFolder: string;
  /** Told in a sentence what was done to get the data back. */
  readonly says?: ((sentence: string) => void) | undefined;
  /** Bytes of the journal after which it is dumped, by the bytes of the last dump; for tests. */
  readonly mostJournal?: ((lastDump: number) => number) | undefined;
}

/**
 * The database of a folder, held for this process. What was acknowledged is on the disk: after the process was killed what
 * the database lacks is done again from the journal; after the machine went down, or when the database does not open, it is
 * made anew from the last dump and the journal.
 * @throws CannotOpen when another process holds the folder, it cannot be written, or the data cannot be read
 */
export async function openFolder(folder: string, wanted: FolderWanted): Promise<OpenStore> {
  let release = () => {};
  try {
    // It names children: no one else on the machine is to read it.
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    release = holdFolder(folder);
    if (wanted.fresh)
      for (const name of readdirSync(folder))
        if (/^(?:pg|boot|dump-|journal-)/.test(name)) rmSync(join(folder, name), { recursive: true, force: true });
    const { client, number } = await recovered(folder, wanted.says ?? (() => undefined));
    const before = await migrationsOf(client);
    await migrate(drizzle(client, { schema }), { migrationsFolder: wanted.migrationsFolder });
    if (number === null) await keepNumber(client, lastNumber(folder));
    const migrated = before !== (await migrationsOf(client));
    return await journalled(folder, client, { ...wanted, migrated, release });
  } catch (error) {
    release();
    if (error instanceof DamagedJournal)
      throw new CannotOpen(
        `The journal in ${folder} is damaged, and what follows the damage cannot be trusted. Nothing was changed. Put a backup back: npm run restore -- FILE`,
      );
    throw inWords(error, folder);
  }
}

const dumps = /^dump-(\d{12})\.tar\.gz$/;
const dumpsIn = (folder: string) =>
  readdirSync(folder)
    .flatMap((name) => {
      const number = dumps.exec(name)?.[1];
      return number === undefined ? [] : [{ path: join(folder, name), number: Number(number) }];
    })
    .sort((one, other) => other.number - one.number);

/** The number after which the journal of a folder goes on that no database knows of. */
function lastNumber(folder: string): number {
  return dumpsIn(folder)[0]?.number ?? 0;
}

async function migrationsOf(client: PGlite): Promise<number> {
  const { rows } = await client.query<{ there: boolean }>(
    "select to_regclass('drizzle.__drizzle_migrations') is not null as there",
  );
  if (!rows[0]?.there) return 0;
  const found = await client.query<{ count: number }>(
    "select count(*)::int as count from drizzle.__drizzle_migrations",
  );
  return found.rows[0]?.count ?? 0;
}

/** The database with everything that was acknowledged. */
async function recovered(
  folder: string,
  says: (sentence: string) => void,
): Promise<{ client: PGlite; number: number | null }> {
  const data = join(folder, "pg");
  const [dump] = dumpsIn(folder);
  const boot = bootOfMachine();
  const bootFile = join(folder, "boot");
  const wasBoot = existsSync(bootFile) ? readFileSync(bootFile, "utf8") : null;
  // What the embedded database has not flushed, which is all of it, is sure only while the machine runs.
  const sure = dump === undefined || (boot !== null && boot === wasBoot);
  const wasThere = existsSync(data);
  const anew = "The database did not open. It is made anew from the last dump and the journal.";
  let client: PGlite | undefined;
  let number: number | null = null;
  if (dump && !wasThere) says(anew);
  else if (sure) {
    try {
      client = wasThere ? await PGlite.create(data) : await emptyEmbedded(data);
      number = await numberOf(client);
      // An empty one in the place of what was there.
      if (number === null && dump) throw new Error("nothing of it is there");
    } catch (error) {
      if (!dump) {
        // Half a database would stand in the way of the next start.
        if (!wasThere) rmSync(data, { recursive: true, force: true });
        throw error;
      }
      await client?.close().catch(() => undefined);
      client = undefined;
      says(anew);
    }
  }
  if (!client && dump) {
    const aside = join(folder, "pg-before");
    rmSync(aside, { recursive: true, force: true });
    if (existsSync(data)) renameSync(data, aside);
    client = await databaseFrom(dump.path, data);
    number = await numberOf(client);
    rmSync(aside, { recursive: true, force: true });
  }
  if (!client) throw new Error("no database");
  const missing = entriesAfter(folder, number ?? lastNumber(folder));
  if (missing.length > 0) {
    await replay(client, missing);
    says(`${missing.length} writes that the database lacked were done again from the journal.`);
  }
  if (boot !== null && boot !== wasBoot) writeWhole(bootFile, boot);
  return { client, number };
}

interface JournalledWanted extends FolderWanted {
  readonly migrated: boolean;
  readonly release: () => void;
}

/** Puts the journal around a database that is as it should be. */
async function journalled(
  folder: string,
  client: PGlite,
  { migrated, release, mostJournal = mostJournalAfter }: JournalledWanted,
): Promise<OpenStore> {
  const first = (await numberOf(client)) ?? 0;
  const journal = openJournal(folder, first + 1);
  const lastDump = dumpsIn(folder)[0];
  let dumped = lastDump ? statSync(lastDump.path).size : 0;
  let [broken, closed, dumping]: [boolean, boolean, Promise<void> | undefined] = [false, false, undefined];

  /** A dump is on the disk before anything of the journal is cut. */
  async function dumpNow(): Promise<void> {
    // Within a transaction, so that none is open between its entry in the journal and its commit.
    const { blob, number } = await client.transaction(async () => {
      // Writes that come meanwhile go into the next file, and stay when this one is cut.
      journal.turn(by.number + 1);
      return { blob: await client.dumpDataDir("none"), number: by.number };
    });
    const path = join(folder, `dump-${String(number).padStart(12, "0")}.tar.gz`);
    try {
      await pipeline(
        Readable.fromWeb(blob.stream() as never),
        createGzip({ level: 1 }),
        createWriteStream(`${path}.new`),
      );
      await syncFile(`${path}.new`);
      renameSync(`${path}.new`, path);
      syncFolder(folder);
    } catch (error) {
      rmSync(`${path}.new`, { force: true });
      throw error;
    }
    for (const old of dumpsIn(folder)) if (old.path !== path) rmSync(old.path);
    journal.cut(number);
    dumped = statSync(path).size;
  }
  const dump = (): Promise<void> => {
    dumping ??= dumpNow().finally(() => {
      dumping = undefined;
    });
    return dumping;
  };

  /** Tries to get everything onto the disk until it is there. */
  function mend(): void {
    setTimeout(() => {
      if (closed) return;
      dump().then(() => {
        broken = false;
      }, mend);
    }, AGAIN_MS).unref();
  }

  const by: Durably = {
    journal,
    number: first,
    ready: () => {
      if (broken) throw Object.assign(new Error("The disk is full"), { code: "ENOSPC" });
    },
    failed: () => {
      if (broken) return;
      broken = true;
      mend();
    },
    wrote: () => {
      if (journal.size > mostJournal(dumped) && !dumping) dump().catch(() => undefined);
    },
  };
  if (migrated || dumpsIn(folder).length === 0) await dump();
  const db = drizzle(durable(prepared(client), by), { schema });
  return {
    db,
    owner: db,
    accounts: db,
    kind: "embedded",
    signals: noOne,
    dump,
    alone,
    close: async () => {
      closed = true;
      await dumping?.catch(() => undefined);
      await client.close();
      journal.close();
      release();
    },
  };
}
