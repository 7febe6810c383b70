import { type Accent, type Gpc, withImplied } from "#core/phonics";
import { keyOf, type Lexicon } from "./lexicon.ts";
import { laidOn, ownUnitsIn, unread } from "./own-units.ts";
import { countSyllables } from "./shape.ts";
import { type Source, split, type WordSplit } from "./split.ts";
import type { Unit } from "./units.ts";

/**
 * What a word is for these children.
 * `ready`: every unit is known. `target`: readable, and it practises what is being taught. `exception`: taught as a
 * word of its own before all its units. `not yet`: some unit is not known. `sign`: a number or other sign.
 */
export type Verdict = "ready" | "target" | "exception" | "not yet" | "sign";

export interface WordVerdict {
  /** The word as it stands in the text, without the marks around it. */
  readonly text: string;
  /** Position of its first letter in the text, counted from 0. */
  readonly at: number;
  readonly verdict: Verdict;
  readonly reading: WordSplit;
  /** Indexes of the units in the way, or of the unexpected part of an exception word. */
  readonly unexpected: readonly number[];
  /** Units of the word that are being taught. */
  readonly practises: readonly Gpc[];
  readonly source: Source;
}

export interface TextVerdict {
  readonly words: readonly WordVerdict[];
  /** Running words and different words of the text, numbers left out. */
  readonly running: number;
  readonly different: number;
  /** Shares, 0 to 1, of words that can be read (ready, target or exception); 1 for a text without words. */
  readonly shareOfRunning: number;
  readonly shareOfDifferent: number;
  /** How often each spelling that is being taught stands in the text, most often first. */
  readonly practised: readonly { readonly gpc: Gpc; readonly count: number }[];
  /** Spellings in the way, most often first, with the words that have them. */
  readonly inTheWay: readonly { readonly gpc: Gpc; readonly count: number; readonly words: readonly string[] }[];
  readonly exceptionWords: readonly string[];
  /** Words of three or more syllables, or with a beginning or ending on a base, each once. */
  readonly longWords: readonly WordVerdict[];
}

/** A word of a verdict with what is drawn of it, plain, so that it can go from a worker to a page. */
export interface MarkedWord extends Pick<WordVerdict, "text" | "at" | "verdict" | "unexpected" | "source"> {
  readonly units: readonly Unit[];
}

/** The words of a verdict as they are drawn in their text. */
export function markedWords({ words }: Pick<TextVerdict, "words">): readonly MarkedWord[] {
  return words.map(({ text, at, verdict, unexpected, source, reading }) => ({
    text,
    at,
    verdict,
    unexpected,
    source,
    units: [...reading.units],
  }));
}

export interface DecodabilityWanted {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
  /** Exception words that have been taught, in any case. */
  readonly wholes?: ReadonlySet<string> | undefined;
}

/** A child or a group, and all that says what they can read. */
export interface TaughtReader extends DecodabilityWanted {
  readonly known: ReadonlySet<Gpc>;
  readonly teaching: ReadonlySet<Gpc>;
}

const WORD = /[\p{L}\p{M}\p{N}]+(?:['’ʼ-][\p{L}\p{M}\p{N}]+)*/gu;

/** The words of a text with their positions: apostrophes and hyphens inside a word stay, all other marks fall away. */
export function wordsOf(text: string): readonly { readonly text: string; readonly at: number }[] {
  return [...text.matchAll(WORD)].map((match) => ({ text: match[0], at: match.index }));
}

/**
 * What children who know `known`, and are being taught `teaching`, can read of a text, word by word and as a whole.
 * A word with several readings is taken in the one that they can read, else in the commonest. Any text is taken.
 */
export function decodability(
  text: string,
  known: ReadonlySet<Gpc>,
  teaching: ReadonlySet<Gpc>,
  wanted: DecodabilityWanted,
): TextVerdict {
  const { lexicon, accent, wholes } = wanted;
  const reader: TaughtReader = { known, teaching, lexicon, accent, wholes };
  const seen = new Map<string, Omit<WordVerdict, "text" | "at">>();
  const words = wordsOf(text).map((word): WordVerdict => {
    const key = keyOf(word.text);
    let judged = seen.get(key);
    if (!judged) {
      judged = judge(word.text, reader);
      seen.set(key, judged);
    }
    const { verdict, reading, unexpected, practises, source } = judged;
    return { text: word.text, at: word.at, verdict, reading, unexpected, practises, source };
  });
  return summed(words);
}

/** The verdict on one word. */
export function judgeWord(word: string, reader: TaughtReader): WordVerdict {
  return { text: word, at: 0, ...judge(word, reader) };
}

/** The verdict on each word of a text. */
export function judgeText(text: string, reader: TaughtReader): readonly WordVerdict[] {
  return decodability(text, reader.known, reader.teaching, reader).words;
}

const readables = new WeakMap<ReadonlySet<Gpc>, WeakMap<ReadonlySet<Gpc>, ReadonlySet<Gpc>>>();

/** What can be read with both sets, worked out once for the pair of them: a text asks for every word. */
function readableTo(known: ReadonlySet<Gpc>, teaching: ReadonlySet<Gpc>): ReadonlySet<Gpc> {
  const byTeaching = readables.get(known) ?? new WeakMap<ReadonlySet<Gpc>, ReadonlySet<Gpc>>();
  readables.set(known, byTeaching);
  const made = byTeaching.get(teaching) ?? withImplied([...known, ...teaching]);
  byTeaching.set(teaching, made);
  return made;
}

function judge(
  word: string,
  { known, teaching, lexicon, accent, wholes }: TaughtReader,
): Omit<WordVerdict, "text" | "at"> {
  const readable = readableTo(known, teaching);
  const judged = split(word, { lexicon, accent }).map((reading) => ({
    reading,
    unexpected: unread(
      reading.units.map((unit) => unit.gpc),
      readable,
    ),
  }));
  const guessed = judged[0]?.reading.source === "rules";
  const best = (guessed ? undefined : judged.find((one) => one.unexpected.length === 0)) ?? judged[0];
  const reading = best?.reading ?? (split("", { lexicon })[0] as WordSplit);
  const unexpected = best?.unexpected ?? [];
  const gpcs = reading.units.map((unit) => unit.gpc);
  const units = laidOn(gpcs, ownUnitsIn(teaching)).map(({ gpc }) => gpc);
  const practises = [...new Set([...gpcs.filter((gpc) => teaching.has(gpc)), ...units])];
  return { verdict: verdictOf(), reading, unexpected, practises, source: reading.source };

  function verdictOf(): Verdict {
    if (!/\p{L}/u.test(word)) return "sign";
    if (unexpected.length > 0) return wholes?.has(keyOf(word)) ? "exception" : "not yet";
    return practises.length > 0 ? "target" : "ready";
  }
}

function summed(words: readonly WordVerdict[]): TextVerdict {
  const spoken = words.filter((word) => word.verdict !== "sign");
  const different = [...new Map(spoken.map((word) => [keyOf(word.text), word])).values()];
  const can = (word: WordVerdict) => word.verdict !== "not yet";
  const share = (list: readonly WordVerdict[]) => (list.length === 0 ? 1 : list.filter(can).length / list.length);
  const practised = new Map<Gpc, number>();
  const inTheWay = new Map<Gpc, { count: number; words: Set<string> }>();
  for (const word of spoken) {
    for (const gpc of word.practises) practised.set(gpc, (practised.get(gpc) ?? 0) + 1);
    if (word.verdict !== "not yet") continue;
    for (const at of word.unexpected) {
      const gpc = word.reading.units[at]?.gpc ?? "";
      const found = inTheWay.get(gpc) ?? { count: 0, words: new Set() };
      found.count++;
      found.words.add(keyOf(word.text));
      inTheWay.set(gpc, found);
    }
  }
  return {
    words,
    running: spoken.length,
    different: different.length,
    shareOfRunning: share(spoken),
    shareOfDifferent: share(different),
    practised: [...practised].map(([gpc, count]) => ({ gpc, count })).sort((one, other) => other.count - one.count),
    inTheWay: [...inTheWay]
      .map(([gpc, found]) => ({ gpc, count: found.count, words: [...found.words] }))
      .sort((one, other) => other.count - one.count),
    exceptionWords: different.filter((word) => word.verdict === "exception").map((word) => keyOf(word.text)),
    get longWords() {
      return different.filter(isLong);
    },
  };
}

function isLong({ reading }: WordVerdict): boolean {
  const { beginnings, endings } = reading.morphemes;
  return countSyllables(reading.units) >= 3 || beginnings.length + endings.length > 0;
}
