/** From a child's answers to what it knows today: the chance of each skill, how sure that is, how it fades, and why. */

export * from "./ask/ask.ts";
export * from "./ask/sitting.ts";
export * from "./ask/unasked.ts";
export * from "./by-days.ts";
export * from "./changes.ts";
export * from "./code.ts";
export * from "./confusions.ts";
export * from "./days.ts";
export * from "./follow.ts";
export * from "./foresight.ts";
export * from "./foretell.ts";
export { heardFrom } from "./heard.ts";
export type { Heard, HeardWanted } from "./hearing.ts";
export * from "./history.ts";
export * from "./known.ts";
export * from "./left-out.ts";
export * from "./map.ts";
export * from "./mind.ts";
export * from "./own-values.ts";
export * from "./parameters.ts";
export * from "./refit.ts";
export * from "./rule.ts";
export * from "./second-look.ts";
export * from "./shown.ts";
export * from "./skills.ts";
export * from "./standing.ts";
export * from "./why.ts";
