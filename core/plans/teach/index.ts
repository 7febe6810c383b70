/** A session while it is taught: what was done as a log of steps, what follows from it, how the time is kept, what it is evidence of. */
export * from "./boards.ts";
export * from "./evidence.ts";
export * from "./more.ts";
export * from "./steps.ts";
export * from "./tell.ts";
export * from "./time.ts";
