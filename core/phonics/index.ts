/** Sounds, spellings, correspondences, and what is easily taken for what. */
export * from "./accents.ts";
export * from "./confusions.ts";
export * from "./correspondences.ts";
export * from "./own-units.ts";
export * from "./sounds.ts";
