/** Who learns together: proposals, targets, fit, and why. */
export * from "./fit.ts";
export * from "./propose.ts";
export * from "./worth.ts";
