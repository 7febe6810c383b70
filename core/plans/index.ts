/** What a session holds: kinds of part, a school's routines, and how a session is filled. */

export * from "./block.ts";
export type { SessionChild, ShelfEntry } from "./fill.ts";
export * from "./kinds.ts";
export * from "./part-kinds.ts";
export * from "./plan.ts";
export * from "./reads.ts";
export * from "./routine.ts";
export * from "./routine-file.ts";
export * from "./shipped.ts";
