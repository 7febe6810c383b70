/** Words as units, and whether a child can read them. */
export * from "./guess.ts";
export * from "./words.ts";
export * from "./derive.ts";
export * from "./units.ts";
