/** Teaching orders: reading, editing, and what has been taught so far. */
export * from "./edit.ts";
export * from "./order.ts";
export * from "./place.ts";
