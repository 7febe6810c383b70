/** What a mark is: its outcomes, the kinds of check that it can be of, the day that its instant falls on; what of a log stands. */
export * from "./admit.ts";
export * from "./answers.ts";
export * from "./days.ts";
export * from "./kinds.ts";
export * from "./source.ts";
export * from "./text-entry.ts";
export * from "./ways.ts";
