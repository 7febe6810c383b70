import { PGlite } from "@electric-sql/pglite";
import { bench, describe } from "vitest";
import { prepared } from "./prepared.ts";

// What it saves that a statement which comes again and again is read once: rows of one table, by their number.

const plain = await PGlite.create({});
await plain.exec(
  "create table cards (number int primary key, name text, said jsonb); insert into cards select at, 'card ' || at, '{\"a\": 1}' from generate_series(1, 2000) at",
);
const quick = prepared(plain);
const asked = "select number, name, said from cards where number = $1 and name like 'card %' order by name";

const thirty = (client: PGlite) =>
  client.transaction(async (tx) => {
    for (let at = 1; at <= 30; at++) await tx.query(asked, [at * 60], { rowMode: "array", parsers: {} });
  });

describe("thirty questions of one transaction", () => {
  bench("baseline: each is read anew", () => thirty(plain), { time: 2000 });
  bench("asked by name", () => thirty(quick), { time: 2000 });
});
