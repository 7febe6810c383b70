/** Reading a connected text: marks in, rate, accuracy, kinds of error and what the misreads say out. */
export * from "./advice.ts";
export * from "./again.ts";
export * from "./doubt.ts";
export * from "./edit.ts";
export * from "./evidence.ts";
export * from "./fit.ts";
export * from "./library.ts";
export * from "./markdown.ts";
export * from "./marks.ts";
export * from "./pace.ts";
export * from "./preparation.ts";
export * from "./score.ts";
export * from "./standards.ts";
export * from "./written.ts";
