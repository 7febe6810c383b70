import { type Gpc, isOwnUnit, partsOf, withImplied } from "#core/phonics";
import { asTaught, type Lexicon, type Word } from "#core/words";

/** How much one word of a band weighs, 1 the commonest; rarer ones than the third band weigh nothing. */
const WEIGHTS: readonly number[] = [0, 1, 0.6, 0.25];
const PLAIN = /^[a-z]+$/;
/** What was never taught is read now and then all the same. */
const UNTAUGHT = 0.05;
const AS_GOOD_AS_KNOWN = 0.9;
/** No chance is nothing: what all is divided by must not be. */
const LEAST_CHANCE = 1e-4;

/** The words by which worth is told, with their units as numbers. */
export interface CommonWords {
  readonly words: readonly Word[];
  readonly weights: Float64Array;
  readonly units: readonly Uint16Array[];
  readonly gpcs: readonly Gpc[];
  /** By the number of a spelling, the places of the words that have it. */
  readonly having: readonly (readonly number[])[];
}

const kept = new WeakMap<Lexicon, Map<string, CommonWords>>();

/**
 * The common words of a lexicon, each spelling of a word in its first reading; what a school teaches as one counts as one.
 * @param own units of the school's own that these children are taught; all of them where this is left out
 */
export function commonWords(lexicon: Lexicon, own: readonly Gpc[] = lexicon.ownUnits): CommonWords {
  const byUnits = kept.get(lexicon) ?? new Map<string, CommonWords>();
  kept.set(lexicon, byUnits);
  const known = byUnits.get(own.join(" "));
  if (known) return known;
  const seen = new Set<string>();
  const words = lexicon.words.filter(({ text, band }) => {
    if ((WEIGHTS[band] ?? 0) === 0 || text.length < 2 || !PLAIN.test(text) || seen.has(text)) return false;
    seen.add(text);
    return true;
  });
  const numbers = new Map<Gpc, number>();
  const units = words.map((word) => {
    const its = word.units.flatMap(({ gpc, sound }) => (sound === "" ? [] : [gpc]));
    return Uint16Array.from(asTaught(its, own), (gpc) => {
      const number = numbers.get(gpc) ?? numbers.size;
      numbers.set(gpc, number);
      return number;
    });
  });
  const weights = Float64Array.from(words, ({ band }) => WEIGHTS[band] ?? 0);
  const having = Array.from({ length: numbers.size }, (): number[] => []);
  for (const [at, its] of units.entries()) for (const unit of new Set(its)) having[unit]?.push(at);
  const made = { words, weights, units, gpcs: [...numbers.keys()], having };
  byUnits.set(own.join(" "), made);
  return made;
}

/** Of the units of a school's own those of which a child has a chance: those that it is taught, or was asked. */
export function ownUnitsAmong(
  { ownUnits }: Pick<Lexicon, "ownUnits">,
  chances: Iterable<readonly [Gpc, number]>,
): readonly Gpc[] {
  if (ownUnits.length === 0) return ownUnits;
  const its = new Set([...chances].map(([gpc]) => gpc));
  return ownUnits.filter((unit) => its.has(unit));
}

/** What a child would be able to read with each spelling, that it cannot read without it. */
export interface Opens {
  /** By spelling: common words, weighed by how often they are met, that would come right and do not come right now. */
  readonly of: ReadonlyMap<Gpc, number>;
  /** Of those the ones with a spelling that the class is taught next, as if that one were known already. */
  readonly forNext: ReadonlyMap<Gpc, number>;
}

const NOTHING: ReadonlySet<Gpc> = new Set();

/**
 * What each spelling would open for a child: for every common word that has it, by how much likelier the word would come right
 * if this spelling were sure, given the chances of its others. A word that waits for two things counts for neither much.
 * @param chances of the spellings that the child was taught or asked, 0 to 1
 * @param next spellings that the class is taught next
 * @returns weighed words, 0 and more
 */
export function opensFor(
  common: CommonWords,
  chances: ReadonlyMap<Gpc, number>,
  next: ReadonlySet<Gpc> = NOTHING,
): Opens {
  const of = chanceOf(chances);
  const chance = Float64Array.from(common.gpcs, of);
  const later = Float64Array.from(common.gpcs, (gpc) => (next.has(gpc) ? AS_GOOD_AS_KNOWN : of(gpc)));
  const opened = new Float64Array(common.gpcs.length);
  const openedLater = new Float64Array(common.gpcs.length);
  for (let at = 0; at < common.units.length; at++)
    gain(common.units[at] as Uint16Array, chance, common.weights[at] as number, opened);
  const coming = new Set(common.gpcs.flatMap((gpc, unit) => (next.has(gpc) ? (common.having[unit] ?? []) : [])));
  for (const at of coming) gain(common.units[at] as Uint16Array, later, common.weights[at] as number, openedLater);
  const told = (all: Float64Array, leaving: ReadonlySet<Gpc>) =>
    new Map(
      common.gpcs.flatMap((gpc, at) =>
        (all[at] ?? 0) > 0 && !leaving.has(gpc) ? [[gpc, all[at] as number] as const] : [],
      ),
    );
  return { of: told(opened, NOTHING), forNext: told(openedLater, next) };
}

/**
 * Adds to each unit of a word by how much likelier the word would come right if the unit were sure.
 * @returns how likely it comes right now, by its weight
 */
export function gain(units: Uint16Array, chance: Float64Array, weight: number, to: Float64Array): number {
  let all = weight;
  for (let place = 0; place < units.length; place++) all *= chance[units[place] as number] as number;
  for (let place = 0; place < units.length; place++) {
    const unit = units[place] as number;
    const its = chance[unit] as number;
    // A unit that comes again later is told there, for all its places at once.
    let [times, last] = [1, true];
    for (let other = 0; other < units.length; other++) {
      if (other === place || units[other] !== unit) continue;
      times++;
      if (other > place) last = false;
    }
    if (!last) continue;
    const right = times === 1 ? its : its ** times;
    to[unit] = (to[unit] as number) + all / right - all;
  }
  return all;
}

/**
 * The chance of any spelling, from those that are known: what follows from what is read counts as known, the rest as untaught. A unit
 * of the school's own is read as one, or by its parts.
 */
export function chanceOf(chances: ReadonlyMap<Gpc, number>): (gpc: Gpc) => number {
  const reads = new Set([...chances].flatMap(([gpc, chance]) => (chance >= 0.5 ? [gpc] : [])));
  const implied = withImplied(reads);
  const ofOne = (gpc: Gpc) =>
    Math.max(LEAST_CHANCE, chances.get(gpc) ?? (implied.has(gpc) ? AS_GOOD_AS_KNOWN : UNTAUGHT));
  return (gpc) => {
    if (!isOwnUnit(gpc)) return ofOne(gpc);
    const byParts = partsOf(gpc).reduce((product, part) => product * ofOne(part), 1);
    return Math.max(LEAST_CHANCE, chances.get(gpc) ?? 0, byParts);
  };
}

/** Words that are no good examples beside a child's name. */
const NO_EXAMPLES: ReadonlySet<string> = new Set(
  "die died dies dead death kill killed hate hated fear war gun blood hell fat ugly stupid mad sick cry cried hurt lie lied shot".split(
    " ",
  ),
);

/** Common words with this spelling that would come right most likely with it and not without, the commonest first. */
export function examplesOf(
  common: CommonWords,
  gpc: Gpc,
  chances: ReadonlyMap<Gpc, number>,
  most = 3,
): readonly string[] {
  const number = common.gpcs.indexOf(gpc);
  if (number < 0) return [];
  const known = chanceOf(chances);
  const of = (unit: number) => known(common.gpcs[unit] as Gpc);
  return common.words
    .flatMap((word, at) => {
      const units = common.units[at] as Uint16Array;
      if (!units.includes(number) || NO_EXAMPLES.has(word.text)) return [];
      const rest = units.reduce((product, unit) => product * (unit === number ? 1 : of(unit)), 1);
      return [{ word, value: rest * (common.weights[at] as number) }];
    })
    .sort((one, other) => other.value - one.value || one.word.units.length - other.word.units.length)
    .slice(0, most)
    .map(({ word }) => word.text);
}

/** What teaching a spelling would bring a child: each part in a unit of its own. */
export interface Brings {
  /** Common words that would come right, weighed by how often they are met. */
  readonly words: number;
  /** Texts of the shelf that would become readable. */
  readonly texts: number;
  /** Of the words, those with what the class is taught next. */
  readonly next: number;
  /** How much of its chance goes in four weeks if no one asks, in hundredths. */
  readonly fades: number;
  /** How often it was mixed up with another in the last four weeks. */
  readonly mixed: number;
}
export const worthParts = ["words", "texts", "next", "fades", "mixed"] as const;
export const bringsNothing: Brings = { words: 0, texts: 0, next: 0, fades: 0, mixed: 0 };

/** How much each part counts beside the others; all 0 lets every need weigh alike. */
export type WorthWeights = Readonly<Record<(typeof worthParts)[number], number>>;

/**
 * Words first, since every one is met again and again; texts, what comes next and a mix-up count a quarter of that each: texts are
 * few, what comes next can be met again when it is there, and a mix-up spoils words that would come right otherwise. What fades
 * counts nothing: a revisit holds it, and in simulated classes teaching it anew cost lasting words (docs/groups.md).
 */
export const startingWeights: WorthWeights = { words: 4, texts: 1, next: 1, fades: 0, mixed: 1 };

/** Of a need that opens nothing this share stays: what is not in the commonest words is to be learned as well. */
const LEAST_SHARE = 0.2;

/**
 * A need by what it would bring: what brings as much as the best does in every part counts whole.
 * @param need 0 to 1, as `needFor` gives it
 * @param best the most that any need of this child brings, part by part
 */
export function worthOfNeed(
  need: number,
  brings: Brings,
  best: Brings,
  weights: WorthWeights = startingWeights,
): number {
  let [sum, all] = [0, 0];
  for (const part of worthParts) {
    // What nothing brings says nothing of this child.
    if (best[part] <= 0) continue;
    all += weights[part];
    sum += weights[part] * Math.min(1, brings[part] / best[part]);
  }
  const alike = worthParts.every((part) => weights[part] === 0);
  const share = alike ? 1 : all > 0 ? sum / all : 0;
  return Math.round(need * (LEAST_SHARE + (1 - LEAST_SHARE) * share) * 1000) / 1000;
}

/** The most of each part among what several needs bring. */
export function bestOf(all: readonly Brings[]): Brings {
  const most = (part: keyof Brings) => Math.max(0, ...all.map((one) => one[part]));
  return {
    words: most("words"),
    texts: most("texts"),
    next: most("next"),
    fades: most("fades"),
    mixed: most("mixed"),
  };
}

/** One child's needs and chances, by spelling, and what the class is taught next. */
export interface NeedsAndChances {
  readonly needs: ReadonlyMap<Gpc, number>;
  readonly chances: ReadonlyMap<Gpc, number>;
  readonly next?: ReadonlySet<Gpc>;
  /** By spelling, how many texts of the shelf would become readable. */
  readonly texts?: ReadonlyMap<Gpc, number>;
  /** By spelling, how much of its chance goes in four weeks, in hundredths; and how often it was mixed up lately. */
  readonly fades?: ReadonlyMap<Gpc, number>;
  readonly mixed?: ReadonlyMap<Gpc, number>;
  readonly weights?: WorthWeights;
}

/** A child's needs, each weighed by what it would bring that child. */
export function weighedNeeds(
  common: CommonWords,
  { needs, chances, next, texts, fades, mixed, weights }: NeedsAndChances,
): ReadonlyMap<Gpc, number> {
  const { of, forNext } = opensFor(common, chances, next);
  const brings = new Map(
    [...needs.keys()].map((gpc): [Gpc, Brings] => [
      gpc,
      {
        ...{ words: of.get(gpc) ?? 0, texts: texts?.get(gpc) ?? 0, next: forNext.get(gpc) ?? 0 },
        ...{ fades: fades?.get(gpc) ?? 0, mixed: mixed?.get(gpc) ?? 0 },
      },
    ]),
  );
  const best = bestOf([...brings.values()]);
  return new Map([...needs].map(([gpc, need]) => [gpc, worthOfNeed(need, brings.get(gpc) as Brings, best, weights)]));
}
