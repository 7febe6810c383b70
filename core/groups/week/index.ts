/** When groups meet: what is wanted, its rules and wishes, timetables, why one cannot be, changes for a day, the calendar. */
export * from "./assemble.ts";
export * from "./away.ts";
export * from "./calendar.ts";
export * from "./conflict.ts";
export * from "./exact.ts";
export * from "./faults.ts";
export * from "./first-fit.ts";
export * from "./grid.ts";
export * from "./meetings.ts";
export type { MixedSolver } from "./mixed.ts";
export * from "./places.ts";
export * from "./read-calendar.ts";
export * from "./read-table.ts";
export * from "./rules.ts";
export * from "./search.ts";
export * from "./times.ts";
export * from "./wanted.ts";
export * from "./wishes.ts";
