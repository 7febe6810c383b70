import type { NodePgDatabase } from "drizzle-orm/node-postgres";
import { NodePgSession, NodePgTransaction } from "drizzle-orm/node-postgres";
import type pg from "pg";

type Work = (tx: unknown) => Promise<unknown>;

/** Drizzle's own transaction, which its types keep to itself. */
interface Inner {
  readonly dialect: ConstructorParameters<typeof NodePgSession>[1];
  readonly schema: ConstructorParameters<typeof NodePgSession>[2];
  readonly options: ConstructorParameters<typeof NodePgSession>[3];
  transaction(work: Work): Promise<unknown>;
}

/**
 * Transactions that always give their connection back. Drizzle keeps one for ever when the line is lost before the first
 * statement, so that a server which restarts a few times would leave the application without any.
 */
export function givingBack<Database extends NodePgDatabase<Record<string, unknown>>>(
  db: Database,
  pool: pg.Pool,
): Database {
  const inner = (db as unknown as { session: Inner }).session;
  inner.transaction = async (work) => {
    const client = await pool.connect();
    let lost: Error | undefined;
    try {
      await client.query("begin");
      const session = new NodePgSession(client, inner.dialect, inner.schema, inner.options);
      const done = await work(new NodePgTransaction(inner.dialect, session, inner.schema));
      await client.query("commit");
      return done;
    } catch (error) {
      await client.query("rollback").catch((failed: Error) => {
        lost = failed;
      });
      throw error;
    } finally {
      client.release(lost);
    }
  };
  return db;
}
