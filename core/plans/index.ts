/** What a session holds. */
export * from "./plan.ts";
export * from "./reads.ts";
