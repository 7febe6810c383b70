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

/** How a child stands with a spelling on a day, with the reason for it. */
export type Standing =
  | { readonly state: "not taught"; readonly answers: 0 }
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

export type State = Standing["state"];

function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

/**
 * How one child stands with one correspondence on the day `today`, from what it has shown.
 *
 * The rule, for now: only the first answer of a day counts.
 * - secure: right at once (or in the child's own way) on the last two days it was asked, the last at most 56 days ago
 * - gap: missed on the last day it was asked, and not right at once the time before
 * - not sure yet: right at once on the one day that it was asked
 * - unsteady: everything else that was asked
 *
 * What fails in texts is a hint, not a check: two different words and more, misread since the spelling was last asked
 * and not longer than 56 days ago, make it unsteady where it was secure, not sure or not checked yet. It never makes a gap.
 */
export function standingOn(shown: ShownSpelling | undefined, today: string): Standing {
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

/** True when it was asked alone at least once. */
export function wasAsked(standing: Standing): standing is Extract<Standing, Asked> {
  return standing.answers > 0;
}

/** True when the child read it the last time it was asked: enough to build practice words on. */
export function canRead(standing: Standing): boolean {
  return wasAsked(standing) && isRight(standing.last);
}

/**
 * How much a child needs to be taught it, 0 to 1: a gap 1; missed last time 0.7; slow last time 0.4;
 * failed in texts since 0.4; faded 0.2; right the last time 0, as a second day will show.
 */
export function needFor(standing: Standing): number {
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

/** Why the state is what it is, in one sentence for a colleague; `showDay` writes a day (`2026-11-18`) as people do. */
export function whyState(standing: Standing, showDay: (day: string) => string = (day) => day): string {
  if (standing.state === "not taught") return "Not taught yet in this class.";
  if (standing.state === "not checked") return "Taught, and not checked yet.";
  const on = wasAsked(standing) ? ` on ${showDay(standing.lastDay)}` : "";
  switch (standing.reason) {
    case "right on days in a row":
      return `Right at once on the last ${rule.secureDays} days it was asked, last${on}.`;
    case "right once":
      return `Right at once${on}, the only day it was asked; a second day in a row makes it secure.`;
    case "missed at first":
      return `Missed${on}, the first time that it was asked.`;
    case "missed again":
      return `Missed${on}, and not right at once the time before.`;
    case "missed after right":
      return `Missed${on}, though right at once the time before.`;
    case "slow":
      return `Right but slow${on}.`;
    case "right after missed":
      return `Right at once${on}; a second day in a row makes it secure.`;
    case "not asked for long":
      return `Was secure, and has not been asked for more than ${rule.fadeAfter} days (last${on}).`;
    case "misread since":
      return `Right${on}. Misread in texts since: ${standing.inTexts.slice(0, 4).join(", ")}.`;
    case "misread, never asked":
      return `Not asked on its own yet. Misread in texts since: ${standing.inTexts.slice(0, 4).join(", ")}.`;
  }
}
