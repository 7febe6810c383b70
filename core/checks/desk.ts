import { firstOfEach, type GivenAnswer, isRight, type Outcome } from "#core/ledger";
import { itemsOfRound, lastMissed, missedIn, nextItem } from "./next.ts";
import type { Form, StrategyName } from "./section.ts";

/** A check as the desk needs it. */
export interface DeskCheck {
  readonly items: readonly string[];
  readonly seed: number;
  readonly strategy: StrategyName;
  readonly form: Form;
  readonly before: ReadonlyMap<string, Outcome>;
}

export interface DeskState {
  readonly pass: number;
  /** How many items this round has, and its items in the check's order. */
  readonly items: readonly string[];
  /** The answer of this round to each item that was asked, oldest first. */
  readonly given: readonly GivenAnswer[];
  /** The item to show; undefined when the round is through. */
  readonly current: string | undefined;
  /** Items of this round that were not right at once: what another round would hold. */
  readonly missed: readonly string[];
}

/**
 * Where a check stands, computed from its items and its standing answers alone, so that a reload lands on the same
 * item. Round 1 holds all items; each later round what the round before missed, in a new order.
 */
export function deskState(check: DeskCheck, pass: number, answers: readonly GivenAnswer[]): DeskState {
  const inRound = itemsOfRound(check.form, check.items, pass, answers);
  const here = new Set(inRound);
  const given = firstOfEach(answers.filter((answer) => answer.pass === pass && here.has(answer.item)));
  const turn = { items: inRound, seed: check.seed, pass, given, before: check.before };
  const asked = check.strategy === "missed" && pass === 1 ? lastMissed(inRound, check.before) : inRound;
  return {
    pass,
    items: asked,
    given,
    current: nextItem(check.strategy, turn),
    missed: missedIn(inRound, pass, answers),
  };
}

/** The answers as those of cards: what was marked for another sound of a card's spelling is of that card. */
export function onFaces(
  answers: readonly GivenAnswer[],
  also: Readonly<Record<string, readonly string[]>>,
): readonly GivenAnswer[] {
  const faceOf = new Map(Object.entries(also).flatMap(([face, others]) => others.map((other) => [other, face])));
  return faceOf.size === 0
    ? answers
    : answers.map((answer) => ({ ...answer, item: faceOf.get(answer.item) ?? answer.item }));
}

/** The latest round that has an answer; 1 when there is none. */
export function passReached(answers: readonly GivenAnswer[]): number {
  return answers.reduce((most, answer) => Math.max(most, answer.pass), 1);
}

export interface StopAdvice {
  readonly suggested: boolean;
  /** Why, in one sentence. */
  readonly why: string;
}

/** Suggests to stop after so many misses in a row. It never stops anything: the adult decides. */
export function stopAdvice(given: readonly GivenAnswer[], stopAfter: number): StopAdvice {
  const none = { suggested: false, why: "" };
  if (stopAfter <= 0 || given.length < stopAfter) return none;
  const last = given.slice(-stopAfter);
  if (last.every((answer) => answer.outcome === "none"))
    return { suggested: true, why: `No answer ${stopAfter} times in a row.` };
  if (last.every((answer) => answer.outcome === "none" || answer.outcome === "wrong" || answer.outcome === "blend"))
    return { suggested: true, why: `The last ${stopAfter} were missed.` };
  return none;
}

const MINUTE = 60_000;

/** Milliseconds that the timed answers took together, in order of marking. */
export function timeSpent(answers: readonly GivenAnswer[]): number {
  return answers.reduce((sum, answer) => sum + (answer.ms ?? 0), 0);
}

/**
 * How many items were right before one minute of answering was over; pauses between items do not count. In a minute the
 * deck begins anew when it is through, and its items count again.
 */
export function rightInMinute(answers: readonly GivenAnswer[]): number {
  let spent = 0;
  let right = 0;
  const seen = new Set<string>();
  for (const answer of answers) {
    const once = `${answer.pass} ${answer.item}`;
    if (seen.has(once)) continue;
    seen.add(once);
    spent += answer.ms ?? 0;
    if (spent > MINUTE) break;
    if (isRight(answer.outcome)) right++;
  }
  return right;
}

/** True when a minute of answering is over. */
export function minuteIsOver(answers: readonly GivenAnswer[]): boolean {
  return timeSpent(answers) >= MINUTE;
}
