import type { Dice, Outcome } from "#core/checks";
import { type Gpc, likelyConfusions } from "#core/phonics";

/** How a simulated child tends to answer a card. All shares are 0 to 1. */
export interface Temper {
  readonly name: string;
  /** How surely something learned is right at sight. */
  readonly sure: number;
  /** How surely something not learned still comes right. */
  readonly luck: number;
  /** Share of right answers that come slowly. */
  readonly slow: number;
  /** Share of misses in which something else is said, rather than nothing. */
  readonly guesses: number;
  /** Share of misses on look-alikes and sound-alikes even when learned. */
  readonly mixes: number;
  /** How much of what is learned goes in a week without practice. */
  readonly forgets: number;
  /** Share of right answers said in the child's own way. */
  readonly ownWay: number;
}

const even: Temper = {
  name: "steady",
  sure: 0.97,
  luck: 0.08,
  slow: 0.06,
  guesses: 0.6,
  mixes: 0.01,
  forgets: 0.02,
  ownWay: 0,
};

/** Letters that turn into one another when they are turned round: those who mix letters up mix these most. */
const reversible = new Set<Gpc>(["b=b", "d=d", "p=p", "qu=kw"]);

/** Six kinds of reader, for the demo school, benchmarks and tests. */
export const tempers = {
  steady: even,
  forgetful: { ...even, name: "forgetful", sure: 0.97, forgets: 0.09, slow: 0.12 },
  guesser: { ...even, name: "guesser", sure: 0.96, guesses: 0.97, luck: 0.18, slow: 0.02 },
  slowAndRight: { ...even, name: "slow and right", sure: 0.98, slow: 0.55, guesses: 0.4 },
  lookAlikes: { ...even, name: "confuses look-alikes", sure: 0.975, mixes: 0.35, guesses: 0.9 },
  quiet: { ...even, name: "says nothing when unsure", sure: 0.975, guesses: 0.08, slow: 0.2 },
} as const satisfies Record<string, Temper>;

export interface Reply {
  readonly outcome: Outcome;
  /** The sound said instead; only with `wrong`. */
  readonly heard: string | null;
  /** Milliseconds until the answer. */
  readonly ms: number;
}

/**
 * What a simulated child says to a card. `learned` is how well the correspondence sits, 0 (never met) to 1;
 * `weeksAway` the weeks since it was last practised.
 */
export function answerCard(temper: Temper, gpc: Gpc, learned: number, weeksAway: number, from: Dice): Reply {
  const kept = learned * (1 - temper.forgets) ** weeksAway;
  const confusions = likelyConfusions(gpc);
  const mixed = from.share() < (reversible.has(gpc) ? temper.mixes : temper.mixes / 6);
  const right = !mixed && from.share() < temper.luck + (temper.sure - temper.luck) * kept;
  if (right) {
    const slow = from.share() < temper.slow + (1 - kept) * 0.35;
    if (slow) return { outcome: "slow", heard: null, ms: 3000 + from.pick(4500) };
    const own = from.share() < temper.ownWay;
    return { outcome: own ? "ownWay" : "right", heard: null, ms: 700 + from.pick(1600) };
  }
  if (!mixed && from.share() >= temper.guesses) return { outcome: "none", heard: null, ms: 5000 + from.pick(4000) };
  const pick = mixed ? 0 : Math.min(from.pick(3), from.pick(4));
  return {
    outcome: "wrong",
    heard: confusions[pick]?.sound ?? confusions[0]?.sound ?? null,
    ms: 1200 + from.pick(2600),
  };
}
