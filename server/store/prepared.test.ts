import { PGlite } from "@electric-sql/pglite";
import { afterAll, beforeAll, expect, test } from "vitest";
import { prepared } from "./prepared.ts";

// What comes again and again is read once: it must answer and fail as if it were read each time.

let plain: PGlite;
let quick: PGlite;
beforeAll(async () => {
  plain = await PGlite.create({});
  quick = prepared(plain);
  await plain.exec(`create table things (
    id uuid primary key, name text not null, count int, long bigint, share real, exact numeric, yes boolean, said jsonb,
    at timestamptz, day date, names text[], numbers int[], ids uuid[])`);
});
afterAll(() => plain.close());

const ids = Array.from({ length: 8 }, (_, at) => `00000000-0000-4000-8000-00000000000${at}`);
const rowsOf = ([first, ...others]: readonly string[]) =>
  [
    [first, "Ä “quoted” \\ 'a'", 7, 2n ** 60n, 1.5, "0.10", true, { a: [1, null] }],
    [others[0], "", null, null, null, null, null, null],
    [others[1], "x\ny", -1, -5n, -0.25, "12345678901234567890.5", false, '"a string"'],
  ].map((row, at) => [
    ...row,
    at === 1 ? null : new Date("2026-11-20T08:00:00.123Z"),
    at === 1 ? null : "2026-11-20",
    at === 1 ? null : ["a,b", '"', "NULL"],
    at === 1 ? [] : [1, 2],
    at === 1 ? null : ids.slice(0, 2),
  ]);
const insert =
  "insert into things values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) returning id, name, said";
const ways = [{}, { rowMode: "array" as const }, { parsers: { 1184: (value: string) => `at ${value}` } }];

/** Asks several times, so that it is read at first and asked by its name from then on. */
async function often<T>(text: string, params: unknown[], options?: object): Promise<T[]> {
  return quick.transaction(async (tx) => {
    const told: T[] = [];
    for (let at = 0; at < 5; at++) told.push((await tx.query(text, params, options)) as T);
    return told;
  });
}

test("every type goes in and comes out as it does by itself", async () => {
  const told = await quick.transaction(async (tx) => {
    const all = [];
    for (const row of [...rowsOf(ids), ...rowsOf(ids.slice(3))]) all.push(await tx.query(insert, row));
    return all;
  });
  expect(told.map(({ rows, affectedRows }) => [rows.length, affectedRows])).toEqual(Array(6).fill([1, 1]));
  const { rows } = await plain.query("select * from things order by id");
  expect(rows).toHaveLength(6);
  for (let at = 0; at < 3; at++)
    expect({ ...(rows[at] as object), id: "" }).toEqual({ ...(rows[at + 3] as object), id: "" });
  for (const way of ways) {
    const asked = "select * from things where id = any($1) order by id";
    const by = await plain.query(asked, [ids], way);
    for (const one of await often<typeof by>(asked, [ids], way)) {
      expect(one.rows).toEqual(by.rows);
      expect(one.fields).toEqual(by.fields);
    }
  }
});

test("rows that were changed are counted, also by a statement that gives none back", async () => {
  const told = await often<{ affectedRows: number; rows: [] }>(
    "update things set count = 1 where count = $1 or true",
    [1],
  );
  expect(told.map(({ affectedRows, rows }) => [affectedRows, rows])).toEqual(Array(5).fill([6, []]));
  expect(
    (await often<{ affectedRows: number }>("delete from things where name = $1", ["no one"])).at(-1),
  ).toMatchObject({
    affectedRows: 0,
  });
});

test("an error is the database's own, takes the transaction back, and the statement goes on being good", async () => {
  const half = "select 10 / $1::int as half";
  await often(half, [5]);
  for (let again = 0; again < 2; again++) {
    const failed = quick.transaction(async (tx) => {
      await tx.query("update things set name = 'gone'");
      await tx.query(half, [0]);
    });
    await expect(failed).rejects.toMatchObject({ code: "22012" });
  }
  await expect(often(half, ["no number"])).rejects.toMatchObject({ code: "22P02" });
  await expect(often("select nothing from things where id = $1", [ids[0]])).rejects.toMatchObject({ code: "42703" });
  expect(await often(half, [2])).toMatchObject(Array(5).fill({ rows: [{ half: 5 }] }));
  expect((await plain.query("select 1 from things where name = 'gone'")).rows).toEqual([]);
});

test("a statement that was read before its table was changed is read anew", async () => {
  const asked = "select * from changed where id = $1";
  await quick.transaction((tx) =>
    tx.exec("create table changed (id int, value int); insert into changed values (1, 2)"),
  );
  expect((await often<{ rows: object[] }>(asked, [1]))[4]?.rows).toEqual([{ id: 1, value: 2 }]);
  await quick.transaction((tx) => tx.exec("alter table changed alter column value type text, add column more int"));
  expect((await often<{ rows: object[] }>(asked, [1]))[4]?.rows).toEqual([{ id: 1, value: "2", more: null }]);
  await quick.query("alter table changed drop column more");
  expect((await often<{ rows: object[] }>(asked, [1]))[4]?.rows).toEqual([{ id: 1, value: "2" }]);
});

test("many statements are kept, never too many, and each answers for itself", async () => {
  await quick.transaction(async (tx) => {
    for (let round = 0; round < 4; round++)
      for (let at = 0; at < 700; at++)
        expect((await tx.query(`select ${at} + $1::int as sum`, [round])).rows).toEqual([{ sum: at + round }]);
    const { rows } = await tx.query<{ count: number }>("select count(*)::int as count from pg_prepared_statements");
    expect(rows[0]?.count).toBeGreaterThan(100);
    expect(rows[0]?.count).toBeLessThanOrEqual(500);
    // Asked in the same moment, while others are forgotten.
    const sums = await Promise.all(
      Array.from({ length: 2100 }, (_, at) => tx.query(`select ${at % 700} - $1::int as rest`, [at])),
    );
    expect(sums.map((one) => one.rows)).toEqual(sums.map((_, at) => [{ rest: (at % 700) - at }]));
  });
});

test("a closed transaction asks nothing more", async () => {
  const kept = await quick.transaction(async (tx) => tx);
  await expect(kept.query("select 10 / $1::int as half", [5])).rejects.toThrow(/closed/);
});
