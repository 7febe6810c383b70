export { askCard, askWord, type Question } from "./asked.ts";
export * from "./assumptions.ts";
export { halfLives, type Memory, stairsAndPower } from "./memory.ts";
export { type Helped, type Lived, playTerm, type SchoolDay, type Term, type TermWanted } from "./term.ts";
