import { confusionPair, type Gpc, splitGpc } from "#core/phonics";
import { type GivenAnswer, heardIn, isRight, isRightAtOnce, type Outcome } from "./answers.ts";

export interface CheckResult {
  readonly asked: number;
  /** First answers: right at once (own way included). */
  readonly known: readonly Gpc[];
  readonly slow: readonly Gpc[];
  /** First answers that were wrong or not given. */
  readonly missed: readonly Gpc[];
  /** Missed at first, right in a later pass. */
  readonly wonBack: readonly Gpc[];
  readonly confusions: readonly { readonly pair: string; readonly gpc: Gpc; readonly heard: string }[];
  /** Against the last time each card was asked before this check. */
  readonly nowRight: readonly Gpc[];
  readonly nowMissed: readonly Gpc[];
  /** Median milliseconds of the timed first answers, or null. */
  readonly medianMs: number | null;
}

/**
 * What a check says. `answers` are the standing answers of the check, `before` the last outcome of each
 * card before it.
 */
export function summarise(answers: readonly GivenAnswer[], before: ReadonlyMap<Gpc, Outcome>): CheckResult {
  const first = new Map<Gpc, GivenAnswer>();
  const later = new Map<Gpc, GivenAnswer>();
  for (const answer of answers) {
    if (!first.has(answer.item)) first.set(answer.item, answer);
    else later.set(answer.item, answer);
  }
  const firsts = [...first.values()];
  const pick = (test: (outcome: Outcome) => boolean) =>
    firsts.filter((answer) => test(answer.outcome)).map((answer) => answer.item);
  const missed = pick((outcome) => !isRight(outcome));
  const known = pick(isRightAtOnce);
  const times = firsts.flatMap((answer) => (answer.ms === null ? [] : [answer.ms])).sort((a, b) => a - b);
  return {
    asked: firsts.length,
    known,
    slow: pick((outcome) => outcome === "slow"),
    missed,
    wonBack: missed.filter((gpc) => isRight(later.get(gpc)?.outcome ?? "none")),
    confusions: answers.flatMap((answer) => {
      const heard = heardIn(answer);
      return heard ? [{ pair: confusionPair(splitGpc(answer.item).sound, heard), gpc: answer.item, heard }] : [];
    }),
    nowRight: known.filter((gpc) => before.has(gpc) && !isRightAtOnce(before.get(gpc) ?? "right")),
    nowMissed: missed.filter((gpc) => isRight(before.get(gpc) ?? "none")),
    medianMs: times.length === 0 ? null : (times[Math.floor(times.length / 2)] ?? null),
  };
}
