import { keyOf, type Lexicon } from "./lexicon.ts";

/** Reads what is said of words, a sentence or a meaning: `word: what is said` a line, remarks with `#`. */
export function readSaidOfWords(text: string): ReadonlyMap<string, string> {
  return new Map(
    text
      .split("\n")
      .filter((line) => line !== "" && !line.startsWith("#"))
      .map((line) => {
        const at = line.indexOf(": ");
        return [keyOf(line.slice(0, at)), line.slice(at + 2).trim()] as const;
      }),
  );
}

/** Longer ones are hard to keep in mind. */
const MOST_WORDS = 9;

/**
 * The sentences in which words can be said when they are dictated, by word: of our own the shortest that has the word, else the one
 * that was written for it.
 */
export function carriersFrom(
  sentences: readonly string[],
  written: ReadonlyMap<string, string>,
): ReadonlyMap<string, string> {
  const found = new Map(written);
  const lengths = new Map<string, number>();
  for (const sentence of sentences) {
    const words = sentence.match(/[\p{L}]+(?:['’][\p{L}]+)*/gu) ?? [];
    if (words.length > MOST_WORDS || sentence.endsWith("?")) continue;
    for (const word of new Set(words.map(keyOf))) {
      if (written.has(word) || (lengths.get(word) ?? Number.POSITIVE_INFINITY) <= words.length) continue;
      lengths.set(word, words.length);
      found.set(word, sentence);
    }
  }
  return found;
}

const alike = new WeakMap<Lexicon, ReadonlyMap<string, readonly string[]>>();

/** The words on offer by their sounds. */
function bySounds(lexicon: Lexicon): ReadonlyMap<string, readonly string[]> {
  const known = alike.get(lexicon);
  if (known) return known;
  const found = new Map<string, string[]>();
  for (const { text } of lexicon.each())
    for (const key of new Set(lexicon.find(text).map(soundsIn))) {
      const words = found.get(key);
      if (words) words.push(text);
      else found.set(key, [text]);
    }
  alike.set(lexicon, found);
  return found;
}

const soundsIn = ({ units }: { readonly units: readonly { readonly sound: string }[] }) =>
  units
    .map(({ sound }) => sound)
    .filter(Boolean)
    .join(" ");

/** Whether another word on offer sounds the same: heard alone, it could be either. */
export function soundsLikeAnother(text: string, lexicon: Lexicon): boolean {
  const words = bySounds(lexicon);
  return lexicon.find(text).some((reading) => (words.get(soundsIn(reading))?.length ?? 0) > 1);
}

/** The other words on offer that sound the same in one of their readings, in alphabetical order. */
export function wordsSoundingLike(text: string, lexicon: Lexicon): readonly string[] {
  const words = bySounds(lexicon);
  const others = lexicon.find(text).flatMap((reading) => words.get(soundsIn(reading)) ?? []);
  return [...new Set(others)].filter((word) => keyOf(word) !== keyOf(text)).sort();
}
