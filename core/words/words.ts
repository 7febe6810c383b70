import { findCorrespondence, type Gpc, usualGpc } from "#core/phonics";
import { spellOut, type Unit, unitOf } from "./units.ts";

export interface Word {
  readonly text: string;
  readonly units: readonly Unit[];
}

export type Place = "start" | "middle" | "end";

/**
 * `c a_e k` → the units of *cake*. A spelling stands for its usual sound unless it says otherwise
 * (`b r ea=e d`). Throws when a correspondence is unknown: the list is data that ships and is tested.
 */
export function readUnits(notation: string): readonly Unit[] {
  return notation
    .trim()
    .split(/\s+/)
    .map((piece) => {
      const gpc = piece.includes("=") ? piece : usualGpc(piece);
      const entry = gpc === undefined ? undefined : findCorrespondence(gpc);
      if (!entry) throw new Error(`"${piece}" in "${notation}" is not a known correspondence`);
      return unitOf(entry.gpc);
    });
}

/**
 * Reads a word list: words separated by commas or line ends, each written as its units; `#` begins
 * a remark. The same text twice is kept once.
 */
export function readWordList(text: string): readonly Word[] {
  const words = new Map<string, Word>();
  for (const line of text.split("\n")) {
    for (const notation of (line.split("#")[0] ?? "").split(",")) {
      if (!notation.trim()) continue;
      const units = readUnits(notation);
      const spelled = spellOut(units);
      if (!words.has(spelled)) words.set(spelled, { text: spelled, units });
    }
  }
  return [...words.values()];
}

/** Where in the word the correspondence stands; undefined when the word does not have it. */
export function placeOf(word: Word, gpc: Gpc): Place | undefined {
  const at = word.units.findIndex((unit) => unit.gpc === gpc);
  if (at < 0) return undefined;
  if (at === 0) return "start";
  return at === word.units.length - 1 ? "end" : "middle";
}

/** The units of a word that are not among the known correspondences. Empty: the word is decodable. */
export function breakers(word: Word, known: ReadonlySet<Gpc>): readonly Unit[] {
  return word.units.filter((unit) => !known.has(unit.gpc));
}
