import { createReadStream, createWriteStream, existsSync, mkdtempSync, renameSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { openHouse } from "../house.ts";
import { listSchools } from "../people/schools.ts";
import type { Shipped } from "../shipped.ts";
import { syncFile } from "../store/disk.ts";
import { knownMigrations, migrationsUpTo } from "../store/migrated.ts";
import { openStore } from "../store/open.ts";
import type { OpenStore } from "../store/opened.ts";
import { accountsOf, type CarriedAccounts, putAccounts } from "./accounts.ts";
import { BadBackup, type Digest, digestOf, readBackup, writeBackup } from "./backup.ts";
import { erasedIn, fillFrom } from "./restore.ts";

const usage = `Say what to do:
  npm run backup -- FILE           all schools into one file
  npm run restore -- FILE          puts such a file back; what was there is set aside
  npm run move -- postgres://…     all schools from this folder to an empty database server
  npm run move -- FOLDER           and back, with DATABASE_URL naming the server
The data folder is .keen-school, that of npm start; another by KEEN_DATA, a PostgreSQL server by DATABASE_URL.`;

/** Where the data lie. */
interface Place {
  readonly folder: string;
  readonly url: string | undefined;
}

export interface CareWanted {
  readonly place: Place;
  readonly migrations: string;
  readonly shipped: Shipped;
  readonly now: Date;
}

/** What a digest counts in all. */
const countOf = (digest: Digest) => {
  const schools = Object.keys(digest).filter((key) => key.endsWith(" schools")).length;
  const rows = Object.values(digest).reduce((sum, one) => sum + one.rows, 0);
  return `${schools} ${schools === 1 ? "school" : "schools"}, ${rows.toLocaleString("en-GB")} rows`;
};

/**
 * What `npm run backup`, `restore` and `move` do, in words.
 * @throws BadBackup, CannotOpen with a sentence when it cannot be done; then nothing was changed
 */
export async function careCommand(wanted: CareWanted, [what, target]: readonly string[]): Promise<string> {
  if (!target) return usage;
  if (what === "backup") return backup(wanted, resolve(target));
  if (what === "restore") return restore(wanted, resolve(target));
  if (what === "move") return move(wanted, target);
  return usage;
}

async function backup({ place, migrations, shipped, now }: CareWanted, file: string): Promise<string> {
  if (!place.url && !existsSync(join(place.folder, "pg")))
    throw new BadBackup(`There is no data in ${place.folder}. Nothing was written.`);
  const store = await openStore({ ...place, migrations });
  try {
    const beside = `${file}.new`;
    // No one else on the machine is to read it.
    const digest = await writeBackup(store, createWriteStream(beside, { mode: 0o600 }), { now });
    await syncFile(beside);
    renameSync(beside, file);
    const house = openHouse(store, shipped);
    for (const key of Object.keys(digest))
      if (key.endsWith(" schools")) await house.as({ schoolId: key.split(" ")[0] ?? "" }).settings.backedUp(now);
    return `${file}: ${countOf(digest)}. Keep it where this machine's disk cannot take it along.`;
  } finally {
    await store.close();
  }
}

/** What a backup lacks that was there before: who was erased since it was made, and who can sign in. */
interface Kept {
  readonly erased: ReadonlyMap<string, readonly string[]>;
  readonly accounts?: CarriedAccounts;
}

async function keptOf(store: OpenStore): Promise<Kept> {
  return { erased: await erasedIn(store), accounts: await accountsOf(store) };
}

/**
 * Puts a backup into an empty place: as it was made, then brought to this program's migrations, without the children who
 * were erased since.
 */
async function putInto(
  place: Place,
  file: string,
  { migrations, shipped }: CareWanted,
  kept: Kept,
): Promise<OpenStore> {
  const { migrations: made } = await readBackup(() => createReadStream(file), knownMigrations(migrations));
  const part = migrationsUpTo(migrations, made);
  try {
    const first = await openStore({ ...place, migrations: part });
    try {
      await fillFrom(first, file);
    } finally {
      await first.close();
    }
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
  const store = await openStore({ ...place, migrations });
  const house = openHouse(store, shipped);
  const schoolIds = (await listSchools(store.owner)).map(({ id }) => id);
  await putAccounts(store, house, schoolIds, kept.accounts);
  for (const [schoolId, ids] of kept.erased) {
    const school = house.as({ schoolId });
    await school.together(async () => school.erasing.eraseAll(await school.children.findMany(ids)));
  }
  await store.dump();
  return store;
}

async function restore(wanted: CareWanted, file: string): Promise<string> {
  if (!existsSync(file) || !statSync(file).isFile())
    throw new BadBackup(`There is no file ${file}. Nothing was changed.`);
  const { place, migrations, now } = wanted;
  const read = await readBackup(() => createReadStream(file), knownMigrations(migrations));
  if (place.url) {
    const store = await putInto(place, file, wanted, { erased: new Map() });
    const digest = await digestOf(store);
    await store.close();
    return `Put back, as of ${read.madeAt}: ${countOf(digest)}.`;
  }
  const there = existsSync(join(place.folder, "pg"));
  let kept: Kept = { erased: new Map() };
  if (there) {
    const before = await openStore({ ...place, migrations });
    kept = await keptOf(before);
    await before.close();
  }
  const beside = `${place.folder}.restoring`;
  rmSync(beside, { recursive: true, force: true });
  const store = await putInto({ folder: beside, url: undefined }, file, wanted, kept);
  const digest = await digestOf(store);
  await store.close();
  const aside = `${place.folder}.before-${now.toISOString().replace(/[:.]/g, "-")}`;
  if (there) renameSync(place.folder, aside);
  else rmSync(place.folder, { recursive: true, force: true });
  renameSync(beside, place.folder);
  return `Put back, as of ${read.madeAt}: ${countOf(digest)}.${there ? ` What was there is in ${aside}; remove it when all is as it should be.` : ""}`;
}

async function move(wanted: CareWanted, target: string): Promise<string> {
  const { place, migrations, now } = wanted;
  const to: Place = /^postgres(?:ql)?:\/\//.test(target)
    ? { folder: "", url: target }
    : { folder: resolve(target), url: undefined };
  if (!to.url && existsSync(join(to.folder, "pg")))
    throw new BadBackup(`There is data in ${to.folder} already. Nothing was moved; name an empty folder.`);
  const between = mkdtempSync(join(tmpdir(), "keen-move-"));
  const file = join(between, "moved.keen");
  try {
    const from = await openStore({ ...place, migrations });
    let before: Digest;
    let kept: Kept;
    try {
      before = await writeBackup(from, createWriteStream(file, { mode: 0o600 }), { now });
      kept = await keptOf(from);
    } finally {
      await from.close();
    }
    const store = await putInto(to, file, wanted, kept);
    const after = await digestOf(store);
    await store.close();
    const other = Object.keys(before).find((key) => before[key]?.sha256 !== after[key]?.sha256);
    if (other || Object.keys(before).length !== Object.keys(after).length)
      throw new BadBackup(
        `What arrived is not what was sent (${other?.split(" ")[1] ?? "tables"}). The data stay where they were; empty the target and try again.`,
      );
    return `Moved and compared row by row: ${countOf(after)}. The data where they were stay there; from now on start with ${to.url ? "DATABASE_URL set to that server" : `KEEN_DATA=${to.folder}`}.`;
  } finally {
    rmSync(between, { recursive: true, force: true });
  }
}
