import {
  asIn,
  findCorrespondence,
  type Gpc,
  likelyConfusions,
  showGrapheme,
  soundsOfGrapheme,
  spellingsOfSound,
} from "#core/phonics";
import { changeBetween } from "./chains.ts";
import { type Dice, dice, shuffled } from "./chance.ts";
import { type FindWanted, findWords } from "./find.ts";
import type { Word } from "./lexicon.ts";
import { holds } from "./own-units.ts";
import type { Unit } from "./units.ts";

/** Words of one spelling, to be sorted against the others. */
export interface Heap {
  readonly gpc: Gpc;
  readonly words: readonly Word[];
}

export interface SortWanted extends Pick<FindWanted, "lexicon" | "known" | "avoid" | "band" | "syllables" | "seed"> {
  /** Words a heap. */
  readonly count: number;
}

/** One sound with its several spellings: a heap a known spelling that has words, biggest heaps first. */
export function sortBySpelling(sound: string, wanted: SortWanted): readonly Heap[] {
  return heaps(
    spellingsOfSound(sound).map((entry) => entry.gpc),
    wanted,
  );
}

/** One spelling with its several sounds: a heap a known sound that has words. */
export function sortBySound(grapheme: string, wanted: SortWanted): readonly Heap[] {
  return heaps(
    soundsOfGrapheme(grapheme).map((entry) => entry.gpc),
    wanted,
  );
}

/** Heaps of the given correspondences; words with two of them are left out, so that each belongs to one heap. */
export function heaps(gpcs: readonly Gpc[], wanted: SortWanted): readonly Heap[] {
  const readable = gpcs.filter((gpc) => wanted.known.has(gpc));
  return readable
    .map((gpc) => ({
      gpc,
      words: findWords({
        ...wanted,
        target: gpc,
        place: "balanced",
        avoid: [...(wanted.avoid ?? []), ...readable.filter((other) => other !== gpc)],
      }),
    }))
    .filter((heap) => heap.words.length > 0)
    .sort((one, other) => other.words.length - one.words.length);
}

/** Two words that differ in one unit only, whose two units are the confusion. */
export interface Pair {
  readonly one: Word;
  readonly other: Word;
  /** Index of the unit in which they differ. */
  readonly at: number;
}

export interface PairsWanted extends Pick<FindWanted, "lexicon" | "known" | "avoid" | "band" | "seed"> {
  readonly sounds: readonly [string, string];
  readonly count: number;
}

/** Minimal pairs for two sounds that a child takes for each other: *pin* and *pen* for i and e. */
export function minimalPairs({ sounds, count, ...wanted }: PairsWanted): readonly Pair[] {
  const [first, second] = sounds;
  const words = findWords(wanted);
  const patterns = new Map<string, { word: Word; at: number }[]>();
  for (const word of words)
    word.units.forEach((unit, at) => {
      if (unit.sound !== first && unit.sound !== second) return;
      const key = hidden(word.units, at);
      patterns.set(key, [...(patterns.get(key) ?? []), { word, at }]);
    });
  const pairs: Pair[] = [];
  for (const here of patterns.values()) {
    const one = here.find(({ word, at }) => word.units[at]?.sound === first);
    const other = here.find(({ word, at }) => word.units[at]?.sound === second);
    if (one && other) pairs.push({ one: one.word, other: other.word, at: one.at });
  }
  const ease = ({ one, other }: Pair) => one.units.length + one.band + other.band;
  return pairs.sort((one, other) => ease(one) - ease(other)).slice(0, count);
}

function hidden(units: readonly Unit[], at: number): string {
  return units.map((unit, i) => (i === at ? "*" : unit.sound)).join(" ");
}

/** A wrong choice of a four-choice item, and what choosing it says. */
export interface Choice {
  readonly word: Word;
  /** Missing for the right choice. */
  readonly confusion?: { readonly at: number; readonly from: Gpc; readonly to: Gpc } | undefined;
}

export interface FourChoice {
  readonly spoken: Word;
  /** Four words in the order in which they are shown; one of them is the spoken one. */
  readonly choices: readonly Choice[];
}

/**
 * Four-choice items: a spoken word and three real words that differ from it in exactly one unit each, so that the
 * choice names the confusion; units that children take for one another come first. At most `count`; spoken words have the target when one is given.
 */
export function fourChoices(wanted: FindWanted & { readonly count: number }): readonly FourChoice[] {
  const { count, target, seed = 0 } = wanted;
  const random = dice(seed);
  const all = findWords({
    ...wanted,
    known: target ? new Set([...wanted.known, target]) : wanted.known,
    target: undefined,
    place: undefined,
    count: undefined,
  });
  const byPattern = new Map<string, Word[]>();
  for (const word of all)
    word.units.forEach((_, at) => {
      const key = pattern(word, at);
      byPattern.set(key, [...(byPattern.get(key) ?? []), word]);
    });
  const spoken = target ? all.filter((word) => holds(word.units, target)) : all;
  const items: FourChoice[] = [];
  for (const word of mixedEarly(spoken, random)) {
    if (items.length === count) break;
    const item = itemOf(word, byPattern, random);
    if (item) items.push(item);
  }
  return items;
}

/** Shuffles within runs of forty, so that the easiest words stay near the front. */
function mixedEarly(words: readonly Word[], random: Dice): readonly Word[] {
  const mixed: Word[] = [];
  for (let at = 0; at < words.length; at += 40) mixed.push(...shuffled(words.slice(at, at + 40), random));
  return mixed;
}

function pattern(word: Word, at: number): string {
  return word.units.map((unit, i) => (i === at ? "*" : unit.gpc)).join(" ");
}

function itemOf(spoken: Word, byPattern: ReadonlyMap<string, readonly Word[]>, random: Dice): FourChoice | undefined {
  const wrong: Choice[] = [];
  const places = shuffled([...spoken.units.keys()], random);
  for (let round = 0; wrong.length < 3 && round < 4; round++) {
    for (const at of places) {
      const taken = new Set([spoken.text, ...wrong.map((choice) => choice.word.text)]);
      const options = (byPattern.get(pattern(spoken, at)) ?? []).filter(
        (word) => !taken.has(word.text) && sounding(word, spoken, at),
      );
      const likely = new Set(likelyConfusions(spoken.units[at]?.gpc ?? "", 8).map(({ sound }) => sound));
      const taking = options.filter((word) => likely.has(word.units[at]?.sound ?? ""));
      const from = taking.length > 0 ? taking : round > 0 ? options : [];
      const word = from[random.pick(Math.max(1, Math.min(from.length, 4)))];
      if (!word || wrong.length === 3) continue;
      wrong.push({ word, confusion: { at, from: spoken.units[at]?.gpc ?? "", to: word.units[at]?.gpc ?? "" } });
    }
  }
  if (wrong.length < 3) return undefined;
  return { spoken, choices: shuffled([{ word: spoken }, ...wrong], random) };
}

/** A choice that sounds like the spoken word would be right too. */
function sounding(word: Word, spoken: Word, at: number): boolean {
  return word.units[at]?.sound !== spoken.units[at]?.sound && changeBetween(spoken, word) !== undefined;
}

/** The spelling of a correspondence with its sound in plain words, for a heading: `ea as in leaf`. */
export function headingOf(gpc: Gpc): string {
  const entry = findCorrespondence(gpc);
  return entry ? `${showGrapheme(entry.grapheme)}${asIn(gpc)}` : gpc;
}
