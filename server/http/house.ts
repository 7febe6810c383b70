import type { Ground } from "../store/ground.ts";
import type { Db } from "../store/open.ts";
import type { LiveHub } from "./live.ts";

/** What every route works with. The clock comes in, so that tests can hold it. */
export interface House {
  readonly db: Db;
  readonly ground: Ground;
  readonly live: LiveHub;
  now(): Date;
}
