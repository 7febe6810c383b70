import type { Gpc } from "#core/phonics";
import { type Lexicon, unread, type Word, wordsOf } from "#core/words";

/** Who of a group must be able to read what it is given, as the group has it. */
export const readingLimits = ["all", "allButOne", "most"] as const;
export type ReadingLimit = (typeof readingLimits)[number];

const MOST = 2 / 3;

/** How many of so many children must read a spelling for it to count as read by the group. */
export function mustRead(limit: ReadingLimit, children: number): number {
  if (limit === "all") return children;
  return Math.max(Math.min(1, children), limit === "allButOne" ? children - 1 : Math.ceil(MOST * children));
}

/** A child of a group and what it reads more often than not. */
export interface GroupReader {
  readonly name: string;
  readonly reads: ReadonlySet<Gpc>;
}

/** Which of these words a child needs help with, beside the targets that all are being taught. */
export interface NeedsHelp {
  readonly name: string;
  readonly words: readonly string[];
}

/**
 * Who needs help with which words: those with a spelling that the child does not read and that is no target, by child, in the
 * order of the words. Who needs none is left out; words that no one knows how to split, and exception words, count for no one.
 */
export function helpWith(
  texts: readonly string[],
  readers: readonly GroupReader[],
  {
    targets,
    lexicon,
    wholes,
  }: { readonly targets: readonly Gpc[]; readonly lexicon: Lexicon; readonly wholes: ReadonlySet<string> },
): readonly NeedsHelp[] {
  const words = [...new Set(texts.flatMap((text) => wordsOf(text).map((word) => word.text.toLowerCase())))].filter(
    (word) => !wholes.has(word),
  );
  return readers.flatMap((reader) => {
    const known = new Set([...reader.reads, ...targets]);
    const reads = ({ units }: Word) =>
      unread(
        units.flatMap(({ gpc, sound }) => (sound === "" ? [] : [gpc])),
        known,
      ).length === 0;
    const hard = words.filter((text) => {
      const readings = lexicon.find(text);
      return readings.length > 0 && !readings.some(reads);
    });
    return hard.length > 0 ? [{ name: reader.name, words: hard }] : [];
  });
}
