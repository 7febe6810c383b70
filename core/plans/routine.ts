import type { Doer, PartKind } from "./part-kinds.ts";

/** A part as a routine has it. */
export interface RoutinePart {
  readonly kind: PartKind;
  readonly minutes: number;
  readonly who: Doer;
  /** In the school's own words; empty where the tool's will do. */
  readonly how: string;
}

/** How a school holds its sessions: parts in an order of its own. A kind may come twice. */
export interface Routine {
  readonly name: string;
  /** For what it is, in a line. */
  readonly about: string;
  readonly parts: readonly RoutinePart[];
}

export const MOST_PARTS = 14;
export const MOST_PART_MINUTES = 60;

/** Ids of the routines that ship, which stay. */
export const shippedIds = [
  ...(["usual", "short", "review", "hearing", "changing", "sorting", "reading", "mixed"] as const),
] as const;
export type ShippedId = (typeof shippedIds)[number];
/** The routine of a group that no one has chosen one for. */
export const USUAL = "usual";

export function minutesOfRoutine({ parts }: Pick<Routine, "parts">): number {
  return parts.reduce((sum, { minutes }) => sum + minutes, 0);
}

/** True when a routine teaches something new: without such a part a session is review alone. */
export function teachesNew({ parts }: { readonly parts: readonly { readonly kind: PartKind }[] }): boolean {
  return parts.some(({ kind }) => kind === "teach");
}

/** What is wrong with a routine, a sentence each; none where it can be held. */
export function routineFaults({ name, parts }: Routine): string[] {
  return [
    ...(name.trim() === "" ? ["Give the routine a name."] : []),
    ...(parts.length === 0 ? ["A routine needs a part at least."] : []),
    ...(parts.length > MOST_PARTS ? [`A routine has at most ${MOST_PARTS} parts.`] : []),
    ...(parts.length > 0 && minutesOfRoutine({ parts }) === 0 ? ["A routine of no minutes cannot be held."] : []),
  ];
}
