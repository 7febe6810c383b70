import { randomUUID as uuid } from "node:crypto";
import fs, { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import { drizzle } from "drizzle-orm/pglite";
import { migrate } from "drizzle-orm/pglite/migrator";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { addClass, getSchool } from "#contract";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { emptyEmbedded } from "./copies.ts";
import { mostJournalAfter } from "./embedded.ts";
import { migrationsUpTo } from "./migrated.ts";
import { openStore } from "./open.ts";
import type { OpenStore } from "./opened.ts";
import { allMigrations, openedFolders } from "./testing.ts";

let folders: Awaited<ReturnType<typeof openedFolders>>;
beforeAll(async () => {
  folders = await openedFolders();
});
afterAll(() => folders.remove());

async function namesIn(store: OpenStore): Promise<string[]> {
  const { rows } = (await store.owner.execute(sql`select slug from schools order by slug`)) as unknown as {
    rows: { slug: string }[];
  };
  return rows.map((row) => row.slug);
}
const addSchool = (store: OpenStore, slug: string) =>
  store.owner.execute(sql`insert into schools (id, slug) values (${uuid()}, ${slug})`);

test("a database that does not open, or is not there, is made anew from the dump and the journal, and that is said", async () => {
  const folder = folders.another();
  const first = await openStore({ folder });
  await addSchool(first, "reed");
  await first.dump();
  await addSchool(first, "lock");
  await first.close();
  // Killed between the journal and the commit: the database lacks the last write, and its line was cut in the middle.
  const [journal = ""] = fs.readdirSync(folder).filter((name) => name.startsWith("journal-"));
  fs.appendFileSync(join(folder, journal), '12345678 [99,[["insert in');
  for (const spoil of [
    () => rmSync(join(folder, "pg"), { recursive: true }),
    () => writeFileSync(join(folder, "pg", "global", "pg_control"), "spoilt"),
  ]) {
    spoil();
    const said: string[] = [];
    const store = await openStore({ folder, says: (sentence) => said.push(sentence) });
    expect(await namesIn(store)).toEqual(["lock", "reed", "school"]);
    expect(said.join(" ")).toMatch(/did not open.*made anew from the last dump.*1 writes/s);
    await store.close();
  }
  rmSync(folder, { recursive: true });
});

test("a folder of the version before, without a journal, opens with its data and has one from then on", async () => {
  const folder = mkdtempSync(join(tmpdir(), "keen-before-"));
  const part = migrationsUpTo(allMigrations, 12);
  const client = await emptyEmbedded(join(folder, "pg"));
  await migrate(drizzle(client), { migrationsFolder: part });
  await client.exec("update schools set name = 'Marlpit Lock School'");
  await client.close();
  rmSync(part, { recursive: true });
  const nameIn = async () => {
    const store = await openStore({ folder });
    const { rows } = (await store.owner.execute(sql`select name from schools`)) as unknown as { rows: unknown[] };
    await store.owner.execute(sql`update schools set name = 'Marlpit Lock'`);
    await store.close();
    return rows;
  };
  expect(await nameIn()).toEqual([{ name: "Marlpit Lock School" }]);
  // From now on it outlives the machine.
  rmSync(join(folder, "pg"), { recursive: true });
  expect(await nameIn()).toEqual([{ name: "Marlpit Lock" }]);
  rmSync(folder, { recursive: true });
});

test("how long the journal may get is asked with the bytes of the last dump: of a large one as long as that", async () => {
  expect(mostJournalAfter(5_000_000)).toBe(16_000_000);
  expect(mostJournalAfter(110_000_000)).toBe(110_000_000);
  const folder = folders.another();
  const asked: number[] = [];
  const mostJournal = (lastDump: number) => {
    asked.push(lastDump);
    return Number.POSITIVE_INFINITY;
  };
  const store = await openStore({ folder, mostJournal });
  const bytes = () => {
    const [dump = ""] = fs.readdirSync(folder).filter((name) => name.startsWith("dump-"));
    return statSync(join(folder, dump)).size;
  };
  await addSchool(store, "reed");
  expect(asked.at(-1)).toBe(bytes());
  const before = bytes();
  await store.owner.execute(sql`create table keen.noise as select gen_random_uuid() from generate_series(1, 20000)`);
  await store.dump();
  await addSchool(store, "lock");
  expect(bytes()).toBeGreaterThan(before);
  expect(asked.at(-1)).toBe(bytes());
  await store.close();
  rmSync(folder, { recursive: true });
});

test("what was erased is in no dump and no journal once a dump is made", async () => {
  const folder = folders.another();
  const store = await openStore({ folder });
  await addSchool(store, "secret-reed");
  const journals = () => fs.readdirSync(folder).filter((name) => name.startsWith("journal-"));
  expect(readFileSync(join(folder, journals()[0] ?? ""), "utf8")).toContain("secret-reed");
  await store.owner.execute(sql`delete from schools where slug = 'secret-reed'`);
  await store.dump();
  expect(journals()).toHaveLength(1);
  expect(statSync(join(folder, journals()[0] ?? "")).size).toBe(0);
  await store.close();
  rmSync(folder, { recursive: true });
});

test("a journal that is damaged in the middle is not believed: nothing is opened, and the way out is said", async () => {
  const folder = folders.another();
  const store = await openStore({ folder });
  for (const slug of ["a", "b", "c"]) await addSchool(store, slug);
  await store.close();
  const [journal = ""] = fs.readdirSync(folder).filter((name) => name.startsWith("journal-"));
  const lines = readFileSync(join(folder, journal), "utf8").split("\n");
  writeFileSync(join(folder, journal), [lines[0], lines[2], ""].join("\n"));
  writeFileSync(join(folder, "boot"), "another run of the machine");
  await expect(openStore({ folder })).rejects.toThrow(/is damaged.*npm run restore/);
  // A letter that is another one, in a line that others follow: it was acknowledged, and is not cut off with them.
  const spoilt = [lines[0], lines[1]?.replace('"b"', '"x"'), lines[2], ""].join("\n");
  writeFileSync(join(folder, journal), spoilt);
  await expect(openStore({ folder })).rejects.toThrow(/is damaged/);
  expect(readFileSync(join(folder, journal), "utf8")).toBe(spoilt);
  // A hole of zeros is where a write was on its way when the power went: what stands behind it was not acknowledged.
  writeFileSync(join(folder, journal), `${lines[0]}\n${"\0".repeat(300)}\n${lines[2]}\n`);
  const store2 = await openStore({ folder });
  expect(await namesIn(store2)).toEqual(["a", "school"]);
  await store2.close();
  rmSync(folder, { recursive: true });
});

describe("a disk that is full", () => {
  let house: TestHouse;
  let full = false;
  const noRoom = () => Object.assign(new Error("ENOSPC: no space left on device"), { code: "ENOSPC" });
  const [write, sync] = [fs.writeSync, fs.fdatasync];
  let at: "write" | "flush" = "write";

  beforeAll(async () => {
    house = await openTestHouse(await openStore({ folder: folders.another() }));
    fs.writeSync = ((...asked: Parameters<typeof fs.writeSync>) => {
      if (full && at === "write") throw noRoom();
      return write(...asked);
    }) as never;
    fs.fdatasync = ((handle: number, told: (error: Error | null) => void) => {
      if (full && at === "flush") setImmediate(() => told(noRoom()));
      else sync(handle, told);
    }) as never;
    syncBuiltinESMExports();
  });
  afterAll(async () => {
    Object.assign(fs, { writeSync: write, fdatasync: sync });
    syncBuiltinESMExports();
    await house.close();
  });

  test.each(["write", "flush"] as const)(
    "at the %s: 507 in a sentence, and all goes on when there is room",
    async (where) => {
      at = where;
      const { orders } = await house.ask(getSchool, {});
      const body = { id: uuid(), name: `Kiln ${where}`, yearGroup: "", orderId: orders[0]?.id ?? "" };
      full = true;
      expect(await house.refused(addClass, { body })).toMatchObject({ status: 507, title: "The disk is full" });
      // Reading goes on; another write is refused as well.
      await house.ask(getSchool, {});
      expect(await house.refused(addClass, { body: { ...body, id: uuid(), name: "Lock" } })).toMatchObject({
        status: 507,
      });
      full = false;
      await new Promise((done) => setTimeout(done, 1100));
      expect((await house.ask(addClass, { body })).name).toBe(`Kiln ${where}`);
      expect((await house.ask(getSchool, {})).classes.filter((one) => one.name === `Kiln ${where}`)).toHaveLength(1);
      expect((await house.ask(getSchool, {})).classes.map((one) => one.name)).not.toContain("Lock");
    },
  );
});
