import type { Gpc } from "#core/phonics";

/** How a card was answered. Said in the child's own way counts as right at once. */
export type Outcome = "right" | "slow" | "ownWay" | "wrong" | "none";

interface Mark {
  readonly id: string;
  readonly childId: string;
  /** When it was marked, as an ISO instant. */
  readonly markedAt: string;
  /** The calendar day at the place of marking, `2026-11-23`. Days, not hours, count for mastery. */
  readonly day: string;
  readonly markedBy: string;
}

interface Given extends Mark {
  readonly item: Gpc;
  /** Milliseconds from the card showing to the mark; null where no one measured. */
  readonly ms: number | null;
  readonly checkId: string | null;
  readonly pass: number;
}

/** An answer read correctly has no `heard`; a wrong one has what was said (a sound key or plain letters) or null. */
export type GivenAnswer =
  | (Given & { readonly outcome: "right" | "slow" | "ownWay" | "none" })
  | (Given & { readonly outcome: "wrong"; readonly heard: string | null });

/** Undo: a later entry of the log that takes an earlier answer back. */
export interface VoidAnswer extends Mark {
  readonly outcome: "void";
  readonly voids: string;
}

export type Answer = GivenAnswer | VoidAnswer;

/** The answers that stand: those no later entry voids, in order of marking. */
export function standing(log: readonly Answer[]): readonly GivenAnswer[] {
  const voided = new Set(log.flatMap((answer) => (answer.outcome === "void" ? [answer.voids] : [])));
  return log
    .filter((answer): answer is GivenAnswer => answer.outcome !== "void" && !voided.has(answer.id))
    .sort((one, other) => inOrder(one.markedAt, other.markedAt) || inOrder(one.id, other.id));
}

/** Plain order of ISO texts and ids: `localeCompare` costs a hundred times as much on a long log. */
function inOrder(one: string, other: string): number {
  return one < other ? -1 : one > other ? 1 : 0;
}

export function isRight(outcome: Outcome): boolean {
  return outcome === "right" || outcome === "slow" || outcome === "ownWay";
}

export function isRightAtOnce(outcome: Outcome): boolean {
  return outcome === "right" || outcome === "ownWay";
}

/** What was said in place of the right sound, or null. */
export function heardIn(answer: GivenAnswer): string | null {
  return answer.outcome === "wrong" ? answer.heard : null;
}
