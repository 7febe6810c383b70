import { type GivenAnswer, isRightAtOnce, type Outcome } from "#core/ledger";
import { dice, shuffled } from "#core/words";
import type { Form, StrategyName } from "./section.ts";

/** All that a strategy may look at. */
export interface Turn {
  /** The items of this round, in the order in which the check has them. */
  readonly items: readonly string[];
  readonly seed: number;
  readonly pass: number;
  /** Answers of this round that stand, oldest first. */
  readonly given: readonly GivenAnswer[];
  /** The outcome of each item the last time it was asked before this check. */
  readonly before: ReadonlyMap<string, Outcome>;
}

/** Which item comes next, or undefined when the round is through. It asks nothing but the turn. */
export type Strategy = (turn: Turn) => string | undefined;

/** The round's items in an order decided by the seed and the round; no round has the order of the one before. */
export function deal(items: readonly string[], seed: number, pass: number): readonly string[] {
  const deck = shuffled([...items].sort(), dice(seed + pass * 7919));
  if (pass > 1 && deck.length > 1) {
    const before = deal(items, seed, pass - 1);
    if (before.every((item, at) => item === deck[at])) return [...deck.slice(1), ...deck.slice(0, 1)];
  }
  return deck;
}

function firstOpen(deck: readonly string[], given: readonly GivenAnswer[]): string | undefined {
  const done = new Set(given.map((answer) => answer.item));
  return deck.find((item) => !done.has(item));
}

/** The strategies by name. Each is a plain function of the turn, so that a reload lands on the same item. */
export const strategies: Readonly<Record<StrategyName, Strategy>> = {
  inOrder: ({ items, given }) => firstOpen(items, given),
  shuffled: ({ items, seed, pass, given }) => firstOpen(deal(items, seed, pass), given),
  missed: ({ items, seed, pass, given, before }) =>
    firstOpen(deal(pass > 1 ? items : lastMissed(items, before), seed, pass), given),
};

/** Items that were asked before and were not right at once. */
export function lastMissed(items: readonly string[], before: ReadonlyMap<string, Outcome>): readonly string[] {
  return items.filter((item) => before.has(item) && !isRightAtOnce(before.get(item) ?? "none"));
}

/** The item to ask now. */
export function nextItem(strategy: StrategyName, turn: Turn): string | undefined {
  return strategies[strategy](turn);
}

/** The items a round goes over: all at first, then what the round before missed; in a minute always all. */
export function itemsOfRound(
  form: Form,
  items: readonly string[],
  pass: number,
  answers: readonly GivenAnswer[],
): readonly string[] {
  if (form === "minute") return items;
  let inRound = items;
  for (let earlier = 1; earlier < pass; earlier++) inRound = missedIn(inRound, earlier, answers);
  return inRound;
}

/** Items whose answer in this round was not right at once, in the order of the items. */
export function missedIn(items: readonly string[], pass: number, answers: readonly GivenAnswer[]): readonly string[] {
  const missed = new Set(
    answers.filter((answer) => answer.pass === pass && !isRightAtOnce(answer.outcome)).map((answer) => answer.item),
  );
  return items.filter((item) => missed.has(item));
}
