import { AsyncLocalStorage } from "node:async_hooks";
import { type SQL, sql } from "drizzle-orm";
import { PgDialect } from "drizzle-orm/pg-core";
import type { Shipped } from "../shipped.ts";
import type { Db, OpenStore } from "./opened.ts";
import { classes, orders, places, reportCame, reports, schools, sessions, taught } from "./schema.ts";
import { CHANNEL } from "./signal.ts";

/**
 * The open transaction of one school: the only thing through which its rows are reached. It sees and writes rows of that
 * school alone; the condition stands in the database (`store/columns.ts`), so that no query can forget it.
 */
export type Inside = Omit<Db, "transaction"> & {
  readonly schoolId: string;
  /** Under which memory keeps what it knows of the school: another for each database that this process has opened. */
  readonly memoryKey: string;
  /** What ships with the program, the same for every school. */
  readonly shipped: Shipped;
  /**
   * Several statements at once, whose only parameters are ids: where the database is in this process they are one message
   * to it, which costs a third. @returns the rows of each
   */
  ask(...statements: SQL[]): Promise<unknown[][]>;
  /** Tells the other processes of the database, when this transaction is kept; at most 7,000 letters as JSON. */
  signal(message: object): Promise<void>;
  /** Whether this transaction has written into the outline of the school (`outlineTables`). */
  readonly reshaped: boolean;
  /** Whether it has written into sessions, or what was said of them (`heldTables`). */
  readonly taughtHere: boolean;
};

/**
 * What of a school is asked for with almost everything and seldom changes: its classes, its orders, how far it is taught.
 * A transaction that writes into one of them counts `schools.outline` up, so that what was read may be kept by that number,
 * also where several processes write.
 */
const outlineTables: ReadonlySet<unknown> = new Set([classes, orders, taught, places]);
/** The same for what was taught in sessions, and to whom: `schools.held` counts it. */
const heldTables: ReadonlySet<unknown> = new Set([sessions, reports, reportCame]);

/** A school's way to its rows. */
export interface Scope {
  readonly schoolId: string;
  /**
   * Does the work in the school's transaction: in the one that is open, else in one of its own, which is kept when the work
   * is done and taken back when it throws. A use within a use joins it, so nothing waits for itself.
   * @example await scope.run((inside) => inside.select().from(children))
   */
  run<T>(work: (inside: Inside) => Promise<T>): Promise<T>;
  /** What was removed for good leaves the journal and the dumps too. */
  dump(): Promise<void>;
  /** Tells something once what was written is kept; never when it was taken back. At once when no transaction is open. */
  afterwards(tell: () => void): void;
}

interface Open {
  readonly schoolId: string;
  readonly inside: Inside;
  readonly told: (() => void)[];
}
const open = new AsyncLocalStorage<Open>();

/**
 * The scope of a school.
 * @param store the whole database; no one but this reaches it
 */
export function scopeOf(
  { db, signals, dump }: Pick<OpenStore, "db" | "signals" | "dump">,
  schoolId: string,
  shipped: Shipped,
): Scope {
  const here = (): Open | undefined => {
    const one = open.getStore();
    if (one && one.schoolId !== schoolId)
      throw new Error("The transaction of one school is open; another cannot be reached from within it.");
    return one;
  };
  const memoryKey = `${numberOf(db)} ${schoolId}`;
  return {
    schoolId,
    dump,
    run: async (work) => {
      const joined = here();
      if (joined) return work(joined.inside);
      const told: Open["told"] = [];
      const done = await db.transaction(async (tx) => {
        // One statement, and for this transaction only: afterwards the connection is no one's again.
        await tx.execute(
          sql`select set_config('role', 'keen_app', true), set_config('app.school', ${schoolId}, true)`,
        );
        const signal = async (message: object) => {
          if (signals.me === null) return;
          const payload = JSON.stringify({ ...message, from: signals.me });
          await tx.execute(sql`select pg_notify(${CHANNEL}, ${payload})`);
        };
        const inside = Object.assign(tx, {
          schoolId,
          memoryKey,
          shipped,
          ask: asking(tx),
          signal,
          reshaped: false,
          taughtHere: false,
          ...watched(tx),
        });
        const value = await open.run({ schoolId, inside, told }, () => work(inside));
        if (inside.reshaped) await inside.update(schools).set({ outline: sql`${schools.outline} + 1` });
        if (inside.taughtHere) await inside.update(schools).set({ held: sql`${schools.held} + 1` });
        return value;
      });
      for (const tell of told) tell();
      return done;
    },
    afterwards: (tell) => {
      const one = here();
      if (one) one.told.push(tell);
      else tell();
    },
  };
}

/** Databases that this process has opened, counted. */
const numbers = new WeakMap<object, number>();
let opened = 0;
function numberOf(db: object): number {
  const number = numbers.get(db) ?? ++opened;
  numbers.set(db, number);
  return number;
}

/** The ways to write, which remember when the outline, or what was taught in sessions, was written into. */
function watched(tx: Pick<Db, "insert" | "update" | "delete">) {
  const watch = <Way extends (table: never) => unknown>(way: Way): Way =>
    function (this: { reshaped: boolean; taughtHere: boolean }, table: never) {
      if (outlineTables.has(table)) this.reshaped = true;
      if (heldTables.has(table)) this.taughtHere = true;
      return way.call(tx, table);
    } as Way;
  return { insert: watch(tx.insert), update: watch(tx.update), delete: watch(tx.delete) };
}

const dialect = new PgDialect();
const anId = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** The simple protocol of the embedded database: several statements in one message, and no parameters. */
interface Embedded {
  exec(text: string): Promise<{ rows: unknown[] }[]>;
}

function asking(tx: Pick<Db, "execute">): Inside["ask"] {
  const { client } = (tx as unknown as { session: { client: Partial<Embedded> } }).session;
  return async (...statements) => {
    if (!client.exec) {
      const told: unknown[][] = [];
      for (const one of statements) told.push(((await tx.execute(one)) as unknown as { rows: unknown[] }).rows);
      return told;
    }
    const texts = statements.map((one) => {
      const { sql: text, params } = dialect.sqlToQuery(one);
      // They become part of the text, so that nothing but an id may be among them.
      return text.replace(/\$(\d+)/g, (_, at: string) => {
        const param = params[Number(at) - 1];
        if (typeof param !== "string" || !anId.test(param)) throw new Error("Only ids can be asked with at once");
        return `'${param}'`;
      });
    });
    return (await client.exec(texts.join(";\n"))).map(({ rows }) => rows);
  };
}

/** Functions of a repository without their first argument, the transaction, which the scope gives. */
export type Repository<Functions> = {
  readonly [Name in keyof Functions]: Functions[Name] extends (inside: Inside, ...asked: infer Asked) => infer Answer
    ? (...asked: Asked) => Answer
    : never;
};

/**
 * A repository of one school: each of its functions runs in the school's transaction.
 * @example repository(scope, groups).find(id) // groups.find(inside, id)
 */
export function repository<Functions extends object>(scope: Scope, functions: Functions): Repository<Functions> {
  const bound = Object.entries(functions).map(([name, one]) => [
    name,
    (...asked: unknown[]) =>
      scope.run((inside) => (one as (inside: Inside, ...asked: unknown[]) => Promise<unknown>)(inside, ...asked)),
  ]);
  return Object.fromEntries(bound) as Repository<Functions>;
}
