import type { Gpc } from "#core/phonics";
import { type Dice, dice, shuffled } from "./chance.ts";
import type { FindWanted } from "./find.ts";
import { findWords } from "./find.ts";
import { Kept } from "./kept.ts";
import type { Lexicon, Word } from "./lexicon.ts";
import { holdsAny } from "./own-units.ts";

/** How a word of a chain differs from the one before it: exactly one unit. */
export interface Change {
  readonly kind: "changed" | "added" | "removed";
  /** Index of the unit in the longer of the two words (in the new word when changed). */
  readonly at: number;
  readonly from?: Gpc | undefined;
  readonly to?: Gpc | undefined;
}

export interface Link {
  readonly word: Word;
  /** Missing for the first word. */
  readonly change?: Change | undefined;
}

export type Chain =
  | { readonly ok: true; readonly links: readonly Link[] }
  | { readonly ok: false; readonly reason: string };

export interface ChainWanted extends Pick<FindWanted, "lexicon" | "known" | "target" | "avoid" | "band"> {
  /** Spellings that the changes should turn on, two or more; any spelling when left out. */
  readonly contrast?: readonly Gpc[] | undefined;
  /** Words in the chain, 6 to 20. */
  readonly steps: number;
  /** The word to begin with; any when left out. */
  readonly first?: string | undefined;
  readonly seed?: number | undefined;
}

/** Words of a chain at least. */
export const LEAST_STEPS = 6;
/** Words of a chain at most. */
export const MOST_STEPS = 20;
/** Beginnings tried: the chain that turns on the contrast most often is taken. */
const TRIES = 40;
/** Words looked at from one beginning before it is given up. */
const LOOKS = 150;
const LONGEST = 6;
/** Beginnings that are weighed: the easiest words that have what is practised. */
const MOST_STARTS = 120;

/** The one unit in which two words differ; undefined when they differ in none or in more. */
export function changeBetween(one: Word, other: Word): Change | undefined {
  const a = one.units.map((unit) => unit.gpc);
  const b = other.units.map((unit) => unit.gpc);
  if (Math.abs(a.length - b.length) > 1) return undefined;
  let at = 0;
  while (at < a.length && at < b.length && a[at] === b[at]) at++;
  const rest = (list: readonly Gpc[], from: number) => list.slice(from).join(" ");
  if (a.length === b.length)
    return at < a.length && rest(a, at + 1) === rest(b, at + 1)
      ? { kind: "changed", at, from: a[at], to: b[at] }
      : undefined;
  if (a.length < b.length) return rest(a, at) === rest(b, at + 1) ? { kind: "added", at, to: b[at] } : undefined;
  return rest(a, at + 1) === rest(b, at) ? { kind: "removed", at, from: a[at] } : undefined;
}

/** Words that differ in one unit, found by the pattern that is left when one unit is hidden or taken out. */
class Neighbourhood {
  private readonly byPattern = new Map<string, Word[]>();
  constructor(private readonly words: readonly Word[]) {
    for (const word of words) for (const pattern of patterns(word)) this.add(pattern, word);
  }
  private add(pattern: string, word: Word): void {
    const here = this.byPattern.get(pattern);
    if (here) here.push(word);
    else this.byPattern.set(pattern, [word]);
  }
  of(word: Word): readonly Word[] {
    const found = new Set<Word>();
    for (const pattern of patterns(word))
      for (const other of this.byPattern.get(pattern) ?? []) if (other !== word) found.add(other);
    return [...found];
  }
  get all(): readonly Word[] {
    return this.words;
  }
}

/** So many neighbourhoods are kept a lexicon: groups take turns, and each asks for several chains. */
const MOST_NEAR = 12;
const nearby = new WeakMap<Lexicon, Kept<string, Neighbourhood>>();

/** The words that these children can read, with their neighbours. */
function neighbourhoodOf({ lexicon, known, target, contrast = [], avoid = [], band }: ChainWanted): Neighbourhood {
  const kept = nearby.get(lexicon) ?? new Kept<string, Neighbourhood>(MOST_NEAR);
  nearby.set(lexicon, kept);
  const readable = new Set([...known, ...contrast, ...(target ? [target] : [])]);
  return kept.of(JSON.stringify([[...readable].sort(), [...avoid].sort(), band]), () => {
    const words = findWords({ lexicon, known: readable, avoid, band });
    return new Neighbourhood(words.filter((word) => word.units.length <= LONGEST));
  });
}

/** The patterns of a word: itself without each unit, marked so that only longer words meet it, and each unit hidden. */
function patterns(word: Word): readonly string[] {
  const gpcs = word.units.map((unit) => unit.gpc);
  const hidden = gpcs.map((_, at) => [...gpcs.slice(0, at), "*", ...gpcs.slice(at + 1)].join(" "));
  const shorter = gpcs.map((_, at) => `-${[...gpcs.slice(0, at), ...gpcs.slice(at + 1)].join(" ")}`);
  return [...hidden, ...shorter, `-${gpcs.join(" ")}`];
}

/**
 * A chain of words, each differing from the last by exactly one unit, all readable, none twice. Changes between the
 * contrasted spellings are preferred where there are any. Says so when none of the asked length exists.
 */
export function chain(wanted: ChainWanted): Chain {
  const { steps, contrast = [], seed = 0 } = wanted;
  if (!Number.isInteger(steps) || steps < LEAST_STEPS || steps > MOST_STEPS)
    return { ok: false, reason: `A chain has ${LEAST_STEPS} to ${MOST_STEPS} words.` };
  const near = neighbourhoodOf(wanted);
  const words = near.all;
  const random = dice(seed);
  const turns = new Set(contrast);
  const first =
    wanted.first === undefined ? undefined : words.find((word) => word.text === wanted.first?.toLowerCase());
  if (wanted.first !== undefined && !first)
    return {
      ok: false,
      reason: `“${wanted.first}” cannot be read with what these children know, or is not in the word list.`,
    };
  const starts = first ? [first] : startsFor(words, wanted, near, random);
  let best: { links: readonly Link[]; turned: number } | undefined;
  for (const start of starts.slice(0, TRIES)) {
    const way = { near, steps, turns, random, budget: { looks: LOOKS } };
    const links = walk([{ word: start }], new Set([start.text]), way);
    if (!links) continue;
    const turned = links.filter(({ change }) => change && turnsOn(change, turns)).length;
    if (!best || turned > best.turned) best = { links, turned };
    if (turns.size < 2 || turned >= steps / 2) break;
  }
  if (best) return { ok: true, links: best.links };
  return {
    ok: false,
    reason: `No chain of ${steps} words was found with what these children know. Ask for fewer words, or for other spellings.`,
  };
}

function startsFor(
  words: readonly Word[],
  { target, contrast = [] }: ChainWanted,
  near: Neighbourhood,
  random: Dice,
): readonly Word[] {
  const wished = new Set([...(target ? [target] : []), ...contrast]);
  const having = words.filter((word) => wished.size === 0 || holdsAny(word.units, wished));
  const turns = new Set(contrast);
  const first = shuffled(having.slice(0, MOST_STARTS), random);
  const turning = (word: Word) =>
    near.of(word).some((other) => turnsOn(changeBetween(word, other) ?? { kind: "changed", at: 0 }, turns));
  return turns.size < 2 ? first : [...first.filter(turning), ...first.filter((word) => !turning(word))];
}

interface Walk {
  readonly near: Neighbourhood;
  readonly steps: number;
  readonly turns: ReadonlySet<Gpc>;
  readonly random: Dice;
  readonly budget: { looks: number };
}

function walk(links: readonly Link[], used: Set<string>, way: Walk): readonly Link[] | undefined {
  if (links.length === way.steps) return links;
  const last = links[links.length - 1];
  if (!last || way.budget.looks-- <= 0) return undefined;
  const next = way.near
    .of(last.word)
    .filter((word) => !used.has(word.text))
    .flatMap((word) => {
      const change = changeBetween(last.word, word);
      return change ? [{ word, change, rank: rankOf(change, links, way) + costOf(word, way) }] : [];
    })
    .sort((one, other) => one.rank - other.rank);
  for (const { word, change } of next.slice(0, 6)) {
    used.add(word.text);
    const found = walk([...links, { word, change }], used, way);
    if (found) return found;
    used.delete(word.text);
  }
  return undefined;
}

/** Rare words and forms of others cost a little; a word without any of the contrasted spellings leads away from them. */
function costOf(word: Word, { turns }: Walk): number {
  const away = turns.size > 0 && !word.units.some((unit) => turns.has(unit.gpc));
  return word.band * 0.1 + (word.joints.length > 0 ? 0.6 : 0) + (away ? 1.2 : 0);
}

/** True when one of the contrasted spellings gives way to another. */
function turnsOn({ kind, from, to }: Change, turns: ReadonlySet<Gpc>): boolean {
  return kind === "changed" && turns.has(from ?? "") && turns.has(to ?? "");
}

/** Low for a change between contrasted spellings, and for one at another place than the change before. */
function rankOf(change: Change, links: readonly Link[], { turns, random }: Walk): number {
  const between = turnsOn(change, turns);
  const touches = turns.has(change.from ?? "") || turns.has(change.to ?? "");
  const before = links[links.length - 1]?.change;
  const again = before?.at === change.at ? 0.8 : 0;
  return (between ? -2 : touches ? -0.6 : 0) + again + random.share();
}
