/** The kinds of check, in the order in which they are offered. */
export const kindIds = [
  "card",
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
export const timedKinds: ReadonlySet<KindId> = new Set(["card", "words", "exception", "find", "names"]);

/** What a kind is called on every screen and sheet. */
export const kindNames: Readonly<Record<KindId, string>> = {
  card: "Spelling cards",
  words: "Read words",
  exception: "Exception words",
  write: "Hear and write",
  dictation: "Write words and a sentence",
  find: "Hear and find",
  listen: "Listen, no letters",
  names: "Letter names",
  paper: "On paper, for a group",
};
