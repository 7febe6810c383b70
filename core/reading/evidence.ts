import type { Gpc } from "#core/phonics";
import { type ExplainWanted, explain, misreadInWords, type UnitHeard } from "#core/words";
import { type Reading, textWords } from "./marks.ts";

/** What a misread word of a text says. */
export interface MisreadTold {
  readonly at: number;
  readonly word: string;
  readonly heard: string;
  readonly putRight: boolean;
  readonly units: readonly UnitHeard[];
  readonly says: readonly string[];
}

/** A spelling that failed in a reading: how often, and in which words. */
export interface FailedSpelling {
  readonly gpc: Gpc;
  readonly count: number;
  readonly words: readonly string[];
}

/** What each noted misread says, unit by unit, in the order of the text. One that is right in this accent says nothing. */
export function misreads(reading: Reading, wanted: ExplainWanted): readonly MisreadTold[] {
  const words = textWords(reading.text);
  const mended = new Set(reading.marks.filter((mark) => mark.kind === "putRight").map((mark) => mark.at));
  return reading.marks
    .flatMap((mark): MisreadTold[] => {
      const word = words[mark.at]?.text;
      if (mark.kind !== "misread" || mark.heard === null || word === undefined) return [];
      const told = explain(word, mark.heard, wanted);
      if (told.right) return [];
      const { at, heard } = mark;
      return [{ at, word, heard, putRight: mended.has(at), units: told.units, says: misreadInWords(told) }];
    })
    .sort((one, other) => one.at - other.at);
}

/** Spellings behind the misreads that stayed, most often first. */
export function failedSpellings(told: readonly MisreadTold[]): readonly FailedSpelling[] {
  const counts = new Map<Gpc, string[]>();
  for (const one of told) {
    if (one.putRight) continue;
    for (const { unit, outcome } of one.units)
      if (outcome !== "right" && unit.sound !== "") counts.set(unit.gpc, [...(counts.get(unit.gpc) ?? []), one.word]);
  }
  return [...counts]
    .map(([gpc, words]) => ({ gpc, count: words.length, words: [...new Set(words)] }))
    .sort((one, other) => other.count - one.count);
}

/** Sounds that were taken for one another in misreads, put right or not, each with its word. */
export function mixedUp(
  told: readonly MisreadTold[],
): readonly { readonly asked: string; readonly given: string; readonly word: string }[] {
  return told.flatMap(({ word, units }) =>
    units.flatMap(({ unit, outcome, heard }) =>
      outcome === "other" && heard.length === 1 ? [{ asked: unit.sound, given: heard[0] ?? "", word }] : [],
    ),
  );
}
