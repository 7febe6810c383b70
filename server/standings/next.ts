import { nextSteps } from "#core/order";
import type { KnownChild } from "./kept.ts";

/** What is taught in so many steps from now is what a class needs other things for. */
const STEPS_AHEAD = 2;
/** What a child is taught next. */
export const nextOf = ({ taught: { order, stepId } }: Pick<KnownChild, "taught">): readonly string[] =>
  nextSteps(order, stepId, STEPS_AHEAD).flatMap((step) => step.gpcs);
