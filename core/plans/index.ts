/** What a session holds: kinds of part, a school's routines, how a session is filled; and sessions over weeks. */
export type { BlockFocus } from "./besides.ts";
export * from "./block.ts";
export type { SessionChild, ShelfEntry } from "./fill.ts";
export * from "./focus.ts";
export * from "./focus-kind.ts";
export { Forecast } from "./forecast.ts";
export * from "./keep.ts";
export * from "./kinds.ts";
export * from "./materials.ts";
export * from "./part-kinds.ts";
export * from "./plan.ts";
export * from "./reads.ts";
export * from "./routine.ts";
export * from "./routine-file.ts";
export * from "./shipped.ts";
export * from "./short.ts";
export * from "./way-names.ts";
export * from "./ways.ts";
