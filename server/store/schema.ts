/** Every table of the database, by what it is about. */
export { keenApp, keenDoor, keenPeople } from "./columns.ts";
export * from "./tables/evidence.ts";
export * from "./tables/school.ts";
export * from "./tables/teaching.ts";
export * from "./tables/week.ts";
export * from "./tables/words.ts";
