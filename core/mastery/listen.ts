import { type Belief, type Curve, meanChance, updated } from "./gaussian.ts";
import type { Heard } from "./hearing.ts";
import { type Foreseen, foresee, type Lessons, type Mind, type Trace } from "./mind.ts";
import type { Parameters } from "./parameters.ts";
import { readSkill, type Skill, type Trait } from "./skills.ts";

/** The least variance of what is special about a skill: it is never settled for good. */
const LEAST = 0.05;
const SHORTEST_HALF_LIFE = 4;
const LONGEST_HALF_LIFE = 1500;

/** A mind that is being changed; what it is made of is changed in place. */
export interface Open {
  traits: Record<Trait, Belief>;
  right: number;
  slow: number;
  pace: { count: number; mean: number; squares: number };
  traces: Record<Skill, Trace>;
}

/** By what everything is understood. */
export interface By {
  readonly lessons: Lessons;
  readonly p: Parameters;
}

interface Learned {
  readonly likelihood: Curve;
  readonly weight: number;
  /** Null where it failed and no one knows whether this was why. */
  readonly right: boolean | null;
  readonly passes?: boolean;
}

/**
 * Takes what was seen of one skill on a day into the mind: part of the surprise goes to each thing that it hangs on, unless that
 * was told already by what else the same answer spoke of (`passes`).
 */
function learn(
  mind: Open,
  seen: Foreseen,
  day: number,
  { likelihood, weight, right, passes = true }: Learned,
  { p }: By,
): void {
  const { skill, origin, trace } = seen;
  const after = updated(seen, likelihood, weight);
  const shift = after.mean - seen.mean;
  // Of the surprise, each part takes by how unsure it was; and by that it gets surer.
  const share = (slope: number, { variance }: Belief) => (slope * variance) / seen.variance;
  const shrink = after.variance - seen.variance;
  const told = (belief: Belief, slope: number): Belief => {
    if (!passes) return belief;
    const gain = share(slope, belief);
    return { mean: belief.mean + gain * shift, variance: Math.max(belief.variance + gain ** 2 * shrink, 1e-3) };
  };
  let [under, spread] = [origin.mean, 0];
  for (const trait of origin.leansOn) {
    const next = told(mind.traits[trait], 1);
    mind.traits[trait] = next;
    under += next.mean;
    spread += next.variance;
  }
  mind.traits.fading = told(mind.traits.fading, seen.fading);
  const { kin } = origin;
  const near = kin ? mind.traces[kin.skill] : undefined;
  if (kin && near) {
    const next = { ...near, ...told(near, kin.share) };
    mind.traces[kin.skill] = next;
    under += kin.share * next.mean;
    spread += kin.share ** 2 * next.variance;
  }
  const faded = 1 - seen.left;
  const grown =
    right === null
      ? seen.halfLife
      : right
        ? seen.halfLife * (1 + p.grows * faded * weight)
        : seen.halfLife * p.shrinks ** weight;
  mind.traces[skill] = {
    mean: after.mean - under,
    variance: Math.max(after.variance - spread, LEAST),
    day,
    halfLife: Math.min(LONGEST_HALF_LIFE, Math.max(SHORTEST_HALF_LIFE, grown)),
    answers: (trace?.answers ?? 0) + 1,
    misses: (trace?.misses ?? 0) + (right === false ? 1 : 0),
    days: (trace?.days ?? 0) + (trace?.day === day && trace.answers > 0 ? 0 : 1),
    ...keptJudgement(trace?.judged, right),
  };
}

/** What a teacher said stands until an answer goes against it. */
function keptJudgement(said: boolean | undefined, right: boolean | null): { judged?: boolean } {
  return said === undefined || (right !== null && right !== said) ? {} : { judged: said };
}

/** By which chance something comes right that is known with a chance: the guess, and what knowing adds to it. */
interface Through {
  readonly guess: number;
  readonly adds: number;
}
const through = (guess: number, slip: number): Through => ({ guess, adds: Math.max(0, 1 - guess - slip) });

/** That something came right, `times` a factor that it also hung on, beside another way in which it could have. */
const came = ({ guess, adds }: Through, times = 1, otherWay = 0): Curve => [
  otherWay + (1 - otherWay) * guess * times,
  (1 - otherWay) * adds * times,
  0,
];
const not = ([a, b, c]: Curve): Curve => [1 - a, -b, -c];
/** That it came right and slowly: the weaker it sits, the more often. */
const slowly = ({ guess, adds }: Through, { slow, weak }: Slowness): Curve => [
  guess * (slow + weak),
  adds * (slow + weak) - guess * weak,
  -adds * weak,
];
const minus = ([a, b, c]: Curve, [d, e, f]: Curve): Curve => [a - d, b - e, c - f];

interface Slowness {
  /** Share of slow answers where a thing sits well, and what is added to it where it does not at all. */
  readonly slow: number;
  readonly weak: number;
}

/** How often this child is slow when it is right, as far as it is known. */
function slownessOf({ right, slow }: Pick<Mind, "right" | "slow">, p: Parameters): Slowness {
  const share = Math.min(0.9, (slow + BEFORE_ANY * p.slowStart) / (right + BEFORE_ANY));
  return { slow: share, weak: Math.min(p.slowWeak, 0.98 - share) };
}
const BEFORE_ANY = 8;

/** How much an answer counts, by who helped and what was asked before on that day. */
export function weightOf(
  mind: Pick<Mind, "traces">,
  { heard, day, help }: { readonly heard: Heard; readonly day: number; readonly help: string },
  p: Parameters,
): number {
  // Among others who say it too, help is near twice: what they say, and that no one listens to one alone.
  const helped = help === "none" ? 1 : help === "together" ? p.helpWeight ** 2 : p.helpWeight;
  const place = heard.form === "word" && heard.where === "text" ? p.textWeight : 1;
  const again = heard.form === "one" && mind.traces[heard.skill]?.day === day ? p.againWeight : 1;
  return helped * place * again;
}

function throughOf(by: HeardOne["by"], p: Parameters): Through {
  if (by === "session") return through(p.sameDay, p.slip);
  if (by === "choice") return through(p.findGuess, p.slip);
  if (by === "written") return through(p.guess / 2, p.slip);
  return through(p.guess, p.slip);
}

type HeardOne = Extract<Heard, { form: "one" }>;
type HeardWord = Extract<Heard, { form: "word" }>;

/** An answer of a day, and how much it counts, 0 to 1. */
interface When {
  readonly day: number;
  readonly weight: number;
}

/** Takes one answer into the mind. */
export function listen(mind: Open, heard: Heard, when: When, by: By): void {
  if (heard.form === "one" && heard.by === "judgement") judge(mind, heard, when.day, by);
  else if (heard.form === "one") listenToOne(mind, heard, when, by);
  else listenToWord(mind, heard, when, by);
}

/**
 * A teacher says of one skill that it is known, or that it is not: her word takes the place of what was believed of it, unless
 * more was believed. It says nothing of the child's other skills, and wears off sooner than what was shown.
 */
function judge(mind: Open, { skill, outcome }: HeardOne, day: number, by: By): void {
  const { p } = by;
  const seen = foresee(mind, skill, day, by);
  const { trace } = seen;
  const knows = outcome === "right";
  const says = knows ? Math.max(seen.mean, p.judgedLogit) : Math.min(seen.mean, -p.judgedLogit);
  // What it leans on stays as it is.
  const under = foresee({ ...mind, traces: { ...mind.traces, [skill]: nothingOwn(day, by) } }, skill, day, by);
  mind.traces[skill] = {
    mean: says - under.mean,
    variance: Math.max(LEAST, Math.min(trace?.variance ?? seen.origin.own, p.judgedSpread ** 2)),
    day,
    halfLife: Math.min(seen.halfLife, p.judgedHalfLife),
    answers: (trace?.answers ?? 0) + 1,
    misses: (trace?.misses ?? 0) + (knows ? 0 : 1),
    days: (trace?.days ?? 0) + (trace?.day === day && trace.answers > 0 ? 0 : 1),
    judged: knows,
  };
}

/** A skill of which nothing is special, today. */
const nothingOwn = (day: number, { p }: By): Trace => ({
  ...{ mean: 0, variance: 0, day, halfLife: p.halfLife },
  ...{ answers: 0, misses: 0, days: 0 },
});

function listenToOne(mind: Open, { skill, outcome, by: way, parts }: HeardOne, { day, weight }: When, by: By): void {
  const { p } = by;
  const right = throughOf(way, p);
  const slowness = slownessOf(mind, p);
  const timed = way === "card";
  const isRight = outcome === "right" || outcome === "slow";
  const likelihood = !isRight
    ? not(came(right))
    : outcome === "slow"
      ? slowly(right, slowness)
      : timed
        ? minus(came(right), slowly(right, slowness))
        : came(right);
  // Another right spelling shows that the sound was heard; whether this one would have come is hardly told.
  const counts = outcome === "otherWay" ? weight * OTHER_WAY : weight;
  learn(mind, foresee(mind, skill, day, by), day, { likelihood, weight: counts, right: isRight }, by);
  if (parts) listenToParts(mind, { parts, isRight, through: right }, { day, weight: counts * p.partWeight }, by);
  if (timed && isRight) {
    mind.right++;
    if (outcome === "slow") mind.slow++;
  }
}
const OTHER_WAY = 0.3;

/** What an answer to a unit of the school's own says of its parts: right, of each of them; wrong, of those that were least sure. */
function listenToParts(
  mind: Open,
  of: { readonly parts: readonly Skill[]; readonly isRight: boolean; readonly through: Through },
  { day, weight }: When,
  by: By,
): void {
  const seen = of.parts.map((skill) => foresee(mind, skill, day, by));
  const chances = seen.map(meanChance);
  const all = chances.reduce((product, chance) => product * chance, 1);
  for (const [at, one] of seen.entries()) {
    const right = came(of.through, all / (chances[at] as number));
    const likelihood = of.isRight ? right : not(right);
    learn(mind, one, day, { likelihood, weight, right: of.isRight ? true : null, passes: false }, by);
  }
}

/** By how likely a word comes right for another reason than its units: as a whole, by the sentence, by pointing. */
function otherwise({ band, where }: HeardWord, p: Parameters): number {
  if (where === "written") return 0;
  const whole = band === 0 ? 0 : band === 1 ? p.whole1 : band === 2 ? p.whole2 : p.whole3;
  const help = where === "text" ? p.context : where === "choice" ? p.findGuess : 0;
  return whole + (1 - whole) * help;
}

function listenToWord(mind: Open, heard: HeardWord, { day, weight }: When, by: By): void {
  const { p } = by;
  const { outcome } = heard;
  const unit = through(p.unitGuess, p.unitSlip);
  const units = heard.skills.map((skill) => foresee(mind, skill, day, by));
  const chances = units.map((seen) => unit.guess + unit.adds * meanChance(seen));
  const blending = heard.blend ? foresee(mind, heard.blend, day, by) : undefined;
  const blends = blending ? meanChance(blending) : 1;
  const all = chances.reduce((product, chance) => product * chance, blends);
  const other = otherwise(heard, p);
  const slowness = slownessOf(mind, p);
  // Units of the school's own lie over the words of those who are taught them, and of no one else.
  const over = (heard.over ?? [])
    .filter(({ skill }) => by.lessons.taughtOn(readSkill(skill).thing) !== undefined)
    .map(({ skill, of }) => ({ of, seen: foresee(mind, skill, day, by) }));
  for (const [at, seen] of units.entries()) {
    const rest = all / (chances[at] as number);
    const told = ofUnit([at], outcome, { unit, rest, other, slowness });
    learn(mind, seen, day, { ...told, weight }, by);
  }
  for (const { of, seen } of over) {
    const rest = of.reduce((left, at) => left / (chances[at] as number), all);
    const told = ofUnit(of, outcome, { unit, rest, other, slowness });
    learn(mind, seen, day, { ...told, weight, passes: false }, by);
  }
  if (!blending) return;
  const rest = all / blends;
  const likelihood = ofBlending(outcome, rest, other);
  const right = outcome.came === "failed" ? null : outcome.came !== "blend";
  if (likelihood) learn(mind, blending, day, { likelihood, weight, right }, by);
}

interface InWord {
  readonly unit: Through;
  /** The chance that all the rest of the word comes right. */
  readonly rest: number;
  /** The chance that the word comes right otherwise. */
  readonly other: number;
  readonly slowness: Slowness;
}

/** What a word's outcome says of one of its units, or of several that are taught as one. */
function ofUnit(
  places: readonly number[],
  outcome: HeardWord["outcome"],
  { unit, rest, other, slowness }: InWord,
): Omit<Learned, "weight"> {
  switch (outcome.came) {
    case "right":
      return { likelihood: came(unit, rest, other), right: true };
    case "slow":
    case "sounded":
      return { likelihood: slowly(unit, slowness), right: true };
    case "blend":
      return { likelihood: came(unit), right: true };
    case "failed":
      if (outcome.failed.length === 0) return { likelihood: not(came(unit, rest, other)), right: null };
      return places.some((at) => (outcome.failed as readonly number[]).includes(at))
        ? { likelihood: not(came(unit)), right: false }
        : { likelihood: came(unit), right: true };
  }
}

const itself = through(0, 0);

/** What a word's outcome says of blending; null where it says nothing. */
function ofBlending(outcome: HeardWord["outcome"], rest: number, other: number): Curve | null {
  switch (outcome.came) {
    case "right":
      return came(itself, rest, other);
    case "blend":
      return not(came(itself));
    case "failed":
      return outcome.failed.length > 0 ? null : not(came(itself, rest, other));
    default:
      return came(itself);
  }
}

/** The chance that an answer of this form comes right on a day, as far as the child is known. */
export function chanceOfRight(mind: Mind, heard: Heard, day: number, by: By): number {
  const { p } = by;
  if (heard.form === "one") {
    const { guess, adds } = throughOf(heard.by, p);
    return guess + adds * meanChance(foresee(mind, heard.skill, day, by));
  }
  const { guess, adds } = through(p.unitGuess, p.unitSlip);
  const blends = heard.blend ? meanChance(foresee(mind, heard.blend, day, by)) : 1;
  const all = heard.skills.reduce(
    (product, skill) => product * (guess + adds * meanChance(foresee(mind, skill, day, by))),
    blends,
  );
  const other = otherwise(heard, p);
  return other + (1 - other) * all;
}

/** A way in which an answer may come, how likely that is, and what it would say of each skill; null where it says nothing. */
export interface MayCome {
  readonly chance: number;
  readonly of: readonly (Curve | null)[];
}

/** Of words that go wrong so many tell which unit failed: six in ten are said as something, and of those seven in ten are noted. A guess. */
const HEARD_WHICH = 0.42;

/**
 * The ways in which an answer to something may come, the right one first: before it is asked.
 * @param seen what is believed of each of its skills
 */
export function likelihoodsOf(
  mind: Mind,
  heard: Heard,
  seen: readonly Foreseen[],
  day: number,
  by: By,
): readonly MayCome[] {
  const { p } = by;
  if (heard.form === "one") {
    const right = came(throughOf(heard.by, p));
    const chance = right[0] + right[1] * meanChance(seen[0] as Foreseen);
    return [
      { chance, of: [right] },
      { chance: 1 - chance, of: [not(right)] },
    ];
  }
  const unit = through(p.unitGuess, p.unitSlip);
  const chances = seen.map((one) => unit.guess + unit.adds * meanChance(one));
  const blends = heard.blend ? meanChance(foresee(mind, heard.blend, day, by)) : 1;
  const all = chances.reduce((product, chance) => product * chance, blends);
  const other = otherwise(heard, p);
  const right = other + (1 - other) * all;
  const whole = (at: number) => came(unit, all / (chances[at] as number), other);
  const missing = chances.map((chance) => 1 - chance);
  const sum = missing.reduce((total, one) => total + one, 0) || 1;
  return [
    { chance: right, of: seen.map((_, at) => whole(at)) },
    ...missing.map((its, failed) => ({
      chance: ((1 - right) * HEARD_WHICH * its) / sum,
      of: seen.map((_, at) => (at === failed ? not(came(unit)) : came(unit))),
    })),
    { chance: (1 - right) * (1 - HEARD_WHICH), of: seen.map((_, at) => not(whole(at))) },
  ];
}
