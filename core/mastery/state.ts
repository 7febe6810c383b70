import { kinds, type Mixed, plainSetup, type Setup, type TellWanted } from "#core/checks";
import { checkOf, type GivenAnswer, heardIn, isRight, isRightAtOnce, type Outcome } from "#core/ledger";
import { confusionPair } from "#core/phonics";

export type State = "not taught" | "not checked" | "gap" | "unsteady" | "secure";

/** All numbers of the rule, in one place. */
export const rule = {
  /** Days on which a correspondence must be right at once, one after the other. */
  secureDays: 2,
  /** Days after which something secure that no one asked for counts as unsteady again. */
  fadeAfter: 56,
  /** Different words of texts in which a spelling must fail, since it was last asked, to count as unsteady. */
  textWords: 2,
  /** Days for which a misread in a text counts. */
  textDays: 56,
};

export interface Standing {
  readonly state: State;
  /** First outcome of the last day on which it was asked; null when never. */
  readonly last: Outcome | null;
  readonly lastDay: string | null;
  readonly answers: number;
  /** Days on which it was asked. */
  readonly days: number;
  /** True when the state is unsteady only because a once secure spelling was not asked for long. */
  readonly fading: boolean;
  /** Different words of texts in which it failed since it was last asked, when they are enough to count; else none. */
  readonly inTexts: readonly string[];
}

const NEVER: Standing = {
  state: "not checked",
  last: null,
  lastDay: null,
  answers: 0,
  days: 0,
  fading: false,
  inTexts: [],
};

function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
}

/** The first standing answer of each day, oldest day first: later answers of a day come after help. */
export function dayAnswers(answers: readonly GivenAnswer[]): readonly GivenAnswer[] {
  const days = new Map<string, GivenAnswer>();
  for (const answer of answers) if (!days.has(answer.day)) days.set(answer.day, answer);
  return [...days.values()].sort((one, other) => (one.day < other.day ? -1 : one.day > other.day ? 1 : 0));
}

/** A word of a text in which a spelling failed. */
export interface TextMiss {
  readonly day: string;
  readonly word: string;
}

/**
 * How one child stands with one correspondence on the day `today`, from its standing answers.
 *
 * The rule, for now: only the first answer of a day counts.
 * - secure: right at once (or in the child's own way) on the last two days it was asked, the last at most 56 days ago
 * - gap: missed on the last day it was asked, and not right at once the time before
 * - unsteady: everything else that was asked
 *
 * What fails in texts is a hint, not a check: two different words and more, misread since the spelling was last asked
 * and not longer than 56 days ago, make it unsteady where it was secure or not checked yet. It never makes a gap.
 */
export function standingOf(
  answers: readonly GivenAnswer[],
  today: string,
  inTexts: readonly TextMiss[] = [],
): Standing {
  const days = dayAnswers(answers);
  const last = days.at(-1);
  const misread = [
    ...new Set(
      inTexts
        .filter(({ day }) => day >= (last?.day ?? "") && daysBetween(day, today) <= rule.textDays)
        .map(({ word }) => word),
    ),
  ];
  const told = misread.length >= rule.textWords ? misread : [];
  if (!last) return told.length > 0 ? { ...NEVER, state: "unsteady", inTexts: told } : NEVER;
  const before = days.at(-2);
  const recent = days.slice(-rule.secureDays);
  const steady = recent.length === rule.secureDays && recent.every((answer) => isRightAtOnce(answer.outcome));
  const fading = steady && daysBetween(last.day, today) > rule.fadeAfter;
  const missed = !isRight(last.outcome);
  const state: State =
    steady && !fading && told.length === 0
      ? "secure"
      : missed && !(before && isRightAtOnce(before.outcome))
        ? "gap"
        : "unsteady";
  return {
    state,
    last: last.outcome,
    lastDay: last.day,
    answers: answers.length,
    days: days.length,
    fading,
    inTexts: told,
  };
}

/** True when the child read it the last time it was asked: enough to build practice words on. */
export function canRead(standing: Standing): boolean {
  return standing.last !== null && isRight(standing.last);
}

/**
 * How much a child needs to be taught it, 0 to 1: a gap 1; missed last time 0.7; slow last time 0.4;
 * failed in texts since 0.4; faded 0.2; right the last time 0, as a second day will show.
 */
export function needFor(standing: Standing): number {
  if (standing.state === "gap") return 1;
  if (standing.state !== "unsteady") return 0;
  if (standing.last === null) return standing.inTexts.length > 0 ? 0.4 : 0;
  if (!isRight(standing.last)) return 0.7;
  if (standing.last === "slow") return 0.4;
  if (standing.inTexts.length > 0) return 0.4;
  return standing.fading ? 0.2 : 0;
}

/** Why the state is what it is, in one sentence for a colleague; `showDay` writes a day (`2026-11-18`) as people do. */
export function whyState(standing: Standing, showDay: (day: string) => string = (day) => day): string {
  const on = standing.lastDay ? ` on ${showDay(standing.lastDay)}` : "";
  switch (standing.state) {
    case "not taught":
      return "Not taught yet in this class.";
    case "not checked":
      return "Taught, and not checked yet.";
    case "gap":
      return standing.days === 1
        ? `Missed${on}, the first time that it was asked.`
        : `Missed${on}, and not right at once the time before.`;
    case "secure":
      return `Right at once on the last ${rule.secureDays} days it was asked, last${on}.`;
    case "unsteady":
      if (standing.inTexts.length > 0)
        return `${asked(standing, on)} Misread in texts since: ${standing.inTexts.slice(0, 4).join(", ")}.`;
      if (standing.fading)
        return `Was secure, and has not been asked for more than ${rule.fadeAfter} days (last${on}).`;
      if (standing.last === "slow") return `Right but slow${on}.`;
      if (standing.last && isRight(standing.last))
        return `Right at once${on}; a second day in a row makes it secure.`;
      return `Missed${on}, though right at once the time before.`;
  }
}

function asked({ last }: Standing, on: string): string {
  if (last === null) return "Not asked on its own yet.";
  return isRight(last) ? `${last === "slow" ? "Right but slow" : "Right"}${on}.` : `Missed${on}.`;
}

export interface ConfusionCount extends Mixed {
  /** The two, in the order of the alphabet: `b/d`. */
  readonly pair: string;
  readonly count: number;
  readonly lastDay: string;
  /** The items in which it happened, as they are shown. */
  readonly items: readonly string[];
}

/**
 * Which sounds, and which spellings, are taken for each other, counted as pairs over all kinds of check and texts,
 * most frequent first. `setupOf` gives what the check of an answer was made with.
 */
export function confusionsIn(
  answers: readonly GivenAnswer[],
  wanted: Omit<TellWanted, "setup"> & {
    /** What a check was made with; undefined where no one knows. */
    readonly setupOf?: ((checkId: string | null) => Setup | undefined) | undefined;
  },
): readonly ConfusionCount[] {
  const { setupOf = () => undefined } = wanted;
  const counts = new Map<string, Omit<ConfusionCount, "items"> & { items: Set<string> }>();
  const add = (mixed: Mixed, day: string, item: string) => {
    const pair = confusionPair(mixed.asked, mixed.given);
    const key = `${mixed.of} ${pair}`;
    const entry = counts.get(key) ?? { ...mixed, pair, count: 0, lastDay: day, items: new Set<string>() };
    entry.items.add(item);
    const [, lastDay = day] = [entry.lastDay, day].sort();
    counts.set(key, { ...entry, count: entry.count + 1, lastDay });
  };
  for (const answer of answers) {
    if (heardIn(answer) === null) continue;
    const kind = kinds[answer.kind];
    for (const mixed of kind.tell(answer, { ...wanted, setup: setupOf(checkOf(answer)) ?? plainSetup(answer.kind) })
      .mixed)
      add(mixed, answer.day, kind.show(answer.item));
  }
  return [...counts.values()]
    .map((entry) => ({ ...entry, items: [...entry.items] }))
    .sort((one, other) => other.count - one.count || (one.pair < other.pair ? -1 : 1));
}
