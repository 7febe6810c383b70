/** Class lists: what each row of a pasted table would become. */
export * from "./roster.ts";
