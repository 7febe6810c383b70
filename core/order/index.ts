/** Teaching orders: reading, editing, what is taught as one thing, and what has been taught so far. */
export * from "./edit.ts";
export * from "./order.ts";
export * from "./place.ts";
export * from "./points.ts";
