/** From answers to what is secure, unsteady or a gap; fading; confusions; the map of a class. */
export * from "./code.ts";
export * from "./map.ts";
export * from "./state.ts";
