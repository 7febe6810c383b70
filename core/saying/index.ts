/** How counts and days are put into words, everywhere alike. */
export * from "./day.ts";
export * from "./fives.ts";
export * from "./listed.ts";
export * from "./plural.ts";
export * from "./time.ts";
