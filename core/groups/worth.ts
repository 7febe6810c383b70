import { type Gpc, withImplied } from "#core/phonics";
import type { Lexicon, Word } from "#core/words";

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
}

const kept = new WeakMap<Lexicon, CommonWords>();

/** The common words of a lexicon, each spelling of a word in its first reading. */
export function commonWords(lexicon: Lexicon): CommonWords {
  const known = kept.get(lexicon);
  if (known) return known;
  const seen = new Set<string>();
  const words = lexicon.words.filter(({ text, band }) => {
    if ((WEIGHTS[band] ?? 0) === 0 || text.length < 2 || !PLAIN.test(text) || seen.has(text)) return false;
    seen.add(text);
    return true;
  });
  const numbers = new Map<Gpc, number>();
  const units = words.map((word) =>
    Uint16Array.from(
      word.units.filter(({ sound }) => sound !== ""),
      ({ gpc }) => {
        const number = numbers.get(gpc) ?? numbers.size;
        numbers.set(gpc, number);
        return number;
      },
    ),
  );
  const weights = Float64Array.from(words, ({ band }) => WEIGHTS[band] ?? 0);
  const made = { words, weights, units, gpcs: [...numbers.keys()] };
  kept.set(lexicon, made);
  return made;
}

/** What a child would be able to read with each spelling, that it cannot read without it. */
export interface Opens {
  /** By spelling: common words, weighed by how often they are met, that would come right and do not come right now. */
  readonly of: ReadonlyMap<Gpc, number>;
}

/**
 * What each spelling would open for a child: for every common word that has it, by how much likelier the word would come right
 * if this spelling were sure, given the chances of its others. A word that waits for two things counts for neither much.
 * @param chances of the spellings that the child was taught or asked, 0 to 1
 * @returns weighed words, 0 and more
 */
export function opensFor(common: CommonWords, chances: ReadonlyMap<Gpc, number>): Opens {
  const reads = new Set([...chances].flatMap(([gpc, chance]) => (chance >= 0.5 ? [gpc] : [])));
  const implied = withImplied(reads);
  const chance = Float64Array.from(common.gpcs, (gpc) =>
    Math.max(LEAST_CHANCE, chances.get(gpc) ?? (implied.has(gpc) ? AS_GOOD_AS_KNOWN : UNTAUGHT)),
  );
  const opened = new Float64Array(common.gpcs.length);
  for (let at = 0; at < common.units.length; at++) {
    const units = common.units[at] as Uint16Array;
    let all = common.weights[at] as number;
    for (const unit of units) all *= chance[unit] as number;
    for (let place = 0; place < units.length; place++) {
      const unit = units[place] as number;
      if (units.indexOf(unit) !== place) continue;
      const its = chance[unit] as number;
      let times = 0;
      for (const other of units) if (other === unit) times++;
      opened[unit] = (opened[unit] as number) + (all / its ** times) * (1 - its ** times);
    }
  }
  return {
    of: new Map(common.gpcs.flatMap((gpc, at) => ((opened[at] ?? 0) > 0 ? [[gpc, opened[at] as number]] : []))),
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
  const implied = withImplied(new Set([...chances].flatMap(([one, chance]) => (chance >= 0.5 ? [one] : []))));
  const chanceOf = (unit: number) => {
    const one = common.gpcs[unit] as Gpc;
    return chances.get(one) ?? (implied.has(one) ? AS_GOOD_AS_KNOWN : UNTAUGHT);
  };
  return common.words
    .flatMap((word, at) => {
      const units = common.units[at] as Uint16Array;
      if (!units.includes(number) || NO_EXAMPLES.has(word.text)) return [];
      const rest = units.reduce((product, unit) => product * (unit === number ? 1 : chanceOf(unit)), 1);
      return [{ word, value: rest * (common.weights[at] as number) }];
    })
    .sort((one, other) => other.value - one.value || one.word.units.length - other.word.units.length)
    .slice(0, most)
    .map(({ word }) => word.text);
}

/** Of a need that opens nothing this share stays: what is not in the commonest words is to be learned as well. */
const LEAST_SHARE = 0.2;

/**
 * A need by what it would open: what opens as much as the best does counts whole.
 * @param need 0 to 1, as `needFor` gives it
 * @param best what the spellings that open most would open for this child
 */
export function worthOfNeed(need: number, opens: number, best: number): number {
  const share = best > 0 ? Math.min(1, opens / best) : 0;
  return Math.round(need * (LEAST_SHARE + (1 - LEAST_SHARE) * share) * 1000) / 1000;
}

/** One child's needs and chances, by spelling. */
export interface NeedsAndChances {
  readonly needs: ReadonlyMap<Gpc, number>;
  readonly chances: ReadonlyMap<Gpc, number>;
}

/** A child's needs, each weighed by what it would open for that child. */
export function weighedNeeds(common: CommonWords, { needs, chances }: NeedsAndChances): ReadonlyMap<Gpc, number> {
  const { of } = opensFor(common, chances);
  const best = Math.max(0, ...[...needs.keys()].map((gpc) => of.get(gpc) ?? 0));
  return new Map([...needs].map(([gpc, need]) => [gpc, worthOfNeed(need, of.get(gpc) ?? 0, best)]));
}
