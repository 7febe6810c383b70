import { correspondences, type Gpc, soundsOfGrapheme, splitGpc, usualGpc } from "#core/phonics";
import type { Unit } from "./units.ts";
import type { Word } from "./words.ts";

const longest = Math.max(...correspondences.map((entry) => entry.grapheme.length));

/** Letters that spell one sound in a few words only; in a word no one has split they are likelier to be two units. */
const tooRare = new Set([
  "st",
  "ps",
  "mn",
  "bt",
  "lk",
  "bu",
  "gu",
  "gh",
  "rh",
  "dj",
  "sc",
  "cc",
  "uy",
  "ye",
  "eo",
  "ae",
]);
const onlyAtEnd = new Set(["le", "el", "al", "il", "re", "se", "ze", "ve", "ge", "ce", "the", "que", "ed", "mb"]);

/** A single vowel letter (not the second of two, but after qu), one consonant, final e. */
const splitPattern = /^((?:.*(?:[^aeiou]|qu))?)([aeiou])([bcdfghjklmnpqrstvwxz]|th|ch|sh)e$/;

/**
 * Splits a word that is not in the list, by rule only: a final split digraph first, then the longest
 * known spelling at each letter, with a sound that is among `known` where there is one. A guess, to be
 * shown as such; letters that spell nothing stand as units with no sound.
 */
export function guessUnits(text: string, known: ReadonlySet<Gpc>): readonly Unit[] {
  const letters = text.toLowerCase().replace(/[^a-z]/g, "");
  const split = splitPattern.exec(letters);
  if (split) {
    const [, before = "", vowel = "", consonant = ""] = split;
    const gpc = usualGpc(`${vowel}_e`);
    if (gpc && before + vowel !== "") {
      const closing = takeLongest(consonant, known);
      return [...takeLongest(before, known), toUnit(gpc), ...closing];
    }
  }
  return takeLongest(letters, known);
}

function takeLongest(letters: string, known: ReadonlySet<Gpc>): Unit[] {
  const units: Unit[] = [];
  let at = 0;
  while (at < letters.length) {
    const { grapheme, gpc } = longestAt(letters, at, known);
    units.push(gpc === undefined ? { gpc: `${grapheme}=`, grapheme, sound: "" } : toUnit(gpc));
    at += grapheme.length;
  }
  return units;
}

function longestAt(letters: string, at: number, known: ReadonlySet<Gpc>): { grapheme: string; gpc?: Gpc } {
  for (let size = longest; size > 0; size--) {
    const grapheme = letters.slice(at, at + size);
    if (tooRare.has(grapheme) || (onlyAtEnd.has(grapheme) && at + size < letters.length)) continue;
    const entries = grapheme.length === size ? soundsOfGrapheme(grapheme) : [];
    const gpc = entries.find((entry) => known.has(entry.gpc))?.gpc ?? usualGpc(grapheme) ?? entries[0]?.gpc;
    if (gpc !== undefined) return { grapheme, gpc };
  }
  return { grapheme: letters.charAt(at) };
}

function toUnit(gpc: Gpc): Unit {
  return { gpc, ...splitGpc(gpc) };
}

export interface WordVerdict {
  readonly text: string;
  readonly units: readonly Unit[];
  /** `listed`: split by hand in the list. `guessed`: split by rule, worth a look. `whole`: a taught exception word. */
  readonly source: "listed" | "guessed" | "whole";
  /** Units that stand in the way. Empty: the child can read it. */
  readonly breakers: readonly Unit[];
}

/** Everything needed to say whether a word or a sentence can be read. */
export interface Reader {
  readonly known: ReadonlySet<Gpc>;
  /** Exception words read as wholes, in lower case. */
  readonly wholes: ReadonlySet<string>;
  readonly words: ReadonlyMap<string, Word>;
}

/** Says of one word whether it can be read and, if not, which spellings break it. */
export function judgeWord(text: string, reader: Reader): WordVerdict {
  const key = text.toLowerCase();
  const listed = reader.words.get(key);
  const units = listed?.units ?? guessUnits(key, reader.known);
  if (reader.wholes.has(key)) return { text, units, source: "whole", breakers: [] };
  const found = units.filter((unit) => !reader.known.has(unit.gpc));
  return { text, units, source: listed ? "listed" : "guessed", breakers: found };
}

/** The words of a text in order, without punctuation; an apostrophe inside a word stays. */
export function wordsOf(text: string): readonly string[] {
  return text.match(/[A-Za-z]+(?:['’][A-Za-z]+)*/g) ?? [];
}

/** The verdict on every word of a sentence, in order. */
export function judgeText(text: string, reader: Reader): readonly WordVerdict[] {
  return wordsOf(text).map((word) => judgeWord(word, reader));
}
