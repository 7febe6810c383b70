import { type Gpc, withImplied } from "#core/phonics";
import type { Lexicon } from "#core/words";

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
