import { isPlainForm, type KnownBy } from "#core/words";

/** What the file of ages says of a word. */
export interface AgeMark {
  readonly knownBy: KnownBy;
  readonly drawn: boolean;
}

const ages: Readonly<Record<string, KnownBy>> = { "5": 5, "7": 7, "9": 9, later: 12 };

/** Reads `data/lexicon/ages.txt`: lines as `7: able acorn*`, remarks with `#`. Throws on a line of another form and on a word that stands twice. */
export function readAges(text: string): ReadonlyMap<string, AgeMark> {
  const found = new Map<string, AgeMark>();
  for (const line of text.split("\n")) {
    if (line === "" || line.startsWith("#")) continue;
    const [name = "", words = ""] = line.split(": ");
    const knownBy = ages[name];
    if (!knownBy) throw new Error(`"${line.slice(0, 40)}" begins with no age`);
    for (const marked of words.split(" ")) {
      const word = marked.replace("*", "");
      if (found.has(word)) throw new Error(`"${word}" has two ages`);
      found.set(word, { knownBy, drawn: marked.endsWith("*") });
    }
  }
  return found;
}

const later: Readonly<Record<KnownBy, KnownBy>> = { 5: 7, 7: 9, 9: 12, 12: 12 };
export const RARE_BAND = 5;

/** What a form is made of, and how. */
export interface Form {
  readonly word: string;
  readonly band: number;
  /** The ages of its parts: of its base, or of the words that are joined in it. */
  readonly parts: readonly KnownBy[];
  /** The ending or beginning; none where words are joined. */
  readonly affix?: string | undefined;
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
