import { cpSync, existsSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { fillDemo } from "#demo";
import {
  emptyFolder,
  filledFolder,
  freePort,
  type RunningServer,
  SCHOOLS_WITHOUT_DATA,
  schoolsFolder,
  schoolTaken,
  slugOfFile,
  startServer,
} from "./server.ts";

/**
 * Starts the one server of all tests, on which each file has a school of its own with the demo data, and there are schools
 * that no one has set up. Beside it stand the folders of one school that are copied for tests which end their server. While a
 * test is written, KEEN_E2E_KEEP=1 takes the folders of the run before.
 * @returns what ends the server
 */
export default async function setup(): Promise<() => Promise<void>> {
  const kept = process.env.KEEN_E2E_KEEP === "1";
  for (const folder of [emptyFolder, filledFolder]) {
    if (kept && existsSync(folder)) continue;
    rmSync(folder, { recursive: true, force: true });
    // An empty school is made once.
    if (folder === filledFolder) cpSync(emptyFolder, folder, { recursive: true });
    rmSync(schoolsFolder, { recursive: true, force: true });
    const server = await startServer(folder, await freePort());
    if (folder === filledFolder) await fillDemo(server.base);
    await server.stop();
  }
  const files = readdirSync(import.meta.dirname).filter((file) => file.endsWith(".spec.ts") && sharesServer(file));
  const template = `${schoolsFolder}-as-made${process.env.KEEN_SHORT ? "-short" : ""}`;
  if (!kept || !existsSync(template)) {
    rmSync(template, { recursive: true, force: true });
    cpSync(filledFolder, template, { recursive: true });
    await copySchool(template, files.map(slugOfFile));
  }
  rmSync(schoolsFolder, { recursive: true, force: true });
  rmSync(schoolTaken, { recursive: true, force: true });
  cpSync(template, schoolsFolder, { recursive: true });
  const port = await freePort();
  const server: RunningServer = await startServer(schoolsFolder, port);
  process.env.KEEN_E2E_PORT = String(port);
  return () => server.stop();
}

/** Whether tests of a file that are run stand on the server of all, in a school with data. */
function sharesServer(file: string): boolean {
  const text = readFileSync(join(import.meta.dirname, file), "utf8");
  const isRun = !process.env.KEEN_SHORT || text.includes("@main");
  return isRun && !text.includes("alone: true") && /\bschool\b/.test(text);
}

/** What of the demo school is its alone: where links and codes lead is found before a school is known. */
const notCopied = ["doors", "shares", "faces", "schools"];

/** Makes schools with all that the first one of a folder has, and some with nothing. The ids of their things are the same. */
async function copySchool(folder: string, slugs: readonly string[]): Promise<void> {
  const database = await PGlite.create(join(folder, "pg"));
  try {
    const { rows } = await database.query<{ name: string }>(
      "select c.relname as name from pg_class c join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and c.relkind = 'r'",
    );
    const tables = rows.map(({ name }) => name).filter((name) => !notCopied.includes(name));
    const all = [...slugs, ...SCHOOLS_WITHOUT_DATA];
    // Rows come in no order of their rules; that each is kept is what the first school's rows show already.
    await database.exec("set session_replication_role = replica");
    await database.query(
      "insert into schools (id, slug, name, created_at) select gen_random_uuid(), slug, '', now() + interval '1 second' from unnest($1::text[]) slug",
      [all],
    );
    await database.query(
      "update schools s set demo = f.demo, name = f.name, time_zone = f.time_zone, checks = f.checks, reading = f.reading, accent = f.accent, grouping = f.grouping, week = f.week from schools f where f.slug not in (select unnest($1::text[])) and s.slug in (select unnest($2::text[]))",
      [all, slugs],
    );
    await database.query(
      "create temp table first as select id from schools where slug not in (select unnest($1::text[]))",
      [all],
    );
    await database.query(
      "create temp table others as select id from schools where slug in (select unnest($1::text[]))",
      [slugs],
    );
    await database.query(
      "create temp table bare as select id from schools where slug in (select unnest($1::text[]))",
      [SCHOOLS_WITHOUT_DATA],
    );
    for (const name of tables) {
      const { rows: columns } = await database.query<{ name: string }>(
        "select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1 and column_name <> 'school_id'",
        [name],
      );
      const list = columns.map((one) => `"${one.name}"`).join(", ");
      const copied = (to: string, where = "") =>
        `insert into "${name}" (school_id, ${list}) select o.id, ${list.replace(/"\w+"/g, "t.$&")} from "${name}" t, ${to} o where t.school_id in (select id from first) ${where}`;
      await database.exec(copied("others"));
      if (name === "orders") await database.exec(copied("bare", "and t.shipped"));
    }
    // Without it a query over many schools is planned as over one.
    await database.exec("analyze");
  } finally {
    await database.close();
  }
}
