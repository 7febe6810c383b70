/** Marlpit Lock School: eight weeks of a made-up school, as requests of the contract. */

export * from "./fill.ts";
export * from "./school.ts";
