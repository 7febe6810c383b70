import { isRight, isRightAtOnce, type Outcome } from "#core/ledger";
import { rule } from "./rule.ts";
import type { ShownSpelling } from "./shown.ts";

/** What was asked at least once. */
interface Asked {
  /** How many answers stand behind it. */
  readonly answers: number;
  /** Days on which it was asked. */
  readonly days: number;
  /** First outcome of the last of these days. */
  readonly last: Outcome;
  readonly lastDay: string;
}

/** Words of texts in which it failed since it was last asked: enough to count. */
interface Misread {
  readonly inTexts: readonly string[];
}

/** How a child stands with a spelling on a day by the rule of days, with the reason for it. */
export type ByDays =
  | { readonly state: "not checked"; readonly answers: 0 }
  | (Asked & { readonly state: "secure"; readonly reason: "right on days in a row" })
  /** Right once: another day would say more. */
  | (Asked & { readonly state: "not sure yet"; readonly reason: "right once" })
  | (Asked & { readonly state: "gap"; readonly reason: "missed at first" | "missed again" })
  | (Asked & {
      readonly state: "unsteady";
      readonly reason: "missed after right" | "slow" | "right after missed" | "not asked for long";
    })
  | (Asked & Misread & { readonly state: "unsteady"; readonly reason: "misread since" })
  | (Misread & { readonly state: "unsteady"; readonly reason: "misread, never asked"; readonly answers: 0 });

function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

/**
 * How one child stands with one correspondence on the day `today`, from what it has shown.
 *
 * What the tool went by before it had a model, and what the model is compared with. Only the first answer of a day counts.
 * - secure: right at once (or in the child's own way) on the last two days it was asked, the last at most 56 days ago
 * - gap: missed on the last day it was asked, and not right at once the time before
 * - not sure yet: right at once on the one day that it was asked
 * - unsteady: everything else that was asked
 *
 * What fails in texts is a hint, not a check: two different words and more, misread since the spelling was last asked
 * and not longer than 56 days ago, make it unsteady where it was secure, not sure or not checked yet. It never makes a gap.
 */
export function standingByDays(shown: ShownSpelling | undefined, today: string): ByDays {
  const [before, last] = [shown?.lastDays.at(-2), shown?.lastDays.at(-1)];
  const misread = (shown?.inTexts ?? []).filter(({ day }) => daysBetween(day, today) <= rule.textDays);
  const words = [...new Set(misread.map(({ word }) => word))];
  const inTexts = words.length >= rule.textWords ? words : [];
  if (!shown || !last)
    return inTexts.length > 0
      ? { state: "unsteady", reason: "misread, never asked", answers: 0, inTexts }
      : { state: "not checked", answers: 0 };
  const { answers, days } = shown;
  const asked = { answers, days, last: last.outcome, lastDay: last.day };
  if (!isRight(last.outcome)) {
    if (before && isRightAtOnce(before.outcome)) return { ...asked, state: "unsteady", reason: "missed after right" };
    return { ...asked, state: "gap", reason: before ? "missed again" : "missed at first" };
  }
  if (!isRightAtOnce(last.outcome)) return { ...asked, state: "unsteady", reason: "slow" };
  if (inTexts.length > 0) return { ...asked, state: "unsteady", reason: "misread since", inTexts };
  const recent = shown.lastDays.slice(-rule.secureDays);
  if (recent.length === rule.secureDays && recent.every((one) => isRightAtOnce(one.outcome)))
    return daysBetween(last.day, today) > rule.fadeAfter
      ? { ...asked, state: "unsteady", reason: "not asked for long" }
      : { ...asked, state: "secure", reason: "right on days in a row" };
  return before
    ? { ...asked, state: "unsteady", reason: "right after missed" }
    : { ...asked, state: "not sure yet", reason: "right once" };
}

/**
 * How much a child needs to be taught it, 0 to 1: a gap 1; missed last time 0.7; slow last time 0.4;
 * failed in texts since 0.4; faded 0.2; right the last time 0, as a second day will show.
 */
export function needByDays(standing: ByDays): number {
  if (standing.state === "gap") return 1;
  if (standing.state !== "unsteady") return 0;
  switch (standing.reason) {
    case "missed after right":
      return 0.7;
    case "slow":
    case "misread since":
    case "misread, never asked":
      return 0.4;
    case "not asked for long":
      return 0.2;
    case "right after missed":
      return 0;
  }
}
