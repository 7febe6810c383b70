import { type Answer, type GivenAnswer, type Outcome, type StandingWanted, standing } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { rule } from "./rule.ts";
import { missedInTexts, type TextMiss } from "./texts.ts";

/** A day on which something was asked, by its first answer: later ones of a day come after help. */
export interface AskedDay {
  readonly day: string;
  readonly outcome: Outcome;
  /** When that answer was marked, and its id: another of the day that is earlier takes its place. */
  readonly markedAt: string;
  readonly id: string;
}

/** What a child has shown of one spelling. */
export interface ShownSpelling {
  /** Standing answers, those of one day included. */
  readonly answers: number;
  /** Days on which it was asked. */
  readonly days: number;
  /** The last of these days, the newest last: as many as the rule looks at. */
  readonly lastDays: readonly AskedDay[];
  /** Words of texts in which it failed since the last of these days, that day included. */
  readonly inTexts: readonly TextMiss[];
}

/**
 * What a child has shown, by spelling: everything from which its standing on any day follows, and nothing else. Plain data,
 * so that it can be stored.
 */
export type Shown = Readonly<Record<Gpc, ShownSpelling>>;

const unseen: ShownSpelling = { answers: 0, days: 0, lastDays: [], inTexts: [] };

/** What the answers of a child are understood by, beside the log itself. */
export interface ShownWanted extends StandingWanted {
  /** The school's words and accent: which spellings fail in a misread word. Without them texts say nothing. */
  readonly words: Parameters<typeof missedInTexts>[1] | null;
}

/** True when one answer was marked before the other; ids decide between two of one instant. */
function isBefore(one: Pick<GivenAnswer, "markedAt" | "id">, other: Pick<GivenAnswer, "markedAt" | "id">): boolean {
  return one.markedAt < other.markedAt || (one.markedAt === other.markedAt && one.id < other.id);
}

/** With one more answer to the spelling seen and said; null when it belongs among days that are not kept any more. */
function withAnswer(shown: ShownSpelling, { day, outcome, markedAt, id }: GivenAnswer): ShownSpelling | null {
  const last = shown.lastDays.at(-1);
  const asked = { day, outcome, markedAt, id };
  if (last && day < last.day) return null;
  if (last && day === last.day) return isBefore(asked, last) ? null : { ...shown, answers: shown.answers + 1 };
  return {
    answers: shown.answers + 1,
    days: shown.days + 1,
    lastDays: [...shown.lastDays, asked].slice(-Math.max(2, rule.secureDays)),
    inTexts: shown.inTexts.filter((miss) => miss.day >= day),
  };
}

/** With more words of texts in which it failed. */
function withMisses(shown: ShownSpelling, misses: readonly TextMiss[]): ShownSpelling {
  const since = shown.lastDays.at(-1)?.day ?? "";
  const fresh = misses.filter(({ day }) => day >= since);
  if (fresh.length === 0) return shown;
  // In an order of their own: readings of one day may arrive in any.
  const inTexts = [...shown.inTexts, ...fresh].sort((one, other) =>
    `${one.day} ${one.word}` < `${other.day} ${other.word}` ? -1 : 1,
  );
  return { ...shown, inTexts };
}

/** Answers by day and, within it, in order of marking. */
function byDay(answers: readonly GivenAnswer[]): GivenAnswer[] {
  return [...answers].sort((one, other) =>
    one.day === other.day ? (isBefore(one, other) ? -1 : 1) : one.day < other.day ? -1 : 1,
  );
}

/** Adds standing answers; null when one of them is not the newest of its spelling. */
function add(shown: Shown, answers: readonly GivenAnswer[], words: ShownWanted["words"]): Shown | null {
  const next: Record<Gpc, ShownSpelling> = { ...shown };
  for (const answer of byDay(answers)) {
    // What was written, found or read in words of a check is told by the checks themselves.
    if (answer.kind !== "card") continue;
    const spelling = withAnswer(next[answer.item] ?? unseen, answer);
    if (!spelling) return null;
    next[answer.item] = spelling;
  }
  for (const [gpc, misses] of words ? missedInTexts(answers, words) : []) {
    const spelling = withMisses(next[gpc] ?? unseen, misses);
    if (spelling !== unseen) next[gpc] = spelling;
  }
  return next;
}

/**
 * What a child has shown, from all its standing answers.
 * @example shownBy(standing(log, wanted), wanted.words)
 */
export function shownBy(answers: readonly GivenAnswer[], words: ShownWanted["words"] = null): Shown {
  return add({}, answers, words) ?? {};
}

/**
 * What a child has shown once these entries are added to its log, without looking at the ones before.
 * @param fresh entries with higher numbers than all that `shown` was made of
 * @returns null when they change what came before (an undo, a mark that arrived late): then all must be replayed
 */
export function shownAfter(shown: Shown, fresh: readonly Answer[], wanted: ShownWanted): Shown | null {
  if (fresh.some((entry) => entry.outcome === "void")) return null;
  return add(shown, standing(fresh, wanted), wanted.words);
}
