import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, inject, test } from "vitest";
import { eraseChild, listChildren } from "#contract";
import { CannotOpen } from "../store/lock.ts";
import { openStore } from "../store/open.ts";
import type { OpenStore } from "../store/opened.ts";
import { allMigrations, emptyDatabase } from "../store/testing.ts";
import { openTestHouse, type TestHouse } from "../testing.ts";
import { oneOfEach } from "../testing-school.ts";
import { BadBackup, digestOf, tablesInOrder } from "./backup.ts";
import { careCommand } from "./command.ts";

// Everything of a school goes into one file and comes out of it again, from either kind of database into either.

let base = "";
let file = "";
let house: TestHouse;
let place: { folder: string; url: string | undefined };
const now = new Date("2026-11-20T16:00:00.000Z");
const onServer = () => inject("database").kind === "server";

const care = (where: typeof place, ...words: string[]) =>
  careCommand({ place: where, migrations: allMigrations, shipped: house.shipped, now }, words);

async function newPlace(name: string): Promise<typeof place> {
  if (onServer()) return { folder: "", url: await emptyDatabase(inject("database").empty) };
  return { folder: join(base, name), url: undefined };
}
const opened = (where: typeof place): Promise<OpenStore> => openStore({ ...where, migrations: allMigrations });

beforeAll(async () => {
  base = mkdtempSync(join(tmpdir(), "keen-care-"));
  file = join(base, "school.keen");
  place = await newPlace("school");
  house = await openTestHouse(await opened(place));
  await oneOfEach(house.ask, "Reed");
  await house.close();
  expect(await care(place, "backup", file)).toMatch(/school\.keen: 1 school, \d{2,} rows\. Keep it where/);
});
afterAll(() => rmSync(base, { recursive: true, force: true }));

test("tables come behind those that they refer to, and none is forgotten", () => {
  const order = tablesInOrder();
  expect(order.length).toBeGreaterThan(24);
  for (const [one, other] of [
    ["orders", "classes"],
    ["classes", "children"],
    ["children", "checks"],
    ["checks", "answers"],
    ["sessions", "reports"],
  ] as const)
    expect(order.indexOf(one)).toBeLessThan(order.indexOf(other));
});

test("a backup is put back row by row as it was, and says when it was made", async () => {
  const to = await newPlace("again");
  expect(await care(to, "restore", file)).toMatch(/^Put back, as of 2026-11-20T16:00:00.000Z: 1 school/);
  const [before, after] = [await opened(place), await opened(to)];
  const [was, is] = [await digestOf(before), await digestOf(after)];
  for (const store of [before, after]) await store.close();
  // The first one has remembered since that a backup was made.
  const others = (digest: typeof was) => Object.entries(digest).filter(([key]) => !key.endsWith(" schools"));
  expect(others(is)).toEqual(others(was));
  expect(others(is).length).toBeGreaterThan(15);
});

describe("a file that cannot be used is refused with the reason, and nothing is changed", () => {
  const bytes = () => readFileSync(file);
  const lines = () => gunzipSync(bytes()).toString().split("\n");
  test.each<[string, () => Buffer, RegExp]>([
    ["nothing", () => Buffer.from(""), /not written whole|no backup/],
    ["something else", () => Buffer.from("a letter to the kiln"), /no backup of Keen Sapling/],
    [
      "one that was cut short",
      () => bytes().subarray(0, bytes().length - 200),
      /no backup|damaged|not written whole/,
    ],
    ["one that lacks its end", () => gzipSync(`${lines().slice(0, -2).join("\n")}\n`), /not written whole/],
    [
      "one in which a letter is another",
      () => gzipSync(lines().join("\n").replace("Reed", "Weed")),
      /checksum is another/,
    ],
    [
      "one of a newer program",
      () =>
        gzipSync(
          lines()
            .join("\n")
            .replace(/"migrations":\d+/, '"migrations":999'),
        ),
      /of a newer Keen Sapling/,
    ],
    ["one of a newer format", () => gzipSync(lines().join("\n").replace("backup 1", "backup 2")), /newer kind/],
  ])("%s", async (_, content, says) => {
    const bad = join(base, "bad.keen");
    writeFileSync(bad, content());
    const to = { folder: join(base, "untouched"), url: undefined };
    const done = care(to, "restore", bad);
    await expect(done).rejects.toThrow(BadBackup);
    await expect(done).rejects.toThrow(says);
    expect(existsSync(to.folder)).toBe(false);
  });
  test("a name under which there is no file, and a place that has data", async () => {
    await expect(care(place, "restore", join(base, "none.keen"))).rejects.toThrow(/There is no file/);
    if (onServer()) await expect(care(place, "restore", file)).rejects.toThrow(/data in this database already/);
    else await expect(care(await newPlace("nowhere"), "backup", file)).rejects.toThrow(/There is no data in/);
  });
});

test("a child who was erased since is not put back", async (context) => {
  // On a server a backup goes into another, empty database, which knows of no one who was erased.
  if (onServer()) return context.skip();
  const to = { folder: join(base, "erased"), url: undefined };
  cpSync(place.folder, to.folder, { recursive: true });
  const before = await openTestHouse(await opened(to));
  const [child] = await before.ask(listChildren, {});
  await before.ask(eraseChild, { params: { id: child?.id ?? "" } });
  await before.close();
  expect(await care(to, "restore", file)).toMatch(/What was there is in .*erased\.before-2026/);
  const after = await openTestHouse(await opened(to));
  expect((await after.ask(listChildren, {})).map((one) => one.id)).not.toContain(child?.id);
  await after.close();
  for (const name of readdirSync(to.folder).filter((one) => one.startsWith("journal-")))
    expect(readFileSync(join(to.folder, name), "utf8")).not.toContain(child?.name);
});

test("a folder that is in use is told so", async (context) => {
  if (onServer()) return context.skip();
  const store = await opened(place);
  await expect(care(place, "backup", file)).rejects.toThrow(CannotOpen);
  await store.close();
});

test("from a folder to a server and back everything arrives, compared row by row", async (context) => {
  if (!onServer()) return context.skip();
  const folder = join(base, "moved");
  expect(await care(place, "move", folder)).toMatch(/^Moved and compared row by row: 1 school, .* KEEN_DATA=/);
  const url = await emptyDatabase(inject("database").empty);
  expect(await care({ folder, url: undefined }, "move", url)).toMatch(/start with DATABASE_URL set to that server/);
  const [first, last] = [await opened(place), await opened({ folder: "", url })];
  const [was, is] = [await digestOf(first), await digestOf(last)];
  for (const store of [first, last]) await store.close();
  expect(is).toEqual(was);
  await expect(care(place, "move", url)).rejects.toThrow(/data in this database already/);
  await expect(care(place, "move", folder)).rejects.toThrow(/There is data in .* already/);
});
