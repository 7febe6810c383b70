import { kinds, type Mixed, plainSetup, type Setup, type TellWanted } from "#core/checks";
import { checkOf, type GivenAnswer, heardIn } from "#core/ledger";
import { confusionPair } from "#core/phonics";
import { dayNumber } from "./days.ts";

/** Two sounds or spellings that a child takes for one another. */
export interface ConfusionCount extends Mixed {
  /** The two, in the order of the alphabet: `b/d`. */
  readonly pair: string;
  readonly count: number;
  readonly lastDay: string;
  /** How often in the last four weeks, and in the four before. */
  readonly lately: number;
  readonly before: number;
  /** The items in which it happened, as they are shown. */
  readonly items: readonly string[];
}

const LATELY_DAYS = 28;

/** Whether a confusion is getting rarer: it came at least twice in one of the two times, and once more or less often. */
export function trendOf({ lately, before }: Pick<ConfusionCount, "lately" | "before">): "more" | "less" | "alike" {
  if (Math.max(lately, before) < 2 || lately === before) return "alike";
  return lately > before ? "more" : "less";
}

/**
 * Which sounds, and which spellings, are taken for each other, counted as pairs over all kinds of check and texts,
 * most frequent first. `setupOf` gives what the check of an answer was made with.
 */
export function confusionsIn(
  answers: readonly GivenAnswer[],
  wanted: Omit<TellWanted, "setup"> & {
    /** What a check was made with; undefined where no one knows. */
    readonly today: string;
    readonly setupOf?: ((checkId: string | null) => Setup | undefined) | undefined;
  },
): readonly ConfusionCount[] {
  const { setupOf = () => undefined } = wanted;
  const today = dayNumber(wanted.today);
  const counts = new Map<string, Omit<ConfusionCount, "items"> & { items: Set<string> }>();
  const add = (mixed: Mixed, day: string, item: string) => {
    const pair = confusionPair(mixed.asked, mixed.given);
    const key = `${mixed.of} ${pair}`;
    const entry = counts.get(key) ?? {
      ...{ ...mixed, pair, count: 0, lately: 0, before: 0 },
      lastDay: day,
      items: new Set<string>(),
    };
    const ago = Math.floor((today - dayNumber(day)) / LATELY_DAYS);
    entry.items.add(item);
    const [, lastDay = day] = [entry.lastDay, day].sort();
    counts.set(key, {
      ...entry,
      count: entry.count + 1,
      lately: entry.lately + (ago <= 0 ? 1 : 0),
      before: entry.before + (ago === 1 ? 1 : 0),
      lastDay,
    });
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
