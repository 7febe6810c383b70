import { PGlite } from "@electric-sql/pglite";
import { expect, test } from "vitest";
import { count } from "./statistics.ts";

test("tables are counted when they hold something for the first time, and when they have grown; else nothing is done", async () => {
  const client = await PGlite.create();
  await client.exec("create table few (n int); create table many (n int); create table none (n int)");
  expect(await count(client)).toEqual([]);
  await client.exec("insert into few values (1); insert into many select generate_series(1, 5000)");
  expect(await count(client)).toEqual(["few", "many"]);
  expect(await count(client)).toEqual([]);
  await client.exec(
    "insert into few select generate_series(1, 20); insert into many select generate_series(1, 2000)",
  );
  expect(await count(client)).toEqual([]);
  await client.exec("insert into many select generate_series(1, 5000)");
  expect(await count(client)).toEqual(["many"]);
  const { rows } = await client.query("select reltuples::int as rows from pg_class where relname = 'many'");
  expect(rows).toEqual([{ rows: 12000 }]);
  await client.close();
});
