/** Who learns together: what a need is worth, proposals within limits, how far from the best, targets, fit, and why. */
export * from "./bound.ts";
export * from "./carry.ts";
export * from "./fit.ts";
export * from "./learners.ts";
export * from "./moves.ts";
export * from "./propose.ts";
export * from "./served.ts";
export * from "./shelf.ts";
export * from "./wanted.ts";
export * from "./week/index.ts";
export * from "./worth.ts";
