/** The answer log, decks that are complete and never repeat, where a check stands and what it says. */

export { type Dice, dice, shuffled } from "#core/words";
export * from "./answers.ts";
export * from "./deck.ts";
export * from "./result.ts";
