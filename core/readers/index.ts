/** Simulated readers, seeded: they fill the demo school and drive benchmarks and tests. */
export * from "./items.ts";
export * from "./readers.ts";
export * from "./temper.ts";
export * from "./texts.ts";
export * from "./world/index.ts";
