import type { Gpc } from "#core/phonics";
import { dayOfNumber } from "./days.ts";
import { chanceOn } from "./follow.ts";
import type { Known } from "./known.ts";
import { type SaidBy, type Standing, standingOn, sureness } from "./standing.ts";

/** A spelling that it is worth asking a child about again, and why. */
export interface WorthAsking {
  readonly gpc: Gpc;
  readonly chance: number;
  /**
   * It was all but secure and has faded · no one can say on which side of a half it lies · it was missed, once · the child was away
   * when it was taught, and was never asked.
   */
  readonly why: "fading" | "unsure" | "slipped" | "away";
  /** How doubtful it is, by how much depends on it: what comes first is worth most. */
  readonly worth: number;
}

/** How doubtful it is on which side of a half a chance lies: 0 when it is settled, a quarter when it could be either. */
export function doubtOf({ gap }: Pick<Standing, "gap">): number {
  return gap * (1 - gap);
}

/** Under three minutes, at some eight seconds a card with what is around it. */
export const MOST_CARDS = 12;
const ALL_BUT_SECURE = 0.85;
/** Worth less than this, a card that is only unsure can wait. */
const LEAST_WORTH = 0.15;

/**
 * What a child should be asked again: what was taught and asked, is fading or doubtful, and matters, and what was
 * taught while it was away; what is worth most first. Nothing that is settled either way, and nothing that was asked today.
 * @param weights what depends on each skill, as `weightsOf` gives it
 */
export function secondLook(
  known: Pick<Known, "mind" | "shown">,
  { taught, weights }: { readonly taught: readonly Gpc[]; readonly weights: Readonly<Record<string, number>> },
  today: string,
  by: SaidBy,
): readonly WorthAsking[] {
  return taught
    .flatMap((gpc) => {
      const standing = standingOn(known, gpc, today, by);
      const why = whyAsk(known, standing, today, by);
      const worth = doubtOf(standing) * (weights[standing.skill] ?? 0);
      return why && (why !== "unsure" || worth >= LEAST_WORTH) ? [{ gpc, chance: standing.chance, why, worth }] : [];
    })
    .sort((one, other) => other.worth - one.worth || (one.gpc < other.gpc ? -1 : 1))
    .slice(0, MOST_CARDS);
}

function whyAsk(
  { mind }: Pick<Known, "mind">,
  { answers, skill, gap, chance, misses, missed }: Standing,
  today: string,
  by: SaidBy,
): WorthAsking["why"] | undefined {
  const trace = mind.traces[skill];
  if (answers === 0 || !trace) return missed ? "away" : undefined;
  const lastDay = dayOfNumber(trace.day);
  if (lastDay >= today) return undefined;
  if (gap >= sureness.gap) return misses < sureness.missesForGap ? "slipped" : undefined;
  const then = chanceOn(mind, skill, lastDay, by).chance;
  if (then >= ALL_BUT_SECURE && chance < ALL_BUT_SECURE) return "fading";
  return gap > 1 - sureness.unsteady ? "unsure" : undefined;
}
