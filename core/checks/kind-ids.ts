/** The kinds of check, in the order in which they are offered. */
export const kindIds = [
  "say",
  "words",
  "exception",
  "write",
  "dictation",
  "find",
  "listen",
  "names",
  "paper",
] as const;
export type KindId = (typeof kindIds)[number];

/** Kinds in which a right answer over the school's threshold counts as slow. */
export const timedKinds: ReadonlySet<KindId> = new Set(["say", "words", "exception", "find", "names"]);
