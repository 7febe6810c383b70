import type { Way } from "./ways.ts";

/** What a mark must know of the kind of check that it was made in. */
interface KindOfMark {
  /** What it is called on every screen and sheet. */
  readonly name: string;
  readonly way: Way;
  /** A right answer over the school's threshold counts as slow. */
  readonly timed: boolean;
  /** Its marks are of these kinds, each by what was asked; of its own where this is left out. */
  readonly marks?: readonly string[];
}

/** The kinds of check, a line a kind, in the order in which they are offered. */
const all = {
  card: { name: "Spelling cards", way: "seen", timed: true },
  words: { name: "Read words", way: "seen", timed: true },
  exception: { name: "Exception words", way: "seen", timed: true },
  write: { name: "Hear and write", way: "heard", timed: false },
  dictation: { name: "Write words and a sentence", way: "heard", timed: false },
  find: { name: "Hear and find", way: "chosen", timed: true },
  choose: { name: "Choose the spelling", way: "chosen", timed: false },
  listen: { name: "Listen, no letters", way: "heard", timed: false },
  names: { name: "Letter names", way: "seen", timed: true },
  paper: { name: "On paper, for a group", way: "chosen", timed: false },
  seek: { name: "Only what is in doubt", way: "seen", timed: true, marks: ["card", "words", "exception"] },
} as const satisfies Record<string, KindOfMark>;

export type KindId = keyof typeof all;
/** The ids of all kinds, in the order in which they are offered. */
export const kindIds = Object.keys(all) as [KindId, ...KindId[]];

/** What each kind is called on every screen and sheet. */
export const kindNames = Object.fromEntries(kindIds.map((id) => [id, all[id].name])) as Readonly<
  Record<KindId, string>
>;

/** Kinds in which a right answer over the school's threshold counts as slow. */
export const timedKinds: ReadonlySet<KindId> = new Set(kindIds.filter((id) => all[id].timed));

/** The kinds of which the marks of a check are. @example marksIn("card") // ["card"] */
export function marksIn(kind: KindId): readonly KindId[] {
  const of: KindOfMark = all[kind];
  return (of.marks as readonly KindId[] | undefined) ?? [kind];
}

/**
 * How an item of a kind of check is asked.
 * @example askedAs("dictation") // "heard"
 */
export function askedAs(kind: KindId): Way {
  return all[kind].way;
}
