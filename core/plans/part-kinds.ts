/** Kinds of part that a session can have, in the order in which they are offered. */
export const partKinds = [
  ...(["revisit", "hear", "teach", "blend", "readWords", "readAgain", "madeUp"] as const),
  ...(["chain", "sort", "pairs", "build", "writeWords", "exceptionWords"] as const),
  ...(["readSentence", "sentence", "yesNo", "phrase", "text", "lastLook"] as const),
] as const;
export type PartKind = (typeof partKinds)[number];

/** Who does what a part asks for. */
export const doers = ["child", "together", "adult"] as const;
export type Doer = (typeof doers)[number];
