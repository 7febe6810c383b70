import {
  countSyllables,
  type FindWanted,
  findMadeUp,
  findWords,
  holdsAny,
  type readWordItem,
  shapeOf,
  syllableStarts,
  type Unit,
  type Word,
} from "#core/words";
import type { BlockId, CommonSection } from "../section.ts";
import type { AskOf } from "./kind.ts";

interface Block {
  readonly name: string;
  readonly example: string;
  readonly shapes: readonly string[];
  readonly syllables: number | readonly [number, number];
  /** Words built with an ending, or words without one. */
  readonly endings: boolean;
}

const block = (name: string, example: string, shapes: string, rest: Partial<Block> = {}): Block => ({
  name,
  example,
  shapes: shapes.split(" ").filter(Boolean),
  syllables: 1,
  endings: false,
  ...rest,
});

/** Blocks of words by the number and place of their sounds, from short to long. */
export const blocks: Readonly<Record<BlockId, Block>> = {
  two: block("Two sounds", "at, shy", "VC CV"),
  three: block("Three sounds", "pin, boat", "CVC"),
  fourEnd: block("Four, cluster at the end", "belt, tent", "CVCC"),
  fourStart: block("Four, cluster at the start", "frog, tree", "CCVC"),
  five: block("Five sounds", "blend, strap", "CCVCC CCCVC CVCCC CCCVCC CCVCCC"),
  twoSyllables: block("Two syllables", "rabbit, garden", "", { syllables: 2 }),
  endings: block("With an ending", "jumping, boats", "", { syllables: [1, 3], endings: true }),
  longer: block("Longer words", "remember, butterfly", "", { syllables: [3, 6] }),
};

/** The block that a word belongs to by its units and its joints. */
function blockOf(units: readonly Unit[], shape: string, joints: readonly number[]): BlockId | undefined {
  if (joints.length > 0) return "endings";
  const syllables = countSyllables(units);
  if (syllables === 2) return "twoSyllables";
  if (syllables > 2) return "longer";
  const found = Object.entries(blocks).find(([, one]) => one.shapes.includes(shape));
  return found?.[0] as BlockId | undefined;
}

/** What the block of a word is called. */
export function blockNameOf({
  units,
  joints,
  stressed,
}: Pick<ReturnType<typeof readWordItem>, "units" | "joints" | "stressed">): string {
  const block = blockOf(units, shapeOf(units, syllableStarts(units, stressed, joints)), joints);
  return block ? blocks[block].name : "Other words";
}

/** A word of one or two letters more than its block needs is no help: *I* and *a* are words of one sound. */
const COMMON = 4;

export interface BlockWords {
  readonly real: readonly Word[];
  readonly madeUp: readonly { readonly text: string; readonly units: readonly Unit[] }[];
}

/**
 * Words of a block that have only taught spellings. Half of them are made up where that is wanted and there are
 * such words (made-up words have one or two syllables and no ending). Words with a spelling that is due come first
 * when the section asks for what is due.
 */
export function wordsOfBlock(id: BlockId, ask: AskOf<CommonSection & { readonly madeUp: boolean }>): BlockWords {
  const { section, settings, taught, recent, lexicon, seed } = ask;
  const one = blocks[id];
  const known = new Set(taught);
  const wanted: FindWanted = {
    lexicon,
    known,
    band: COMMON,
    seed,
    syllables: one.syllables,
    ...(one.shapes.length > 0 ? { shape: one.shapes } : {}),
  };
  const madeUpToo = section.madeUp && settings.madeUp && !one.endings && id !== "longer";
  const focus = new Set(
    section.scope === "recent" ? recent : section.scope === "due" ? taught.filter((gpc) => !ask.secure.has(gpc)) : [],
  );
  const fits = (word: Word) => (one.endings ? word.joints.length > 0 : word.joints.length === 0);
  const all = focusFirst(findWords(wanted).filter(fits), focus);
  const made = madeUpToo
    ? focusFirst(
        findMadeUp({
          madeUp: ask.madeUp,
          known,
          shape: one.shapes.length > 0 ? one.shapes : undefined,
          count: ask.madeUp.length,
          seed,
        }).filter((word) => one.shapes.length > 0 || countSyllables(word.units) === 2),
        focus,
      )
    : [];
  const half = Math.min(made.length, Math.floor(section.most / 2));
  return { real: spread(all, section.most - half), madeUp: spread(made, half) };
}

function focusFirst<T extends { readonly units: readonly Unit[] }>(
  words: readonly T[],
  focus: ReadonlySet<string>,
): readonly T[] {
  if (focus.size === 0) return words;
  const has = (word: T) => holdsAny(word.units, focus);
  return [...words.filter(has), ...words.filter((word) => !has(word))];
}

/** Takes words one by one so that their vowels and first sounds differ as long as they can. */
function spread<T extends { readonly units: readonly Unit[] }>(words: readonly T[], count: number): readonly T[] {
  const taken: T[] = [];
  const used = new Map<string, number>();
  const pool = words.slice(0, Math.max(60, count));
  while (taken.length < count && pool.length > 0) {
    let best = 0;
    let least = Number.POSITIVE_INFINITY;
    for (const [at, word] of pool.entries()) {
      const worn = word.units.reduce((sum, unit) => sum + (used.get(unit.gpc) ?? 0), 0) / word.units.length;
      const cost = worn + at * 0.01;
      if (cost < least) {
        best = at;
        least = cost;
      }
    }
    const [word] = pool.splice(best, 1);
    if (!word) break;
    for (const unit of word.units) used.set(unit.gpc, (used.get(unit.gpc) ?? 0) + 1);
    taken.push(word);
  }
  return taken;
}
