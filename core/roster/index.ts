/** Class lists: what each row of a pasted table would become. */
export * from "./leavers.ts";
export * from "./roster.ts";
export * from "./word-age.ts";
export * from "./year.ts";
