/** What a session holds. */
export * from "./plan.ts";
