import { type KnownBy, keyOf, type Lexicon, lexiconOf, sliceOf, type Word } from "./lexicon.ts";
import { split } from "./split.ts";

/** From which age a school's children know a word when they hear it, where the school says otherwise than the list. */
export interface OwnAge {
  readonly text: string;
  readonly knownBy: KnownBy;
}

const PLAIN_ENDINGS: ReadonlySet<string> = new Set(["s", "es", "ed", "d", "ing", "est"]);

const later: Readonly<Record<KnownBy, KnownBy>> = { 5: 7, 7: 9, 9: 12, 12: 12 };
/** The band of the rarest words. */
export const RARE_BAND = 5;

/** What a form is made of, and how. */
interface Form {
  readonly word: string;
  readonly band: number;
  /** The ages of its parts: of its base, or of the words that are joined in it. */
  readonly parts: readonly KnownBy[];
  /** The ending or beginning; none where words are joined. */
  readonly affix?: string | undefined;
}

/** Whether a form is known to whoever knows its base: who knows *boat* knows *boats*; *savings* is a thing that is named after a doing. */
function isPlainForm(word: string, ending: string): boolean {
  return PLAIN_ENDINGS.has(ending) && !word.endsWith("ings");
}

/**
 * The age of a form of other words: a plain form as its base; any other two years after the last of its parts, and a rare one two
 * years later still.
 */
export function ageOfForm({ word, band, parts, affix }: Form): KnownBy {
  const base = Math.max(...parts) as KnownBy;
  const made = affix !== undefined && isPlainForm(word, affix) ? base : later[base];
  return band < RARE_BAND ? made : later[made];
}

/**
 * The lexicon with a school's own ages laid over it: they hold for the word in all its readings, and for its plain forms as for those
 * of any word.
 */
export function withOwnAges(lexicon: Lexicon, own: readonly OwnAge[]): Lexicon {
  if (own.length === 0) return lexicon;
  const ages = new Map(own.map(({ text, knownBy }) => [keyOf(text), knownBy]));
  const beginnings = new Set([...ages.keys()].map((key) => key.slice(0, 2)));
  const ofForm = ({ text, band, joints }: Word): KnownBy | undefined => {
    if (joints.length === 0 || !beginnings.has(keyOf(text).slice(0, 2))) return undefined;
    const parts = split(text, { lexicon })[0]?.morphemes;
    if (!parts || parts.beginnings.length > 0 || parts.endings.length !== 1 || parts.parts.length > 1)
      return undefined;
    const [affix = ""] = parts.endings;
    const base = ages.get(keyOf(parts.base));
    return base !== undefined && isPlainForm(text, affix)
      ? ageOfForm({ word: text, band, parts: [base], affix })
      : undefined;
  };
  // The same word gives the same object.
  const aged = new WeakMap<Word, Word>();
  const age = (word: Word): Word => {
    const known = aged.get(word);
    if (known) return known;
    const knownBy = ages.get(keyOf(word.text)) ?? ofForm(word) ?? word.knownBy;
    const made = knownBy === word.knownBy ? word : { ...word, knownBy };
    aged.set(word, made);
    return made;
  };
  function* each() {
    for (const word of lexicon.each()) yield age(word);
  }
  return lexiconOf(each, (asked) => lexicon.find(asked).map(age), lexicon.ownUnits);
}

const narrowed = new WeakMap<Lexicon, Map<KnownBy, Lexicon>>();

/**
 * The lexicon with only such words on offer as children of an age know when they hear them; any word can still be found in it. The
 * same lexicon and age give the same object.
 * @param age 12 offers every word
 */
export function withinAge(lexicon: Lexicon, age: KnownBy): Lexicon {
  if (age === 12) return lexicon;
  const known = narrowed.get(lexicon) ?? new Map<KnownBy, Lexicon>();
  narrowed.set(lexicon, known);
  const before = known.get(age);
  if (before) return before;
  const made = sliceOf(lexicon, ({ knownBy }) => knownBy <= age);
  known.set(age, made);
  return made;
}

/** The age of the youngest of some readers; every word where there is none. */
export function youngestOf(ages: readonly KnownBy[]): KnownBy {
  return Math.min(12, ...ages) as KnownBy;
}
