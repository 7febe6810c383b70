import type { GivenAnswer } from "#core/ledger";
import { dayNumber, inOrder } from "./days.ts";
import { below, logistic, meanChance } from "./gaussian.ts";
import { heardFrom } from "./heard.ts";
import type { HeardWanted } from "./hearing.ts";
import { type By, listen, type Open, weightOf } from "./listen.ts";
import { foresee, type Mind, newMind } from "./mind.ts";
import type { Skill } from "./skills.ts";

/** What a child's answers are understood by. */
export interface FollowWanted extends By {
  readonly words: HeardWanted;
  /** What was marked on an earlier day says nothing; empty or missing where no one knows the school's first day. */
  readonly firstDay?: string | undefined;
}

/** A mind that can be changed in place; the one it is made of stays as it is. */
export const opened = (mind: Mind): Open => ({
  ...mind,
  traits: { ...mind.traits },
  pace: { ...mind.pace },
  traces: { ...mind.traces },
});

/**
 * What is believed of a child once these standing answers are taken in, each on its day. The same answers give the same
 * mind, in whatever order they arrive. A mind so far is only right as a beginning when all these are later than its own.
 */
export function follow(answers: readonly GivenAnswer[], wanted: FollowWanted, from?: Mind): Mind {
  const mind = opened(from ?? newMind(wanted.p));
  const { firstDay = "" } = wanted;
  for (const answer of inOrder(answers)) if (answer.day >= firstDay) take(mind, answer, wanted);
  return mind;
}

/** Takes one answer into an open mind. Answers come in their order (`inOrder`). */
export function take(mind: Open, answer: GivenAnswer, wanted: FollowWanted): void {
  const day = dayNumber(answer.day);
  for (const said of heardFrom(answer, wanted.words)) {
    const heard =
      said.form === "one" && said.by === "card" && said.outcome === "right" && isSlowFor(mind, answer)
        ? { ...said, outcome: "slow" as const }
        : said;
    listen(mind, heard, { day, weight: weightOf(mind, { heard, day, help: answer.help }, wanted.p) }, wanted);
  }
  if (answer.kind === "card" && answer.ms !== null && answer.outcome === "right") keepPace(mind, answer.ms);
}

const ENOUGH_TIMED = 10;
const FAR_SLOWER = 2;
const LEAST_SPREAD = 0.25;

/** A right answer that took much longer than this child's answers do. */
function isSlowFor({ pace }: Pick<Mind, "pace">, { ms }: GivenAnswer): boolean {
  if (ms === null || pace.count < ENOUGH_TIMED) return false;
  const spread = Math.max(LEAST_SPREAD, Math.sqrt(pace.squares / (pace.count - 1)));
  return Math.log(ms) > pace.mean + FAR_SLOWER * spread;
}

/** Mean and squares one value on (Welford). */
function keepPace(mind: Open, ms: number): void {
  const value = Math.log(Math.max(50, ms));
  const count = mind.pace.count + 1;
  const away = value - mind.pace.mean;
  const mean = mind.pace.mean + away / count;
  mind.pace = { count, mean, squares: mind.pace.squares + away * (value - mean) };
}

/** How a child stands with a skill on a day. */
export interface Chance {
  readonly skill: Skill;
  /** That it does it at sight today, 0 to 1. */
  readonly chance: number;
  /** Between these the chance lies, nine times out of ten. */
  readonly low: number;
  readonly high: number;
  /** How likely the chance is under a half. */
  readonly gap: number;
  /** Answers that spoke of it, on so many days; of them against it. */
  readonly answers: number;
  readonly days: number;
  readonly misses: number;
  /** Days in which its odds are halved if no one asks, for this child. */
  readonly halfLife: number;
  /** That a teacher says it is known, or not, if no answer since went against it. */
  readonly judged: boolean | undefined;
}

const NINE_IN_TEN = 1.645;

/** What is believed of a skill of a child on a day (`2026-11-26`). */
export function chanceOn(mind: Mind, skill: Skill, day: string, by: By): Chance {
  const seen = foresee(mind, skill, dayNumber(day), by);
  const reach = NINE_IN_TEN * Math.sqrt(seen.variance);
  const { answers = 0, days = 0, misses = 0, judged } = seen.trace ?? {};
  return {
    skill,
    chance: meanChance(seen),
    low: logistic(seen.mean - reach),
    high: logistic(seen.mean + reach),
    gap: below(0, seen),
    answers,
    days,
    misses,
    halfLife: seen.halfLife * Math.exp(mind.traits.fading.mean),
    judged,
  };
}
