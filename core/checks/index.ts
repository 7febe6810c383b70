/**
 * Checks of every kind on one frame: items in, answers in, next item, advice to stop, result out.
 */

export { type Dice, dice, shuffled } from "#core/words";
export * from "./desk.ts";
export * from "./kinds/index.ts";
export * from "./next.ts";
export * from "./plan.ts";
export * from "./result.ts";
export * from "./section.ts";
export * from "./sentence.ts";
export * from "./settings.ts";
