import { findCorrespondence, type Gpc, joinLetters, splitGpc } from "#core/phonics";

/** One sound of a word with the letters that spell it. */
export interface Unit {
  readonly gpc: Gpc;
  readonly grapheme: string;
  /** A key of `sounds`; empty for letters that spell nothing the tool knows. */
  readonly sound: string;
  /** The vowel of *bath*: said as in *trap* or as in *start*, by accent. */
  readonly bath?: true | undefined;
}

const made = new Map<Gpc, Unit>();
const baths = new Map<Gpc, Unit>();

/** The unit of a correspondence; the same object for the same text, so that a lexicon stays small in memory. */
export function unitOf(gpc: Gpc): Unit {
  const known = made.get(gpc);
  if (known) return known;
  const entry = findCorrespondence(gpc);
  const unit: Unit = entry
    ? { gpc: entry.gpc, grapheme: entry.grapheme, sound: entry.sound }
    : { gpc, ...splitGpc(gpc) };
  made.set(gpc, unit);
  return unit;
}

/** The same unit, marked as the vowel of *bath*. */
export function bathUnit(gpc: Gpc): Unit {
  const known = baths.get(gpc);
  if (known) return known;
  const unit: Unit = { ...unitOf(gpc), bath: true };
  baths.set(gpc, unit);
  return unit;
}

/** The letters of the units in writing order: a split digraph's e comes after the unit it closes over. */
export function spellOut(units: readonly Unit[]): string {
  return joinLetters(units.map(({ grapheme }) => grapheme));
}

/**
 * Where the letters of each unit stand among the letters of the word, counted from 0; a split digraph has
 * two positions that are not neighbours.
 */
export function positionsOf(units: readonly Unit[]): readonly (readonly number[])[] {
  const found: (readonly number[])[] = [];
  let at = 0;
  let open = -1;
  for (const { grapheme } of units) {
    const split = grapheme.length > 2 && grapheme.charAt(1) === "_";
    const size = split ? 1 : grapheme.length;
    found.push(run(at, size));
    at += size;
    if (open >= 0) found[open] = [...(found[open] ?? []), at++];
    open = split ? found.length - 1 : -1;
  }
  if (open >= 0) found[open] = [...(found[open] ?? []), at];
  return found;
}

/** Runs of positions, kept: most units of most words stand at the same few places. */
const runs: (readonly number[])[][] = [];

function run(from: number, size: number): readonly number[] {
  runs[from] ??= [];
  const row = runs[from] as (readonly number[])[];
  row[size] ??= Array.from({ length: size }, (_, i) => from + i);
  return row[size] as readonly number[];
}
