import type { Dice } from "#core/checks";
import type { Outcome } from "#core/ledger";
import { type Gpc, likelyConfusions } from "#core/phonics";
import type { Temper } from "./temper.ts";

/** Letters that turn into one another when they are turned round: those who mix letters up mix these most. */
export const reversible: ReadonlySet<Gpc> = new Set<Gpc>(["b=b", "d=d", "p=p", "qu=kw"]);

export interface Reply {
  readonly outcome: Outcome;
  /** What was said, written or chosen instead; only with the outcomes that carry it. */
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
