/** From answers to what is secure, unsteady or a gap; fading; confusions; the map of a class. */
export * from "./code.ts";
export * from "./confusions.ts";
export * from "./map.ts";
export * from "./rule.ts";
export * from "./shown.ts";
export * from "./standing.ts";
export * from "./texts.ts";
