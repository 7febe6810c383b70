import { type KindId, timedKinds } from "./kinds.ts";
import type { CheckSource, Help, Source } from "./source.ts";
import type { TextEntry } from "./text-entry.ts";
import type { Way } from "./ways.ts";

/**
 * How an item was answered.
 * - `right`: right at once; `ownWay`: said in the child's own way, counts the same
 * - `slow`: right, slowly; `sounded`: a word sounded out aloud and blended
 * - `other`: another right spelling of the sound; `reversed`: the right letter, turned round
 * - `blend`: the sounds were right, the word was not
 * - `wrong`: something else; `none`: nothing
 */
export type Outcome = "right" | "slow" | "ownWay" | "sounded" | "other" | "reversed" | "blend" | "wrong" | "none";

interface OutcomeFacts {
  readonly right: boolean;
  readonly atOnce: boolean;
  /** What was said, written or chosen belongs to it. */
  readonly heard: boolean;
}

const fact = (right: boolean, atOnce: boolean, heard: boolean): OutcomeFacts => ({ right, atOnce, heard });

const facts: Record<Outcome, OutcomeFacts> = {
  right: fact(true, true, false),
  ownWay: fact(true, true, false),
  slow: fact(true, false, false),
  sounded: fact(true, false, false),
  other: fact(true, false, true),
  reversed: fact(true, false, false),
  blend: fact(false, false, true),
  wrong: fact(false, false, true),
  none: fact(false, false, false),
};

/** Every outcome that an answer can have. */
export const allOutcomes = Object.keys(facts) as readonly Outcome[];
/** Outcomes that carry what was said, written or chosen. */
export const heardOutcomes = ["other", "blend", "wrong"] as const;
/** Outcomes of which nothing was said, written or chosen instead. */
export const plainOutcomes = ["right", "slow", "ownWay", "sounded", "reversed", "none"] as const;
export type HeardOutcome = (typeof heardOutcomes)[number];
export type PlainOutcome = (typeof plainOutcomes)[number];

/** What else was seen with an answer. Each kind of check says which it uses. */
export const allTags = [
  "noName",
  "noKeyword",
  "noSpelling",
  "reversed",
  "doubled",
  "putRight",
  "soundedOut",
] as const;
export type Tag = (typeof allTags)[number];

interface Mark {
  readonly id: string;
  readonly childId: string;
  /** When it was marked, as an ISO instant. */
  readonly markedAt: string;
  /** The calendar day at the school, `2026-11-23`. Days, not hours, count for mastery. */
  readonly day: string;
  readonly markedBy: string;
}

interface Given extends Mark {
  readonly kind: KindId;
  /** What was asked, in the notation of its kind. */
  readonly item: string;
  /** Milliseconds from the item showing to the mark; null where no one measured. */
  readonly ms: number | null;
  readonly source: Source;
  readonly help: Help;
  readonly way: Way;
  readonly pass: number;
  readonly tags: readonly Tag[];
}

/** An answer read correctly has no `heard`; a wrong one has what was said, written or chosen, or null. */
export type GivenAnswer =
  | (Given & { readonly outcome: PlainOutcome })
  | (Given & {
      readonly outcome: HeardOutcome;
      readonly heard: string | null;
      /** Indexes of the units that failed, where a person overruled what the tool made of `heard`. */
      readonly units: readonly number[] | null;
    });

/** Undo: a later entry of the log that takes an earlier answer or note back. */
export interface VoidAnswer extends Mark {
  readonly outcome: "void";
  readonly voids: string;
}

/** Something the adult wants to remember about an item. */
export interface NoteEntry extends Mark {
  readonly outcome: "note";
  readonly source: CheckSource;
  readonly item: string | null;
  readonly text: string;
}

/** Why a check came to its end. */
export const stopReasons = ["done", "suggested", "tired", "stopped"] as const;
export type StopReason = (typeof stopReasons)[number];

/** The end of a check. Answers that come after it count all the same. */
export interface StopEntry extends Mark {
  readonly outcome: "stop";
  readonly source: CheckSource;
  readonly why: StopReason;
}

export type Answer = GivenAnswer | VoidAnswer | NoteEntry | StopEntry | TextEntry;

export interface StandingWanted {
  /** A timed answer that is right at once and took longer counts as slow; 0 leaves all as they were marked. */
  readonly slowAfterMs?: number | undefined;
  /** What a reading says of its words; without it readings say nothing. */
  readonly inText?: ((entry: TextEntry) => readonly GivenAnswer[]) | undefined;
}

/**
 * The answers that stand: those no later entry voids, in order of marking. What was marked right at once and took
 * longer than the school's threshold reads as slow; the log keeps what was marked.
 */
export function standing(
  log: readonly Answer[],
  { slowAfterMs = 0, inText }: StandingWanted = {},
): readonly GivenAnswer[] {
  const voided = voidedIn(log);
  return log
    .filter((entry) => !voided.has(entry.id))
    .flatMap((entry) => (isGiven(entry) ? [entry] : entry.outcome === "reading" ? (inText?.(entry) ?? []) : []))
    .map((answer) =>
      answer.outcome === "right" && isSlow(answer, slowAfterMs) ? { ...answer, outcome: "slow" as const } : answer,
    )
    .sort((one, other) => inOrder(one.markedAt, other.markedAt) || inOrder(one.id, other.id));
}

function isSlow({ kind, ms }: GivenAnswer, slowAfterMs: number): boolean {
  return slowAfterMs > 0 && ms !== null && ms > slowAfterMs && timedKinds.has(kind);
}

/** The notes that stand, in order of writing. */
export function notesIn(log: readonly Answer[]): readonly NoteEntry[] {
  const voided = voidedIn(log);
  return log.filter((answer): answer is NoteEntry => answer.outcome === "note" && !voided.has(answer.id));
}

/** The entry that ended a check and stands, or undefined while it is open. */
export function stopIn(log: readonly Answer[], checkId: string): StopEntry | undefined {
  const voided = voidedIn(log);
  return log.findLast(
    (entry): entry is StopEntry =>
      entry.outcome === "stop" && entry.source.checkId === checkId && !voided.has(entry.id),
  );
}

/**
 * The first answer to each item, in order: two adults may both have marked one, and it was asked once.
 * @example firstOfEach(given).length // how many items were asked
 */
export function firstOfEach(answers: readonly GivenAnswer[]): readonly GivenAnswer[] {
  const seen = new Set<string>();
  return answers.filter(({ item }) => !seen.has(item) && seen.add(item));
}

/** True for an entry that is an answer to an item, not an undo, a note, an end, or a whole reading. */
export function isGiven(answer: Answer): answer is GivenAnswer {
  return !["void", "note", "stop", "reading"].includes(answer.outcome);
}

function voidedIn(log: readonly Answer[]): ReadonlySet<string> {
  return new Set(log.flatMap((answer) => (answer.outcome === "void" ? [answer.voids] : [])));
}

/** Plain order of ISO texts and ids: `localeCompare` costs a hundred times as much on a long log. */
function inOrder(one: string, other: string): number {
  return one < other ? -1 : one > other ? 1 : 0;
}

/**
 * True for every outcome that is right, with effort or without.
 * @example isRight("sounded") // true
 */
export function isRight(outcome: Outcome): boolean {
  return facts[outcome].right;
}

/**
 * True for what is right at sight, in the child's own way too.
 * @example isRightAtOnce("sounded") // false
 */
export function isRightAtOnce(outcome: Outcome): boolean {
  return facts[outcome].atOnce;
}

/** True for the outcomes that carry what was said, written or chosen. */
export function takesHeard(outcome: Outcome): outcome is HeardOutcome {
  return facts[outcome].heard;
}

/** What was said, written or chosen in place of the right answer, as it is kept, or null. */
export function heardIn(answer: GivenAnswer): string | null {
  return takesHeard(answer.outcome) && "heard" in answer ? answer.heard : null;
}
