import { type GivenAnswer, isRightAtOnce, type Outcome } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import { inOrder } from "./days.ts";
import { missedInTexts, type TextMiss } from "./texts.ts";

/** A day on which something was asked, by its first answer: later ones of a day come after help. */
export interface AskedDay {
  readonly day: string;
  readonly outcome: Outcome;
  /** When that answer was marked, and its id. */
  readonly markedAt: string;
  readonly id: string;
}

/** What a child has shown of one spelling. */
export interface ShownSpelling {
  /** Standing answers, those of one day included. */
  readonly answers: number;
  /** Days on which it was asked. */
  readonly days: number;
  /** The last of these days, the newest last: as many as any school's rule looks at. */
  readonly lastDays: readonly AskedDay[];
  /** The outcomes of the last answers, the newest last: as many as any school's rule looks at. */
  readonly last: readonly Outcome[];
  /** The last round of cards that it was in is without an error so far. */
  readonly inCleanPass: boolean;
  /** Words of texts in which it failed since the last of these days, that day included. */
  readonly inTexts: readonly TextMiss[];
}

/**
 * What a child has shown, by spelling: everything from which its standing on any day follows, and nothing else. Plain data,
 * so that it can be stored.
 */
export type Shown = Readonly<Record<Gpc, ShownSpelling>>;

const unseen: ShownSpelling = { answers: 0, days: 0, lastDays: [], last: [], inCleanPass: false, inTexts: [] };
/** A school's rule looks at no more days, and no more answers, than this. */
export const MOST_DAYS = 5;
export const MOST_LOOKED_AT = 10;

/** With one more answer to the spelling seen and said. */
function withAnswer(shown: ShownSpelling, { day, outcome, markedAt, id }: GivenAnswer): ShownSpelling {
  const before = shown.lastDays.at(-1);
  const last = [...shown.last, outcome].slice(-MOST_LOOKED_AT);
  const answers = shown.answers + 1;
  if (before && day === before.day) return { ...shown, answers, last };
  return {
    ...shown,
    answers,
    days: shown.days + 1,
    lastDays: [...shown.lastDays, { day, outcome, markedAt, id }].slice(-MOST_DAYS),
    last,
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

/** A round of cards as far as it has come. */
export interface Round {
  /** The check and the round of it. */
  readonly of: string;
  readonly gpcs: readonly Gpc[];
  readonly clean: boolean;
}

/** Fewer cards than this are no deck. */
const LEAST_DECK = 8;

/** What the school's own rules count, with the round of cards that is open. */
export interface Counted {
  readonly shown: Shown;
  readonly round: Round | null;
}

export const countedNothing: Counted = { shown: {}, round: null };

/** Adds standing answers that are all later than those before, in their order. */
export function count(
  { shown, round }: Counted,
  answers: readonly GivenAnswer[],
  words: Parameters<typeof missedInTexts>[1] | null,
): Counted {
  const next: Record<Gpc, ShownSpelling> = { ...shown };
  let open = round;
  for (const answer of answers) {
    // What was written, found or read in words of a check is told by the checks themselves.
    // What a teacher says, and what was said with help, counts in no rule of the school.
    if (answer.kind !== "card" || answer.source.kind === "judgement" || answer.help !== "none") continue;
    next[answer.item] = withAnswer(next[answer.item] ?? unseen, answer);
    if (answer.source.kind === "check") open = inRound(open, answer, answer.source.checkId, next);
  }
  for (const [gpc, misses] of words ? missedInTexts(answers, words) : []) {
    const spelling = withMisses(next[gpc] ?? unseen, misses);
    if (spelling !== unseen) next[gpc] = spelling;
  }
  return { shown: next, round: open };
}

/** With one more card of a round; what it says of the round is said of all its cards. */
function inRound(
  before: Round | null,
  { item, outcome, pass }: GivenAnswer,
  checkId: string,
  shown: Record<Gpc, ShownSpelling>,
): Round {
  const of = `${checkId} ${pass}`;
  const open = before?.of === of ? before : { of, gpcs: [], clean: true };
  const round = {
    of,
    gpcs: open.gpcs.includes(item) ? open.gpcs : [...open.gpcs, item],
    clean: open.clean && isRightAtOnce(outcome),
  };
  const inCleanPass = round.clean && round.gpcs.length >= LEAST_DECK;
  const changed = open.clean !== round.clean || round.gpcs.length === LEAST_DECK ? round.gpcs : [item];
  for (const gpc of changed) {
    const spelling = shown[gpc];
    if (spelling) shown[gpc] = { ...spelling, inCleanPass };
  }
  return round;
}

/**
 * What a child has shown, from all its standing answers.
 * @example shownBy(standing(log, wanted), wanted.words)
 */
export function shownBy(
  answers: readonly GivenAnswer[],
  words: Parameters<typeof missedInTexts>[1] | null = null,
): Shown {
  return count(countedNothing, inOrder(answers), words).shown;
}
