/** Simulated readers: for practice, for benchmarks, for tests. */
export * from "./readers.ts";
