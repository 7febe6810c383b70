import { type Answer, type GivenAnswer, type StandingWanted, standing } from "#core/ledger";
import { inOrder, placeOf } from "./days.ts";
import { type FollowWanted, follow } from "./follow.ts";
import { type Mind, newMind } from "./mind.ts";
import { type Counted, count, countedNothing } from "./shown.ts";

/**
 * Everything that is known of a child from its answers: what is believed of it, and what the school's own rules count. Plain
 * data from which its standing on any day follows, so that it can be stored.
 */
export interface Known extends Counted {
  readonly mind: Mind;
  /** The place of the last answer that it is made of; empty when there was none. */
  readonly upTo: string;
}

/** By what a log is understood. */
export interface KnownWanted extends FollowWanted {
  readonly standing: StandingWanted;
}

/** What is known of a child, from all its standing answers. */
export function knownBy(answers: readonly GivenAnswer[], wanted: FollowWanted): Known {
  return add({ ...countedNothing, mind: newMind(wanted.p), upTo: "" }, inOrder(answers), wanted);
}

function add(known: Known, all: readonly GivenAnswer[], wanted: FollowWanted): Known {
  const { firstDay = "" } = wanted;
  const answers = all.filter(({ day }) => day >= firstDay);
  const last = answers.at(-1);
  return {
    ...count(known, answers, wanted.words),
    mind: follow(answers, wanted, known.mind),
    upTo: last ? placeOf(last) : known.upTo,
  };
}

/**
 * What is known of a child once these entries are added to its log, without looking at the ones before.
 * @param fresh entries with higher numbers than all that `known` was made of
 * @returns null when they change what came before (an undo, a mark that arrived late): then all must be replayed
 */
export function knownAfter(known: Known, fresh: readonly Answer[], wanted: KnownWanted): Known | null {
  if (fresh.some((entry) => entry.outcome === "void")) return null;
  const answers = inOrder(standing(fresh, wanted.standing));
  const [first] = answers;
  if (first && placeOf(first) < known.upTo) return null;
  return add(known, answers, wanted);
}
