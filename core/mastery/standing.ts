import { isRightAtOnce } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { dayNumber, dayOfNumber } from "./days.ts";
import { type Chance, chanceOn } from "./follow.ts";
import type { Known } from "./known.ts";
import type { By } from "./listen.ts";
import type { ShownSpelling } from "./shown.ts";
import { readSkill, type Skill } from "./skills.ts";

/** When a school calls a spelling secure: a choice on which teachers disagree. */
export type SecureWhen =
  /** The model gives it at least so many in a hundred. */
  | { readonly by: "model"; readonly percent: number }
  /** Right at once on the last so many days on which it was asked. */
  | { readonly by: "days"; readonly days: number }
  /** Of the last so many answers to its card, such a share was right at once. */
  | { readonly by: "share"; readonly percent: number; readonly of: number }
  /** It was in the last whole round of cards, and every card of it was right at once. */
  | { readonly by: "pass" };

/** By the model, at 85 in a hundred. */
const STARTING_PERCENT = 85;
export const startingSecureWhen: SecureWhen = { by: "model", percent: STARTING_PERCENT };

/**
 * How sure the tool wants to be before it says on which side of a half a chance lies: nine in ten for secure, eight for a gap
 * and for unsteady. One slip is never a gap, and one right answer is nothing secure.
 */
export const sureness = { secure: 0.9, gap: 0.8, unsteady: 0.8, missesForGap: 2, answersForSecure: 2 };

export type State = "not taught" | "not checked" | "secure" | "not sure yet" | "unsteady" | "gap";

/** How a child stands with a spelling on a day: a word, and the chance that it is laid over. */
export interface Standing extends Chance {
  readonly state: State;
  /** It was taught by that day, or needs no teaching. What was asked before shows all the same, and is no need. */
  readonly taught: boolean;
  /** The child was away on the day on which it was taught. */
  readonly missed: boolean;
}

/** By what standings are said: the lessons and parameters of the model, and when the school calls a thing secure. */
export interface SaidBy extends By {
  readonly secureWhen: SecureWhen;
}

/**
 * How a child stands with reading a spelling on a day. Secure is as the school says. For the rest, a gap is surely under a
 * half, with two misses at least: one slip is never a gap. Unsteady is surely over a half and not secure; everything else is
 * not sure yet.
 */
export function standingOn(
  { mind, shown }: Pick<Known, "mind" | "shown">,
  gpc: Gpc,
  day: string,
  by: SaidBy,
): Standing {
  const chance = chanceOn(mind, `say ${gpc}`, day, by);
  const { lessons } = by;
  const state = stateOf(chance, shown[gpc], by);
  return { ...chance, state, taught: lessons.taughtOn(gpc) !== undefined, missed: lessons.missed?.(gpc) ?? false };
}

/**
 * How a child stands with any skill on a day. What the school's own rules count is of reading spellings alone; for all else
 * secure means the chance that the model gives it.
 */
export function standingOfSkill(
  known: Pick<Known, "mind" | "shown">,
  skill: Skill,
  day: string,
  by: SaidBy,
): Standing {
  const { verb, thing } = readSkill(skill);
  if (verb === "say") return standingOn(known, thing, day, by);
  const chance = chanceOn(known.mind, skill, day, by);
  const percent = by.secureWhen.by === "model" ? by.secureWhen.percent : STARTING_PERCENT;
  const inModel: SaidBy = { ...by, secureWhen: { by: "model", percent } };
  const taught = !taughtVerbs.has(verb) || by.lessons.taughtOn(thing) !== undefined;
  const missed = taughtVerbs.has(verb) && (by.lessons.missed?.(thing) ?? false);
  if (chance.answers === 0) return { ...chance, taught, missed, state: taught ? "not checked" : "not taught" };
  return { ...chance, taught, missed, state: stateOf(chance, undefined, inModel) };
}
const taughtVerbs: ReadonlySet<string> = new Set(["say", "spell", "read", "write"]);

function stateOf(chance: Chance, shown: ShownSpelling | undefined, by: SaidBy): State {
  if (chance.answers === 0)
    return by.lessons.taughtOn(chance.skill.slice("say ".length)) === undefined ? "not taught" : "not checked";
  if (isSecure(chance, shown, by.secureWhen)) return "secure";
  const missedEnough = chance.misses >= sureness.missesForGap || chance.judged === false;
  if (chance.gap >= sureness.gap && missedEnough) return "gap";
  return 1 - chance.gap >= sureness.unsteady && !isHigh(chance, by.secureWhen) ? "unsteady" : "not sure yet";
}

/** High enough for most: what is missing for secure is only to see it again. */
export function isHigh({ chance }: Pick<Chance, "chance">, when: SecureWhen): boolean {
  return chance * 100 >= (when.by === "model" ? when.percent : STARTING_PERCENT);
}

function isSecure(
  { chance, gap, answers, judged }: Chance,
  shown: ShownSpelling | undefined,
  when: SecureWhen,
): boolean {
  // Whatever a rule counts, what has faded under a half is not secure.
  if (chance < 0.5) return false;
  // A teacher knows it, until that wears off or it is asked: whatever the school counts.
  if (judged && isHigh({ chance }, when) && 1 - gap >= sureness.secure) return true;
  switch (when.by) {
    case "model":
      return chance * 100 >= when.percent && 1 - gap >= sureness.secure && answers >= sureness.answersForSecure;
    case "days": {
      const last = shown?.lastDays.slice(-when.days) ?? [];
      return last.length >= when.days && last.every(({ outcome }) => isRightAtOnce(outcome));
    }
    case "share": {
      const last = shown?.last.slice(-when.of) ?? [];
      const right = last.filter((outcome) => isRightAtOnce(outcome)).length;
      return last.length >= when.of && right * 100 >= when.percent * last.length;
    }
    case "pass":
      return shown?.inCleanPass ?? false;
  }
}

/** So many days ahead it is looked whether something will be lost. */
const FADES_DAYS = 28;

/** How much of a chance of today goes in four weeks if no one asks, in hundredths; 0 where nothing was asked. */
export function fadesOf(
  { mind }: Pick<Known, "mind">,
  { skill, chance, answers }: Pick<Chance, "skill" | "chance" | "answers">,
  today: string,
  by: By,
): number {
  if (answers === 0) return 0;
  const then = chanceOn(mind, skill, dayOfNumber(dayNumber(today) + FADES_DAYS), by).chance;
  return Math.max(0, Math.round(100 * (chance - then)));
}

/**
 * True when the child reads it more often than not: enough to build practice words on. A child that knows all else may well have
 * slipped the one time it was asked; until it was right once, no word is built on it.
 */
export function canRead({ answers, misses, chance }: Pick<Standing, "answers" | "misses" | "chance">): boolean {
  return answers > misses && chance >= 0.5;
}

/**
 * Needs under this are no need: everyone slips. As long as no one is sure, it takes more: what was right the few times that it was
 * asked is to be asked again, not taught.
 */
const LEAST_NEED = { sure: 0.2, unsure: 0.35 };

/**
 * How much a child needs to be taught it, 0 to 1: what is missing of its chance; nothing for what is secure, was never asked, or is
 * yet to be taught for the first time.
 */
export function needFor({
  state,
  answers,
  chance,
  taught,
}: Pick<Standing, "state" | "answers" | "chance" | "taught">): number {
  if (state === "secure" || answers === 0 || !taught) return 0;
  const need = 1 - chance;
  const least = state === "not sure yet" ? LEAST_NEED.unsure : LEAST_NEED.sure;
  return need < least ? 0 : Math.round(need * 100) / 100;
}
