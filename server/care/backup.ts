import { createHash, type Hash } from "node:crypto";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import { sql } from "drizzle-orm";
import { getTableConfig, PgTable } from "drizzle-orm/pg-core";
import type { Db, OpenStore } from "../store/opened.ts";
import * as schema from "../store/schema.ts";

/** What the first line of a backup says it is. */
const FORMAT = "keen-sapling backup 1";

/** A backup cannot be used, for a reason that can be told in a sentence. */
export class BadBackup extends Error {
  constructor(message: string) {
    super(message);
    this.name = "BadBackup";
  }
}

/** Rows of each table of each school, as a number and a checksum: what two stores that hold the same agree in. */
export type Digest = Readonly<Record<string, { readonly rows: number; readonly sha256: string }>>;

const rowsAtOnce = 2000;

/** Tables of a school's rows, each behind those that it refers to. What is worked out from others is left out. */
export function tablesInOrder(): readonly string[] {
  const tables = (Object.values(schema) as unknown[]).filter((one): one is PgTable => one instanceof PgTable);
  const left = new Map(
    tables.map((table) => {
      const { name, foreignKeys } = getTableConfig(table);
      return [name, new Set(foreignKeys.map((key) => getTableConfig(key.reference().foreignTable).name))];
    }),
  );
  // A code of a few figures is guessed from its hash: devices are let in anew where a backup is put back.
  for (const name of ["schools", "standings", "devices", "device_codes"]) left.delete(name);
  const order: string[] = [];
  while (left.size > 0) {
    const free = [...left].filter(([name, to]) => [...to].every((one) => one === name || !left.has(one)));
    if (free.length === 0) throw new Error("tables refer to each other in a ring");
    for (const [name] of free) {
      order.push(name);
      left.delete(name);
    }
  }
  return order;
}

/** Rows of a query, as either driver gives them. */
export const rowsOf = async <Row>(db: Pick<Db, "execute">, query: Parameters<Db["execute"]>[0]): Promise<Row[]> =>
  ((await db.execute(query)) as unknown as { rows: Row[] }).rows;

/** How many migrations a database has. */
export async function migrationsOf(db: Pick<Db, "execute">): Promise<number> {
  const [found] = await rowsOf<{ count: number }>(
    db,
    sql`select count(*)::int as count from drizzle.__drizzle_migrations`,
  );
  return found?.count ?? 0;
}

interface Piece {
  readonly school: string;
  readonly table: string;
  /** JSON texts, as the database writes them. */
  readonly rows: readonly string[];
}

/** All rows of schools, table by table, in one moment of the database. @param schoolIds only these; else all */
async function* piecesOf(tx: Db, schoolIds?: readonly string[]): AsyncGenerator<Piece> {
  await tx.execute(sql`select set_config('role', 'keen_door', true), set_config('timezone', 'UTC', true)`);
  const all = await rowsOf<{ id: string }>(tx, sql`select id from schools order by created_at, id`);
  for (const { id } of all) {
    if (schoolIds && !schoolIds.includes(id)) continue;
    await tx.execute(sql`select set_config('role', 'keen_app', true), set_config('app.school', ${id}, true)`);
    const [own] = await rowsOf<{ row: string }>(tx, sql`select to_jsonb(s)::text as row from schools s`);
    yield { school: id, table: "schools", rows: own ? [own.row] : [] };
    for (const table of tablesInOrder()) {
      const name = sql.identifier(table);
      await tx.execute(
        sql`declare backup_rows cursor for select to_jsonb(t)::text as row from ${name} t order by to_jsonb(t)::text collate "C"`,
      );
      for (;;) {
        const rows = await rowsOf<{ row: string }>(tx, sql.raw(`fetch ${rowsAtOnce} from backup_rows`));
        if (rows.length > 0) yield { school: id, table, rows: rows.map(({ row }) => row) };
        if (rows.length < rowsAtOnce) break;
      }
      await tx.execute(sql`close backup_rows`);
    }
  }
}

/** Reads in a transaction that sees one moment. */
function inOneMoment<T>(store: OpenStore, work: (tx: Db) => Promise<T>): Promise<T> {
  return store.owner.transaction(async (tx) => {
    await tx.execute(sql`set transaction isolation level repeatable read`);
    return work(tx as unknown as Db);
  });
}

function digesting() {
  const found = new Map<string, { rows: number; hash: Hash }>();
  return {
    add: ({ school, table, rows }: Piece) => {
      const key = `${school} ${table}`;
      const one = found.get(key) ?? { rows: 0, hash: createHash("sha256") };
      one.rows += rows.length;
      for (const row of rows) one.hash.update(`${row}\n`);
      found.set(key, one);
    },
    done: (): Digest =>
      Object.fromEntries([...found].map(([key, { rows, hash }]) => [key, { rows, sha256: hash.digest("hex") }])),
  };
}

/** What the store holds, to be compared with another. */
export async function digestOf(store: OpenStore, schoolIds?: readonly string[]): Promise<Digest> {
  const digest = digesting();
  await inOneMoment(store, async (tx) => {
    for await (const piece of piecesOf(tx, schoolIds)) digest.add(piece);
  });
  return digest.done();
}

/**
 * Writes a backup: compressed lines of JSON, of which the first says what it is and the last has the checksum of those
 * before. It is of one moment.
 * @param out is ended when all is written
 */
export async function writeBackup(
  store: OpenStore,
  out: NodeJS.WritableStream,
  { schoolIds, now }: { readonly schoolIds?: readonly string[]; readonly now: Date },
): Promise<Digest> {
  const digest = digesting();
  await inOneMoment(store, async (tx) => {
    const migrations = await migrationsOf(tx);
    async function* lines(): AsyncGenerator<string> {
      const hash = createHash("sha256");
      const line = (text: string) => {
        hash.update(text);
        return text;
      };
      yield line(`${JSON.stringify({ format: FORMAT, migrations, madeAt: now.toISOString() })}\n`);
      for await (const piece of piecesOf(tx, schoolIds)) {
        digest.add(piece);
        const { school, table, rows } = piece;
        yield line(`{"school":"${school}","table":"${table}","rows":[${rows.join(",")}]}\n`);
      }
      yield `${JSON.stringify({ sha256: hash.digest("hex") })}\n`;
    }
    await pipeline(Readable.from(lines()), createGzip(), out);
  });
  return digest.done();
}

/** Writes backups of one school at a time, for who may ask for it. */
export function backupOf(store: OpenStore) {
  return (schoolId: string, out: NodeJS.WritableStream, now: Date): Promise<Digest> =>
    writeBackup(store, out, { schoolIds: [schoolId], now });
}

/** What a backup is, once it has been read to its end and its checksum found right. */
export interface Backup {
  readonly migrations: number;
  readonly madeAt: string;
  readonly schools: number;
  readonly rows: number;
}

/** Rows of one table of one school, as they are put back. */
export interface Part {
  readonly school: string;
  readonly table: string;
  readonly rows: readonly unknown[];
}

/**
 * Reads a backup to its end, checks it, and hands on its rows in order.
 * @param open the file as it lies there, from its beginning
 * @param most migrations that this program knows
 * @throws BadBackup when it is none, damaged, cut short, or of a newer program
 */
export async function readBackup(
  open: () => NodeJS.ReadableStream,
  most: number,
  each: (part: Part) => Promise<void> = async () => undefined,
): Promise<Backup> {
  const hash = createHash("sha256");
  let head: { format?: unknown; migrations: number; madeAt: string } | undefined;
  let [ended, rows] = [false, 0];
  const schools = new Set<string>();
  try {
    for await (const line of linesIn(open())) {
      if (ended) throw new BadBackup("Something follows the end of this backup.");
      const content = JSON.parse(line);
      if (!head) {
        head = content;
        if (head?.format !== FORMAT)
          throw new BadBackup("This file is no backup of Keen Sapling, or of a newer kind.");
        if (head.migrations > most)
          throw new BadBackup(
            "This backup is of a newer Keen Sapling than this one. Bring this one up to date first, then put it back.",
          );
      } else if (typeof content.sha256 === "string") {
        if (content.sha256 !== hash.digest("hex"))
          throw new BadBackup("This backup is damaged: its checksum is another. Take an older one.");
        ended = true;
        continue;
      } else {
        schools.add(content.school);
        rows += content.rows.length;
        await each(content);
      }
      hash.update(`${line}\n`);
    }
  } catch (error) {
    if (error instanceof BadBackup) throw error;
    const { code } = error as { code?: string };
    if (error instanceof SyntaxError || /^Z_|ERR_STREAM_PREMATURE/.test(code ?? ""))
      throw new BadBackup("This file is no backup of Keen Sapling, or it is damaged. Take another one.");
    throw error;
  }
  if (!head || !ended)
    throw new BadBackup("This backup ends in the middle: it was not written whole. Take an older one.");
  return { migrations: head.migrations, madeAt: head.madeAt, schools: schools.size, rows };
}

async function* linesIn(file: NodeJS.ReadableStream): AsyncGenerator<string> {
  const gunzip = createGunzip();
  let failed: unknown;
  file.on("error", (error) => gunzip.destroy(error as Error));
  file.pipe(gunzip);
  let rest = "";
  try {
    gunzip.setEncoding("utf8");
    for await (const piece of gunzip) {
      rest += String(piece);
      const lines = rest.split("\n");
      rest = lines.pop() ?? "";
      yield* lines;
    }
  } catch (error) {
    failed = error;
  }
  if (failed) throw failed;
  if (rest) throw new BadBackup("This backup ends in the middle: it was not written whole. Take an older one.");
}
