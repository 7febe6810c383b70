/** Words as units: the lexicon, splitting any word, what a child can read, and everything made from words. */
export * from "./chains.ts";
export * from "./chance.ts";
export * from "./contrasts.ts";
export * from "./decodability.ts";
export * from "./derive.ts";
export * from "./explain.ts";
export * from "./explain-spelling.ts";
export * from "./find.ts";
export * from "./lexicon.ts";
export * from "./made-up.ts";
export * from "./notation.ts";
export * from "./rules.ts";
export * from "./sentences.ts";
export * from "./shape.ts";
export * from "./sounding.ts";
export * from "./split.ts";
export * from "./units.ts";
