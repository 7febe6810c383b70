import type { PgDatabase, PgQueryResultHKT } from "drizzle-orm/pg-core";
import type { Signals } from "../frame/signals.ts";
import type * as schema from "./schema.ts";

/** A database as Drizzle reaches it, embedded or on a server. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenStore {
  /** For the application. On a server it logs in as a role that owns nothing and reads nothing outside of a school. */
  readonly db: Db;
  /** For the program's own start and commands: the owner of the tables. */
  readonly owner: Db;
  /** For accounts of people alone: on a server in a role that reads nothing of any school. */
  readonly accounts: Db;
  /** `embedded` in a folder, or a PostgreSQL `server`. */
  readonly kind: "embedded" | "server";
  /**
   * What this process and others on the same database tell one another. Nothing is told on the embedded one, which one
   * process holds.
   */
  readonly signals: Signals;
  /** Writes a dump of an embedded database beside it and cuts its journal, which then holds nothing older. */
  dump(): Promise<void>;
  /**
   * Does work that one process at a time should do, under a lock of this name. The lock goes with the process that holds it.
   * @returns false when another process is at it, and nothing was done here
   */
  alone(name: string, work: () => Promise<void>): Promise<boolean>;
  close(): Promise<void>;
}
