import { type Gpc, withImplied } from "#core/phonics";
import { findWords, type Lexicon } from "#core/words";
import type { GroupReader } from "./reads.ts";

/** A spelling that would open words for practice, and how many. */
export interface Opener {
  readonly gpc: Gpc;
  readonly words: number;
}

/** Fewer words than this are not worth a sentence. */
const LEAST = 3;

/**
 * What one more spelling would bring where few words fit: of all words with a target, those that wait for one spelling alone, by
 * that spelling; the one for which most wait.
 * @returns undefined where hardly any word waits for one alone
 */
export function whatWouldHelp(
  lexicon: Lexicon,
  { known, targets }: { readonly known: ReadonlySet<Gpc>; readonly targets: readonly Gpc[] },
): Opener | undefined {
  const readable = withImplied([...known, ...targets]);
  const waits = new Map<Gpc, Set<string>>();
  for (const { text, units } of lexicon.words) {
    if (!units.some(({ gpc }) => targets.includes(gpc))) continue;
    const missing = new Set(units.flatMap(({ gpc, sound }) => (sound === "" || readable.has(gpc) ? [] : [gpc])));
    const [only] = missing;
    if (only !== undefined && missing.size === 1) waits.set(only, (waits.get(only) ?? new Set()).add(text));
  }
  const best = [...waits].reduce<Opener | undefined>(
    (most, [gpc, words]) => (words.size > (most?.words ?? LEAST - 1) ? { gpc, words: words.size } : most),
    undefined,
  );
  return best;
}

/** Words that most of a group can read, and who cannot. */
export interface ForMost {
  readonly words: readonly string[];
  /** Readers who cannot read all of them, by name. */
  readonly without: readonly string[];
}

const MOST_OFFERED = 6;

/**
 * Words with a target that more than half of these readers can read but not all of them, with all targets taught: those that most can
 * read first, short and common ones before others. None where everyone can read the same.
 */
export function wordsForMost(
  lexicon: Lexicon,
  { readers, targets }: { readonly readers: readonly GroupReader[]; readonly targets: readonly Gpc[] },
): ForMost {
  const withTargets = readers.map(({ name, reads }) => ({ name, reads: withImplied([...reads, ...targets]) }));
  const anyone = new Set(withTargets.flatMap(({ reads }) => [...reads]));
  const found = targets.flatMap((target) => findWords({ lexicon, known: anyone, target }));
  const judged = [...new Map(found.map((word) => [word.text, word])).values()].map(({ text, units }) => {
    const cannot = withTargets.filter(({ reads }) => units.some(({ gpc, sound }) => sound !== "" && !reads.has(gpc)));
    return { text, cannot };
  });
  const offered = judged
    .filter(({ cannot }) => cannot.length > 0 && cannot.length * 2 < readers.length)
    .toSorted((one, other) => one.cannot.length - other.cannot.length)
    .slice(0, MOST_OFFERED);
  return {
    words: offered.map(({ text }) => text),
    without: readers
      .map(({ name }) => name)
      .filter((name) => offered.some(({ cannot }) => cannot.some((one) => one.name === name))),
  };
}
