import type { Gpc } from "#core/phonics";
import { dice, shuffled } from "#core/words";
import { type GivenAnswer, isRightAtOnce } from "./answers.ts";

/** What a sound check covers. `due`: all that is taught and not known to be secure. */
export type Scope = "due" | "all" | "recent" | "picked";

export const MOST_CARDS = 40;

export interface ItemsWanted {
  readonly scope: Scope;
  /** Everything taught so far, in teaching order. */
  readonly taught: readonly Gpc[];
  /** Correspondences of the last steps, for `recent`. */
  readonly recent: readonly Gpc[];
  /** Hand-picked correspondences, for `picked`; kept as chosen, even when not yet taught. */
  readonly picked: readonly Gpc[];
  readonly isSecure: (gpc: Gpc) => boolean;
  /** Has it ever been answered? What was asked before and is not secure comes first when the deck is full. */
  readonly wasAsked: (gpc: Gpc) => boolean;
}

/** Which correspondences the deck holds, none twice. Only `due` is cut at `MOST_CARDS`. */
export function chooseItems(wanted: ItemsWanted): readonly Gpc[] {
  const { scope, taught, recent, picked, isSecure, wasAsked } = wanted;
  if (scope === "all") return [...new Set(taught)];
  if (scope === "recent") return [...new Set(recent)];
  if (scope === "picked") return [...new Set(picked)];
  const open = [...new Set(taught)].filter((gpc) => !isSecure(gpc));
  const asked = open.filter(wasAsked);
  const fresh = open.filter((gpc) => !wasAsked(gpc));
  return [...asked, ...fresh].slice(0, MOST_CARDS);
}

/** The deck of one pass: every item once, in an order decided by the seed and the pass. */
export function deal(items: readonly Gpc[], seed: number, pass: number): readonly Gpc[] {
  const deck = shuffled([...items].sort(), dice(seed + pass * 7919));
  if (pass > 1 && deck.length > 1) {
    const before = deal(items, seed, pass - 1);
    if (before.every((gpc, at) => gpc === deck[at])) return [...deck.slice(1), ...deck.slice(0, 1)];
  }
  return deck;
}

export interface DeskState {
  readonly pass: number;
  readonly deck: readonly Gpc[];
  /** Answers of this pass that stand, oldest first. */
  readonly given: readonly GivenAnswer[];
  /** The card to show; undefined when the pass is through. */
  readonly current: Gpc | undefined;
  /** Cards of this pass that were not right at once: what another pass would hold. */
  readonly missed: readonly Gpc[];
}

/**
 * Where a check stands, computed from its deck and its standing answers alone, so that a reload lands
 * on the same card. Pass 1 holds all items; each later pass what the pass before missed, in a new order.
 */
export function deskState(
  items: readonly Gpc[],
  seed: number,
  pass: number,
  answers: readonly GivenAnswer[],
): DeskState {
  let inPass = items;
  for (let earlier = 1; earlier < pass; earlier++) inPass = missedIn(inPass, earlier, answers);
  const deck = deal(inPass, seed, pass);
  const given = answers.filter((answer) => answer.pass === pass && deck.includes(answer.item));
  const done = new Set(given.map((answer) => answer.item));
  return {
    pass,
    deck,
    given,
    current: deck.find((gpc) => !done.has(gpc)),
    missed: missedIn(deck, pass, answers),
  };
}

function missedIn(items: readonly Gpc[], pass: number, answers: readonly GivenAnswer[]): readonly Gpc[] {
  const missed = new Set(
    answers.filter((answer) => answer.pass === pass && !isRightAtOnce(answer.outcome)).map((answer) => answer.item),
  );
  return items.filter((gpc) => missed.has(gpc));
}

/** The latest pass that has an answer; 1 when there is none. */
export function passReached(answers: readonly GivenAnswer[]): number {
  return answers.reduce((most, answer) => Math.max(most, answer.pass), 1);
}
