import {
  type messages,
  type PGlite,
  type PGliteInterface,
  parse,
  protocol,
  type QueryOptions,
  type Results,
  type Transaction,
} from "@electric-sql/pglite";

const { serialize } = protocol;
type Message = Awaited<ReturnType<PGliteInterface["execProtocolStream"]>>[number];

/** A statement that the database has read and keeps under a name. */
interface Ready {
  readonly name: string;
  /** The type of each parameter, by its number in the database. */
  readonly types: readonly number[];
  /** The columns of its rows; none when it gives none. */
  readonly fields: Results["fields"];
}

/** Statements that are asked again and again with other parameters. */
const asked = /^\s*(?:select|insert|update|delete|with)\b/i;
/** After these a statement that was read may mean something else. */
const reshapes = /\b(?:create|alter|drop|discard|deallocate)\b/i;
/** What was asked less often is not worth its place. */
const SEEN_BEFORE = 2;
/** Statements kept at once, of at most so many letters; each holds some ten thousand bytes of the database's memory. */
const MOST_KEPT = 500;
const MOST_LETTERS = 8000;
const MOST_SEEN = 5000;

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/**
 * The embedded database, which reads a statement that comes again and again in transactions once, and is from then on told
 * its name and parameters in one message. By itself it reads, describes, plans and answers each anew, in five messages.
 * Answers and errors are the same. @param client no one else may prepare statements on it
 */
export function prepared(client: PGlite): PGlite {
  const kept = new Map<string, Ready>();
  const seen = new Map<string, number>();
  let named = 0;

  const send = (...parts: Uint8Array[]) => client.execProtocolStream(joined(parts), { syncToFs: false });

  /** The statement once it has come often enough; nothing until then. */
  async function readyOf(text: string): Promise<Ready | undefined> {
    const found = kept.get(text);
    if (found) return found;
    if (text.length > MOST_LETTERS || !asked.test(text)) return undefined;
    const before = seen.get(text) ?? 0;
    if (before < SEEN_BEFORE) {
      if (seen.size >= MOST_SEEN) seen.clear();
      seen.set(text, before + 1);
      return undefined;
    }
    if (kept.size >= MOST_KEPT) await forget();
    const name = `keen_${++named}`;
    const told = await send(
      serialize.parse({ name, text }),
      serialize.describe({ type: "S", name }),
      serialize.sync(),
    );
    const types = parse.parseDescribeStatementResults(told);
    const shape = told.find((message) => message.name === "rowDescription") as
      | messages.RowDescriptionMessage
      | undefined;
    const fields = (shape?.fields ?? []).map(({ name: column, dataTypeID }) => ({ name: column, dataTypeID }));
    const ready = { name, types, fields };
    kept.set(text, ready);
    seen.delete(text);
    return ready;
  }

  async function forget(): Promise<void> {
    if (kept.size === 0) return;
    await send(serialize.query("deallocate all"));
    kept.clear();
  }

  function written(value: unknown, type: number | undefined): string | null {
    if (value === null || value === undefined) return null;
    const serializer = type === undefined ? undefined : client.serializers[type];
    return serializer ? serializer(value) : String(value);
  }

  /** What was told to a statement, with its values as the types of its columns say. */
  function read<T>({ fields }: Ready, told: readonly Message[], options: QueryOptions | undefined): Results<T> {
    // By itself the database copies its table of some hundred types for each question.
    const parsers = fields.map(({ dataTypeID: type }) => options?.parsers?.[type] ?? client.parsers[type]);
    const rows: unknown[] = [];
    let affectedRows = 0;
    for (const message of told) {
      if (message.name === "dataRow") {
        const values = (message as messages.DataRowMessage).fields.map((value, at) => {
          const parser = parsers[at];
          return value === null || !parser ? value : parser(value, fields[at]?.dataTypeID);
        });
        if (options?.rowMode === "array") rows.push(values);
        else rows.push(Object.fromEntries(values.map((value, at) => [fields[at]?.name, value])));
      } else if (message.name === "commandComplete") {
        const { text } = message as messages.CommandCompleteMessage;
        if (!text.startsWith("SELECT")) affectedRows = Number(text.split(" ").at(-1));
      }
    }
    return { rows: rows as T[], fields, affectedRows };
  }

  const quick = (tx: Transaction): Transaction["query"] =>
    async function query<T>(text: string, params: unknown[] = [], options?: QueryOptions): Promise<Results<T>> {
      const answer = await client.runExclusive(async () => {
        const ready = tx.closed ? undefined : await readyOf(text);
        if (!ready) return undefined;
        const values = params.map((value, at) => written(value, ready.types[at]));
        const bound = serialize.bind({ statement: ready.name, values });
        return read<T>(ready, await send(bound, serialize.execute({}), serialize.sync()), options);
      });
      return answer ?? heeding(text, tx.query<T>(text, params, options));
    };

  /** After what changes tables all statements are read anew. */
  async function heeding<T>(text: string, work: Promise<T>): Promise<T> {
    const done = await work;
    if (reshapes.test(text)) await client.runExclusive(forget);
    return done;
  }

  const transaction: PGlite["transaction"] = (work) =>
    client.transaction((tx) => {
      const query = quick(tx);
      return work(
        new Proxy(tx, {
          get(target, name) {
            if (name === "query") return query;
            if (name === "exec")
              return (text: string, options?: QueryOptions) => heeding(text, target.exec(text, options));
            return Reflect.get(target, name);
          },
        }),
      );
    });

  return new Proxy(client, {
    get(target, name) {
      if (name === "transaction") return transaction;
      if (name === "query")
        return (text: string, params?: unknown[], options?: QueryOptions) =>
          heeding(text, target.query(text, params, options));
      if (name === "exec") return (text: string, options?: QueryOptions) => heeding(text, target.exec(text, options));
      const value = Reflect.get(target, name);
      return typeof value === "function" ? value.bind(target) : value;
    },
  });
}
