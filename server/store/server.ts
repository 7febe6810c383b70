import { createHmac, randomUUID } from "node:crypto";
import { sql } from "drizzle-orm";
import { drizzle } from "drizzle-orm/node-postgres";
import { migrate } from "drizzle-orm/node-postgres/migrator";
import pg from "pg";
import type { Signals } from "../frame/signals.ts";
import { codeOf } from "../frame/trouble.ts";
import { CannotOpen } from "./lock.ts";
import type { OpenStore } from "./opened.ts";
import * as schema from "./schema.ts";
import { CHANNEL } from "./signal.ts";
import { givingBack } from "./transaction.ts";

/** Connections of one process of the application to a server. */
const MOST_CONNECTIONS = 8;
/** Connections for accounts, beside them. */
const FOR_ACCOUNTS = 3;
/** Who finds all of them taken waits so long, and is then told that the server is busy. */
const WAIT_MS = 5_000;

/** Whoever migrates holds this lock of the server, so that of processes that start at once one does it. */
const MIGRATING = 4_310_001;

/** A lost connection is told to whoever asks next; it never ends the process. */
const quiet = (pool: pg.Pool) =>
  pool
    .on("error", () => undefined)
    // One that is in use tells its user; without this its line's end would be no one's and end the process.
    .on("connect", (client) => void client.on("error", () => undefined));

/**
 * The address names the owner, who migrates. The application has a login of its own, made here: it inherits nothing, and may
 * only become the two roles of `columns.ts`. Its password follows from the owner's, so that several processes agree on it.
 * @throws CannotOpen when the server cannot be reached, or refuses the owner or the login
 */
export async function openServer(url: string, migrationsFolder: string): Promise<OpenStore> {
  const address = new URL(url);
  const owning = quiet(new pg.Pool({ connectionString: url, max: 1, connectionTimeoutMillis: WAIT_MS }));
  const name = `keen_login_${address.pathname.slice(1)}`.slice(0, 63);
  const password = createHmac("sha256", decodeURIComponent(address.password)).update(name).digest("hex");
  try {
    await prepare(owning, { name, password, migrationsFolder });
  } catch (error) {
    await owning.end();
    throw inWords(error, address);
  }
  address.username = name;
  address.password = password;
  const pool = quiet(
    new pg.Pool({ connectionString: address.href, max: MOST_CONNECTIONS, connectionTimeoutMillis: WAIT_MS }),
  );
  const db = givingBack(drizzle(pool, { schema }), pool);
  const peoplePool = quiet(
    new pg.Pool({
      connectionString: address.href,
      max: FOR_ACCOUNTS,
      connectionTimeoutMillis: WAIT_MS,
      options: "-c role=keen_people",
    }),
  );
  const line = signalsOf(pool, address.href);
  const close = async () => {
    line.close();
    await peoplePool.end();
    await pool.end();
    await owning.end();
  };
  try {
    await db.execute(sql`select 1`);
  } catch (error) {
    await close();
    throw new CannotOpen(
      `The database server refuses the application's own login, ${name} (${codeOf(error) ?? "no answer"}). Let it in by password (pg_hba.conf) and start again. Nothing was changed.`,
    );
  }
  return {
    db,
    owner: drizzle(owning, { schema }),
    accounts: givingBack(drizzle(peoplePool, { schema }), peoplePool),
    kind: "server",
    signals: line.signals,
    dump: async () => undefined,
    alone: aloneOn(pool),
    close,
  };
}

interface Prepared {
  readonly name: string;
  readonly password: string;
  readonly migrationsFolder: string;
}

/** Migrates and makes the login, one process at a time: the lock goes with its connection. */
async function prepare(owning: pg.Pool, { name, password, migrationsFolder }: Prepared): Promise<void> {
  const client = await owning.connect();
  try {
    await client.query("select pg_advisory_lock($1)", [MIGRATING]);
    await migrate(drizzle(client, { schema }), { migrationsFolder });
    const [role, secret] = [pg.escapeIdentifier(name), pg.escapeLiteral(password)];
    const { rows } = await client.query("select 1 from pg_roles where rolname = $1", [name]);
    await client.query(`${rows.length === 0 ? "create" : "alter"} role ${role} login noinherit password ${secret}`);
    await client.query(`grant keen_app, keen_door, keen_people to ${role}, current_user`);
    await client.query("select pg_advisory_unlock($1)", [MIGRATING]);
  } finally {
    client.release();
  }
}

/** Names of what runs by the clock are numbers of locks behind this one. */
const BY_THE_CLOCK = 4_310_002;

/** One process at a time, by a lock of the server that its connection holds: it ends with the process too. */
function aloneOn(pool: pg.Pool): OpenStore["alone"] {
  return async (name, work) => {
    const client = await pool.connect();
    const lock = [BY_THE_CLOCK, name];
    try {
      const { rows } = await client.query("select pg_try_advisory_lock($1, hashtext($2)) as got", lock);
      if (!rows[0]?.got) return false;
      try {
        await work();
      } finally {
        await client.query("select pg_advisory_unlock($1, hashtext($2))", lock);
      }
      return true;
    } finally {
      client.release();
    }
  };
}

/** What keeps a server from being used, in a sentence; any other error as it is. */
function inWords(error: unknown, address: URL): unknown {
  const code = codeOf(error);
  const where = `${address.hostname}:${address.port || 5432}`;
  const again = "and start again. Nothing was changed.";
  if (code === "28P01" || code === "28000")
    return new CannotOpen(
      `The database server at ${where} refuses ${address.username}. Put the right name and password into DATABASE_URL ${again}`,
    );
  if (code === "3D000")
    return new CannotOpen(
      `The database server at ${where} has no database ${address.pathname.slice(1)}. Make it ${again}`,
    );
  if (code === "42501")
    return new CannotOpen(
      `${address.username} may not make tables and roles in this database (42501). Give it the database and CREATEROLE; where another owner of the same server has Keen Sapling too, also say there: grant keen_app, keen_door, keen_people to ${address.username} with admin option; ${again}`,
    );
  if (code === undefined || /^E[A-Z]+$|^57P|^08|^53300$/.test(code))
    return new CannotOpen(
      `The database server at ${where} does not answer (${code ?? "no answer"}). Start it, or correct DATABASE_URL, ${again}`,
    );
  return error;
}

/** Longest wait between two tries to get a lost line back. */
const MOST_WAIT_MS = 10_000;

/** LISTEN on a connection of its own, which comes back by itself when it is lost. */
function signalsOf(pool: pg.Pool, url: string): { readonly signals: Signals; close(): void } {
  const me = randomUUID();
  let [closed, client]: [boolean, pg.Client | undefined] = [false, undefined];
  const listeners: { readonly heard: (message: unknown) => void; readonly missed: () => void }[] = [];

  /** One line, whoever listens. */
  function follow(): void {
    let wait = 100;
    const again = () => {
      if (closed) return;
      setTimeout(open, wait).unref();
      wait = Math.min(wait * 2, MOST_WAIT_MS);
    };
    const open = async () => {
      if (closed) return;
      const line = new pg.Client({ connectionString: url, connectionTimeoutMillis: WAIT_MS });
      let lost = false;
      const lose = () => {
        // An end follows an error, and also when it is let go from here.
        if (lost || closed) return;
        lost = true;
        client = undefined;
        line.end().catch(() => undefined);
        again();
      };
      line.on("error", lose).on("end", lose);
      try {
        await line.connect();
        if (closed) return void line.end().catch(() => undefined);
        line.on("notification", ({ payload = "{}" }) => {
          const { from, ...message } = JSON.parse(payload) as { from?: string };
          if (from !== me) for (const { heard } of listeners) heard(message);
        });
        await line.query(`listen ${CHANNEL}`);
        client = line;
        if (wait > 100) for (const { missed } of listeners) missed();
        wait = 100;
      } catch {
        lose();
      }
    };
    void open();
  }

  return {
    signals: {
      me,
      tell: (message) => {
        // Who does not hear it reads it at the next look: it is worth no error.
        pool
          .query("select pg_notify($1, $2)", [CHANNEL, JSON.stringify({ ...message, from: me })])
          .catch(() => undefined);
      },
      listen: (heard, missed) => {
        listeners.push({ heard, missed });
        if (listeners.length === 1) follow();
      },
    },
    close: () => {
      closed = true;
      client?.end().catch(() => undefined);
    },
  };
}
