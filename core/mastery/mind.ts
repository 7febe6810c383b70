import type { Belief } from "./gaussian.ts";
import type { Parameters } from "./parameters.ts";
import { type Origin, originOf, type Skill, type Trait, traits } from "./skills.ts";

/** What is kept of one skill: what is special about it for this child, and how it keeps. */
export interface Trace extends Belief {
  /** The day, counted from 1970-01-01, of the last that was seen of it. */
  readonly day: number;
  /** Days in which the odds are halved, by an average child. */
  readonly halfLife: number;
  /** Answers that spoke of it, and those against it. */
  readonly answers: number;
  readonly misses: number;
  /** Days on which it was asked or read. */
  readonly days: number;
  /** What a teacher said last, that it is known or that it is not, if no answer since went against it. */
  readonly judged?: boolean;
}

/** All that is believed of one child: plain data, so that it can be stored. */
export interface Mind {
  readonly traits: Readonly<Record<Trait, Belief>>;
  /** Right answers to cards, and how many of them were slow. */
  readonly right: number;
  readonly slow: number;
  /** Logarithms of the milliseconds of timed right answers: how many, their mean, their sum of squares about it. */
  readonly pace: { readonly count: number; readonly mean: number; readonly squares: number };
  readonly traces: Readonly<Record<Skill, Trace>>;
}

/** What is taught, by correspondence or exception word. Days are counted from 1970-01-01. */
export interface Lessons {
  /** When the class was taught it; undefined where it was not. */
  taughtOn(thing: string): number | undefined;
  /** Whether the child was away on that day; it was there where this is left out. */
  missed?(thing: string): boolean;
  /** Sessions of a small group in which the child was, with what they taught (true) or revisited, in order of days. */
  sessions(thing: string): readonly { readonly day: number; readonly taught: boolean }[];
}

/** Lessons as plain data, which can be sent to a thread. */
export interface PlainLessons {
  readonly taughtOn: ReadonlyMap<string, number>;
  readonly sessions: ReadonlyMap<string, ReturnType<Lessons["sessions"]>>;
  readonly missed?: ReadonlySet<string>;
}

const none: ReturnType<Lessons["sessions"]> = [];

/** The lessons that plain data stand for. */
export function lessonsFrom({ taughtOn, sessions, missed = nothing }: PlainLessons): Lessons {
  return {
    taughtOn: (thing) => taughtOn.get(thing),
    sessions: (thing) => sessions.get(thing) ?? none,
    missed: (thing) => missed.has(thing),
  };
}
const nothing: ReadonlySet<string> = new Set();

/** A child of whom nothing is known. */
export function newMind(p: Parameters): Mind {
  const spread: Record<Trait, number> = {
    ability: p.abilitySpread,
    fading: p.fadingSpread,
    spelling: p.spellSpread,
    blending: p.blendSpread,
  };
  return {
    traits: Object.fromEntries(traits.map((one) => [one, { mean: 0, variance: spread[one] ** 2 }])) as Mind["traits"],
    right: 0,
    slow: 0,
    pace: { count: 0, mean: 0, squares: 0 },
    traces: {},
  };
}

/** What is believed of a skill on a day, with what it hangs on. */
export interface Foreseen extends Belief {
  readonly skill: Skill;
  readonly origin: Origin;
  readonly halfLife: number;
  /** Of its odds since it was last seen, this share is left, 0 to 1. */
  readonly left: number;
  /** How far the belief moves with the logarithm of how long the child keeps. */
  readonly fading: number;
  readonly trace: Trace | undefined;
}

const FURTHEST = 7;
const clamped = (logit: number) => Math.max(-FURTHEST, Math.min(FURTHEST, logit));
/** What was known fades to this logit and no further. */
const LOWEST = -3;

/** What a skill leans on beside itself, as a belief: the traits and the skill that it is learned from. */
function ground(mind: Mind, { mean, leansOn, kin }: Origin): Belief {
  let [at, variance] = [mean, 0];
  for (const trait of leansOn) {
    at += mind.traits[trait].mean;
    variance += mind.traits[trait].variance;
  }
  const near = kin ? mind.traces[kin.skill] : undefined;
  if (kin && near) {
    at += kin.share * near.mean;
    variance += kin.share ** 2 * near.variance;
  }
  return { mean: at, variance };
}

/** A belief on its way through the days. */
interface Course {
  mean: number;
  /** Variance that the way adds. */
  more: number;
  fading: number;
  left: number;
  at: number;
  halfLife: number;
}

/** Odds are halved in each half-life, as long as this child keeps. */
function fade(course: Course, to: number, longer: number, p: Parameters): void {
  const passed = to - course.at;
  if (passed <= 0) return;
  course.at = to;
  const halvings = passed / (course.halfLife * longer);
  course.mean = Math.max(Math.min(course.mean, LOWEST), course.mean - Math.LN2 * halvings);
  course.fading += Math.LN2 * halvings;
  course.more += (Math.LN2 * halvings * p.ownFadingSpread) ** 2 + p.drift * passed;
  course.left *= 2 ** -halvings;
}

/** A lesson or a session gives some logits, more to a child that is quick, and no one knows exactly how many. */
function gain(course: Course, logits: number, quick: number, p: Parameters): void {
  course.mean = clamped(course.mean + logits * quick);
  course.more += (logits * p.gainSpread) ** 2;
}

/** What is believed of a skill on a day: what was seen last, faded, and taught again since. */
export function foresee(
  mind: Mind,
  skill: Skill,
  day: number,
  { lessons, p }: { readonly lessons: Lessons; readonly p: Parameters },
): Foreseen {
  const origin = originOf(skill, p);
  const { verb, thing } = origin;
  const trace = mind.traces[skill];
  const under = ground(mind, origin);
  const taught = verb === "blend" || verb === "hear" || verb === "name" ? undefined : lessons.taughtOn(thing);
  const isTaught = taught !== undefined && taught <= day;
  const isTaughtable = verb === "say" || verb === "spell" || verb === "read" || verb === "write";
  // Of a lesson on whose day the child was away it has a share.
  const had = isTaught ? (lessons.missed?.(thing) ? p.missedLesson : 1) : 0;
  const start = trace ? trace.mean : isTaughtable ? (1 - had) * (p.untaught - p.start) : 0;
  const mean = clamped(under.mean + start);
  const variance = under.variance + (trace?.variance ?? origin.own);
  const at = trace ? trace.day : isTaught ? taught : day;
  const course: Course = { mean, more: 0, fading: 0, left: 1, at, halfLife: trace?.halfLife ?? p.halfLife };
  const longer = Math.exp(mind.traits.fading.mean);
  if (isTaughtable) {
    const quick = Math.exp(p.quick * mind.traits.ability.mean);
    if (trace && isTaught && taught > at) {
      fade(course, taught, longer, p);
      gain(course, p.lesson * had, quick, p);
    }
    for (const session of lessons.sessions(thing)) {
      if (session.day < at || session.day > day || (trace && session.day === at)) continue;
      const left = 2 ** (-Math.max(0, session.day - course.at) / (course.halfLife * longer));
      fade(course, session.day, longer, p);
      gain(course, session.taught ? p.session : p.revisit, quick, p);
      course.halfLife *= 1 + p.sessionGrows * (1 - left);
    }
  }
  fade(course, day, longer, p);
  const { fading, halfLife, left } = course;
  const spread = variance + fading ** 2 * mind.traits.fading.variance + course.more;
  return { skill, origin, trace, halfLife, left, mean: course.mean, variance: spread, fading };
}
