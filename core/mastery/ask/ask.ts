import { type GivenAnswer, heardIn, isRight } from "#core/ledger";
import { showGrapheme, splitGpc } from "#core/phonics";
import { dice } from "#core/words";
import { below } from "../gaussian.ts";
import type { Heard } from "../hearing.ts";
import type { By } from "../listen.ts";
import { foresee, type Mind } from "../mind.ts";
import { readSkill, type Skill } from "../skills.ts";
import { type Telling, tellingOf } from "./worth.ts";

/** Something that could be asked next. */
export interface Candidate {
  readonly kind: "card" | "words" | "exception";
  /** As a check of its kind has it. */
  readonly item: string;
  /** What it asks, as if it had come right. */
  readonly heard: Heard;
  /** Seconds of the child's time, all around it included. */
  readonly seconds: number;
}

export interface AskWanted {
  /** All that is believed of the child, the answers of this sitting included. */
  readonly mind: Mind;
  readonly by: By;
  /** Counted from 1970-01-01. */
  readonly day: number;
  readonly candidates: readonly Candidate[];
  /** The answers of this sitting, in order. */
  readonly given: readonly GivenAnswer[];
  /** What depends on a skill, from 0: of a target of the child's group, of what its next text needs, more. */
  readonly weight: (skill: Skill) => number;
  /** Spellings that were taught in the last week: they are not asked for the first time inside a word of four sounds and more. */
  readonly fresh: ReadonlySet<string>;
  /** Seconds that are given; the check ends when they are over. */
  readonly seconds: number;
  /** How often one item may be asked in a sitting. */
  readonly most: number;
  readonly seed: number;
}

/** What comes next, with its reason in a line; or why nothing does. */
export type Next =
  | { readonly ask: Candidate; readonly why: string; readonly telling: Telling }
  | { readonly done: "settled" | "time" };

/** The child is to have about four in five right where that can be. */
const WANTED_RIGHT = 0.8;
/** What is as good as certain to come right. */
const EASY = 0.85;
/** When more than one in five was missed, nothing is asked that is likelier to be missed still. */
const AS_LIKELY_AS_NOT = 0.4;
/** Less doubt than this, an item, is not worth the child's time. */
const LEAST_SETTLED = 0.004;
const LONG_WORD = 4;
/** Seconds of an item of which nothing else is known; those around a timed one; and what no answer takes longer than. */
const LONG = 6;
const AROUND = 1.5;
const LONGEST = 40;

/**
 * The next item to ask a child: what settles most for its time, while it has about four in five right, is never let to miss
 * three in a row, and begins and ends on something right. The same sitting gives the same item, so that a reload and a second
 * adult land on the same one.
 */
export function nextToAsk(wanted: AskWanted): Next {
  const { given, candidates, seconds } = wanted;
  const asked = new Map<string, number>();
  for (const { item } of given) asked.set(item, (asked.get(item) ?? 0) + 1);
  const secondsOf = new Map(candidates.map((one) => [one.item, one.seconds]));
  const took = given.reduce((sum, answer) => sum + secondsFor(answer, secondsOf.get(answer.item) ?? LONG), 0);
  const missedLast = given.length > 0 && !isRight((given.at(-1) as GivenAnswer).outcome);
  const open = candidates.filter(
    (one) => (asked.get(one.item) ?? 0) < wanted.most && one.item !== given.at(-1)?.item && !isTooFresh(one, wanted),
  );
  const told = open.map((candidate) => ({ candidate, telling: tellingOf(wanted.mind, candidate.heard, wanted) }));
  const isOver = took >= seconds;
  const left = told.filter(({ telling }) => telling.settles >= LEAST_SETTLED);
  if (isOver || left.length === 0) {
    // It ends on something right.
    const easy = missedLast ? easiest(told) : undefined;
    return easy && took < seconds + 20
      ? { ask: easy.candidate, telling: easy.telling, why: "to end on something right" }
      : { done: isOver ? "time" : "settled" };
  }
  const missed = missedRunning(given);
  const easyOnly = given.length === 0 || missed >= 2;
  const floor = missed >= 2 ? 1 : easyOnly ? EASY : share(given) < WANTED_RIGHT - 0.05 ? AS_LIKELY_AS_NOT : 0;
  const fitting = left.filter(({ telling }) => telling.right >= floor);
  const fair = fitting.length > 0 ? fitting : floor > 0 ? [easiest(told) ?? left[0]] : left;
  const between = easyOnly ? [] : blamed(wanted);
  const parting = fair.filter((one) => one && parts(one.candidate.heard, between));
  const pool = parting.length > 0 ? parting : fair;
  const best = pool.reduce((one, other) => (worth(other, wanted) > worth(one, wanted) ? other : one)) as Told;
  const why = parting.length > 0 ? `separates ${between.map(shown).join(" and ")}` : whyOf(best, easyOnly);
  return { ask: best.candidate, telling: best.telling, why };
}

/** Seconds that an answer took, as it was timed, else as such an item takes. */
function secondsFor({ ms }: GivenAnswer, asARule: number): number {
  return ms === null ? asARule : Math.min(LONGEST, ms / 1000 + AROUND);
}

const skillsOf = (heard: Heard): readonly Skill[] => (heard.form === "one" ? [heard.skill] : heard.skills);

/** The doubtful skills of a word that failed just now, when nothing said which of them it was; else none. */
function blamed({ given, candidates, mind, by, day }: AskWanted): readonly Skill[] {
  const last = given.at(-1);
  if (last?.kind !== "words" || isRight(last.outcome) || heardIn(last) !== null) return [];
  const word = candidates.find(({ item }) => item === last.item);
  const doubtful = (word ? skillsOf(word.heard) : []).filter((skill) => {
    const gap = below(0, foresee(mind, skill, day, by));
    return gap > DOUBTFUL && gap < 1 - DOUBTFUL;
  });
  return doubtful.length > 1 ? doubtful : [];
}
const DOUBTFUL = 0.15;

/** True for what asks some of these skills and not all of them. */
function parts(heard: Heard, skills: readonly Skill[]): boolean {
  const asked = skillsOf(heard);
  const both = skills.filter((skill) => asked.includes(skill)).length;
  return both > 0 && both < skills.length;
}

/** A spelling, or an exception word, as it is shown. */
function shown(skill: Skill): string {
  const { verb, thing } = readSkill(skill);
  return verb === "read" ? `“${thing}”` : showGrapheme(splitGpc(thing).grapheme);
}

interface Told {
  readonly candidate: Candidate;
  readonly telling: Telling;
}

/** Doubt that goes for each second, with a little chance among equals. */
function worth(told: Told | undefined, { seed, given }: AskWanted): number {
  if (!told) return -1;
  const { candidate, telling } = told;
  let hash = seed + given.length;
  for (let at = 0; at < candidate.item.length; at++) hash = (Math.imul(hash, 31) + candidate.item.charCodeAt(at)) | 0;
  return (telling.settles / candidate.seconds) * (1 + 0.02 * dice(hash).share());
}

/** The one that is likeliest to come right. */
function easiest(told: readonly Told[]): Told | undefined {
  return told.reduce<Told | undefined>(
    (best, one) => (best === undefined || one.telling.right > best.telling.right ? one : best),
    undefined,
  );
}

/** How many were missed at the end, one after the other. */
function missedRunning(given: readonly GivenAnswer[]): number {
  let count = 0;
  for (let at = given.length - 1; at >= 0 && !isRight((given[at] as GivenAnswer).outcome); at--) count++;
  return count;
}

/** The share right so far, with two right ones thought before it. */
function share(given: readonly GivenAnswer[]): number {
  return (given.filter(({ outcome }) => isRight(outcome)).length + 2) / (given.length + 2);
}

/** A word of four sounds and more with a spelling that was taught last week and never asked alone. */
function isTooFresh({ kind, heard }: Candidate, { fresh, mind }: AskWanted): boolean {
  if (kind !== "words" || heard.form !== "word" || heard.skills.length < LONG_WORD) return false;
  return heard.skills.some((skill) => fresh.has(readSkill(skill).thing) && !mind.traces[skill]);
}

/** Why this item, in a line. */
function whyOf({ candidate, telling }: Told, easyOnly: boolean): string {
  if (easyOnly) return "something that will come right";
  const { heard } = candidate;
  if (heard.form === "one") return `settles ${shown(heard.skill)}`;
  const others = heard.skills.filter((skill) => skill !== telling.most).slice(0, 2);
  return others.length > 0
    ? `settles ${shown(telling.most)}, with ${others.map(shown).join(" and ")}`
    : `settles ${shown(telling.most)}`;
}
