import type { PGlite, Transaction } from "@electric-sql/pglite";
import type { Entry, Journal } from "./journal.ts";

type Statement = Entry["statements"][number];

/** Statements that change nothing; `set_config` changes the transaction alone, and what others in it mean. */
const reads = /^\s*(?:select|show|begin|commit|rollback|savepoint|release|set|declare|fetch|close)\b/i;
const readsWith = /^\s*with\b(?![\s\S]*\b(?:insert|update|delete|merge)\b)/i;
const settings = /\bset_config\s*\(/i;

const changes = ([text]: Statement) => !reads.test(text) && !readsWith.test(text);

/** What JSON cannot carry as it is would come back as something else. */
function asJson(value: unknown): unknown {
  if (value instanceof Date) return value.toISOString();
  if (typeof value === "bigint") return String(value);
  if (value instanceof Uint8Array) throw new Error("The journal keeps no bytes");
  return value;
}

/** How writes get to the disk before they are acknowledged. */
export interface Durably {
  readonly journal: Journal;
  /** The number of the last write that the database has. */
  number: number;
  /** Throws when the disk could not take a write before, until that is mended. */
  ready(): void;
  /**
   * A flush failed: what was written is in the database, and not surely on the disk. Another flush that succeeds says
   * nothing about it, so that it takes a dump to be sure of it again.
   */
  failed(): void;
  /** Called after each write, outside of its transaction. */
  wrote(): void;
}

/**
 * The embedded database with its writes journalled. It does not reach the disk by itself: no sync call of it arrives at the
 * system. So the statements of every write are put into the journal before its commit, the database keeps the journal's
 * number in the same transaction, and who wrote hears of it only when the journal is on the disk.
 */
export function durable(client: PGlite, by: Durably): PGlite {
  async function write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
    let taken: (() => void) | undefined;
    try {
      const done = await client.transaction(async (tx) => {
        const said: Statement[] = [];
        const note = (text: string, params: readonly unknown[] = []) => {
          said.push([text, params.map(asJson)]);
        };
        const noting = {
          query: (text: string, params?: unknown[], options?: never) => {
            note(text, params);
            return tx.query(text, params, options);
          },
          exec: (text: string, options?: never) => {
            note(text);
            return tx.exec(text, options);
          },
          sql: tx.sql,
          rollback: () => tx.rollback(),
          listen: tx.listen,
          closed: tx.closed,
        } as unknown as Transaction;
        const result = await work(noting);
        if (!said.some(changes)) return result;
        by.ready();
        const number = by.number + 1;
        await tx.exec(`reset role; update keen.journal set number = ${number}`);
        const statements = said.filter((one) => changes(one) || settings.test(one[0]));
        const back = by.journal.write({ number, statements });
        by.number = number;
        taken = () => {
          back();
          by.number = number - 1;
        };
        return result;
      });
      if (!taken) return done as T;
      taken = undefined;
      await by.journal.flushed().catch((error: unknown) => {
        by.failed();
        throw error;
      });
      by.wrote();
      return done as T;
    } catch (error) {
      // It stands in the journal and not in the database: the commit failed.
      taken?.();
      throw error;
    }
  }

  return new Proxy(client, {
    get(target, name) {
      if (name === "transaction") return write;
      if (name === "query")
        return (text: string, params?: unknown[], options?: never) =>
          changes([text, []]) ? write((tx) => tx.query(text, params, options)) : target.query(text, params, options);
      if (name === "exec")
        return (text: string, options?: never) =>
          changes([text, []]) ? write((tx) => tx.exec(text, options)) : target.exec(text, options);
      const value = Reflect.get(target, name);
      return typeof value === "function" ? value.bind(target) : value;
    },
  });
}

/** Does writes of the journal again, each in a transaction of its own with its number. */
export async function replay(client: PGlite, entries: readonly Entry[]): Promise<void> {
  for (const { number, statements } of entries)
    await client.transaction(async (tx) => {
      for (const [text, params] of statements) {
        if (params.length > 0) await tx.query(text, [...params]);
        else await tx.exec(text);
      }
      await tx.exec(`reset role; update keen.journal set number = ${number}`);
    });
}

/** The number of the last write that a database has; null for one from before there was a journal. */
export async function numberOf(client: PGlite): Promise<number | null> {
  const there = await client.query<{ there: boolean }>("select to_regclass('keen.journal') is not null as there");
  if (!there.rows[0]?.there) return null;
  const { rows } = await client.query<{ number: string }>("select number::text as number from keen.journal");
  return Number(rows[0]?.number ?? 0);
}

/** Makes the place in which a database keeps the number. */
export async function keepNumber(client: PGlite, number: number): Promise<void> {
  await client.exec(`create schema if not exists keen;
    create table if not exists keen.journal (one boolean primary key default true check (one), number bigint not null);
    insert into keen.journal (number) values (${number}) on conflict (one) do update set number = excluded.number;`);
}
