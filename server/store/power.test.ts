import { randomUUID as uuid } from "node:crypto";
import fs, { mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { syncBuiltinESMExports } from "node:module";
import { tmpdir } from "node:os";
import { dirname, join, relative } from "node:path";
import { sql } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { dice } from "#core/checks";
import { partOf } from "../testing-share.ts";
import { openStore } from "./open.ts";
import { openedFolders } from "./testing.ts";

// The machine loses its power: of every file is left what was flushed last, and nothing of one that never was. The
// embedded database flushes nothing, so all of its own files go.

/** Bytes of each file that are on the disk for certain, by its inode, so that a renamed one keeps them. */
const flushed = new Map<number, number>();
const own = { fsync: fs.fsync, fsyncSync: fs.fsyncSync, fdatasync: fs.fdatasync, fdatasyncSync: fs.fdatasyncSync };

function record(handle: number, size: number): void {
  const { ino } = fs.fstatSync(handle);
  flushed.set(ino, Math.max(flushed.get(ino) ?? 0, size));
}

let folders: Awaited<ReturnType<typeof openedFolders>>;
beforeAll(async () => {
  folders = await openedFolders();
});
beforeAll(() => {
  for (const name of ["fsync", "fdatasync"] as const) {
    fs[name] = ((handle: number, told: (error: Error | null) => void) => {
      // What is written while it runs need not be on the disk.
      const { size } = fs.fstatSync(handle);
      own[name](handle, (error) => {
        if (!error) record(handle, size);
        told(error);
      });
    }) as never;
    fs[`${name}Sync`] = ((handle: number) => {
      own[`${name}Sync`](handle);
      record(handle, fs.fstatSync(handle).size);
    }) as never;
  }
  syncBuiltinESMExports();
});
afterAll(() => {
  Object.assign(fs, own);
  syncBuiltinESMExports();
  folders.remove();
});

/** A copy of the folder as it is after the power has gone. */
function afterThePowerWent(folder: string): string {
  const left = mkdtempSync(join(tmpdir(), "keen-cut-"));
  for (const entry of fs.readdirSync(folder, { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath, entry.name);
    const to = join(left, relative(folder, path));
    mkdirSync(dirname(to), { recursive: true });
    const { ino, size } = statSync(path);
    // Of the database's own files: of some all is gone, of some their names are left.
    const sure = Math.min(flushed.get(ino) ?? 0, size);
    if (sure === 0 && path.includes("/pg/") && ino % 2 === 0) continue;
    writeFileSync(to, readFileSync(path).subarray(0, sure));
  }
  if (fs.existsSync(join(left, "boot"))) writeFileSync(join(left, "boot"), "another run of the machine");
  return left;
}

/** The number of the newest dump in a folder: 0 is the one that it began with. */
const dumpsIn = (folder: string): number =>
  Math.max(0, ...fs.readdirSync(folder).map((name) => Number(/^dump-(\d+)/.exec(name)?.[1] ?? 0)));

const cuts = partOf(50);

test(`the power goes ${cuts} times at random: nothing that was acknowledged is missing, nothing is there twice`, async () => {
  const folder = folders.another();
  const from = dice(41);
  // A small journal, so that dumps are made in between.
  const store = await openStore({ folder, mostJournal: () => 4000 });
  // The copy of the first folder counts as flushed: it is what the machine was switched on with.
  for (const entry of fs.readdirSync(folder, { withFileTypes: true }))
    if (entry.isFile()) {
      const { ino, size } = statSync(join(folder, entry.name));
      flushed.set(ino, Math.max(flushed.get(ino) ?? 0, size));
    }
  await store.owner.execute(sql`create table if not exists keen.seen (id uuid not null, text text not null)`);
  const acknowledged = new Set<string>();
  const begun = new Set<string>();
  let stop = false;
  const writer = async () => {
    while (!stop) {
      const id = uuid();
      begun.add(id);
      // Some fail, and leave nothing.
      const fails = from.share() < 0.1;
      await store.owner
        .transaction(async (tx) => {
          await tx.execute(sql`insert into keen.seen (id, text) values (${id}, ${'it\'s a\nline \\ of "text"'})`);
          if (fails) throw new Error("no");
        })
        .then(
          () => acknowledged.add(id),
          () => begun.delete(id),
        );
      await new Promise((done) => setTimeout(done, from.pick(4)));
    }
  };
  const writers = [writer(), writer(), writer(), writer()];
  const left: { readonly folder: string; readonly acknowledged: ReadonlySet<string> }[] = [];
  for (let cut = 0; cut < cuts; cut++) {
    await new Promise((done) => setTimeout(done, 500 + from.pick(1500)));
    // Dumps are made in between, and the journal is cut behind them: else this says less than it seems.
    while (cut === cuts - 1 && dumpsIn(folder) === 0) await new Promise((done) => setTimeout(done, 50));
    left.push({ folder: afterThePowerWent(folder), acknowledged: new Set(acknowledged) });
  }
  stop = true;
  await Promise.all(writers);
  await store.close();
  for (const one of left) {
    const said: string[] = [];
    const again = await openStore({ folder: one.folder, says: (sentence) => said.push(sentence) });
    const { rows } = (await again.owner.execute(sql`select id, text from keen.seen`)) as unknown as {
      rows: { id: string; text: string }[];
    };
    const ids = rows.map((row) => row.id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const id of one.acknowledged) expect(ids).toContain(id);
    for (const id of ids) expect(begun.has(id)).toBe(true);
    expect(rows[0]?.text).toBe('it\'s a\nline \\ of "text"');
    // And it goes on from there.
    await again.owner.execute(sql`insert into keen.seen (id, text) values (${uuid()}, 'after')`);
    await again.close();
    rmSync(one.folder, { recursive: true });
  }
  expect(left[0]?.acknowledged.size).toBeGreaterThan(20);
  rmSync(folder, { recursive: true });
});
