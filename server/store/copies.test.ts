import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { PGlite } from "@electric-sql/pglite";
import { afterAll, expect, test } from "vitest";
import { emptyEmbedded } from "./copies.ts";

const base = mkdtempSync(join(tmpdir(), "keen-empty-"));
afterAll(() => rmSync(base, { recursive: true }));

/** That it has no table yet and takes one; with a folder, that it keeps it there. */
async function isUsable(client: PGlite, folder?: string): Promise<void> {
  const tables = "select count(*)::int as count from pg_tables where schemaname = 'public'";
  expect((await client.query(tables)).rows).toEqual([{ count: 0 }]);
  await client.exec("create table seen (word text); insert into seen values ('reed')");
  await client.close();
  if (!folder) return;
  const again = await PGlite.create(folder);
  expect((await again.query("select word from seen")).rows).toEqual([{ word: "reed" }]);
  await again.close();
}

test("a copy of one that was made is as empty as it was, and keeps what comes into it", async () => {
  const made = await emptyEmbedded();
  const file = join(base, "made.tar.gz");
  writeFileSync(file, Buffer.from(await (await made.dumpDataDir("gzip")).arrayBuffer()));
  await made.close();
  const files = [join(base, "none.tar.gz"), file];
  const folder = join(base, "copied");
  await isUsable(await emptyEmbedded(folder, files), folder);
});

test("where the copy cannot be read, one is made", async () => {
  const spoilt = join(base, "spoilt.tar.gz");
  for (const content of ["no database", gzipSync("no database")]) {
    writeFileSync(spoilt, content);
    await isUsable(await emptyEmbedded(undefined, [spoilt]));
  }
});
