import type { Doer, PartKind } from "./part-kinds.ts";

/** A part as a routine has it. */
export interface RoutinePart {
  readonly kind: PartKind;
  readonly minutes: number;
  readonly who: Doer;
  /** In the school's own words; empty where the tool's will do. */
  readonly how: string;
  /** Marks under the sounds of its words; as its kind has it where it is left out. */
  readonly marks?: boolean | undefined;
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

/**
 * A routine with kinds of part that it lacks, as long as before: they share the minutes of the first part of a kind that can give way.
 * It stays as it is where it has them all, or nothing can give way.
 */
export function bringIn(
  routine: Routine,
  { brings, instead }: { readonly brings: readonly PartKind[]; readonly instead: readonly PartKind[] },
): Routine {
  const { parts } = routine;
  const missing = brings.filter((kind) => !parts.some((part) => part.kind === kind));
  const from = instead.find((kind) => parts.some((part) => part.kind === kind));
  const at = parts.findIndex(({ kind }) => kind === from);
  const gone = parts[at];
  if (missing.length === 0 || !gone) return routine;
  const each = Math.max(1, Math.floor(gone.minutes / missing.length));
  const fresh = missing.map(
    (kind, place): RoutinePart => ({
      ...{ kind, who: "together", how: "" },
      minutes: place === 0 ? Math.max(1, gone.minutes - each * (missing.length - 1)) : each,
    }),
  );
  return { ...routine, parts: [...parts.slice(0, at), ...fresh, ...parts.slice(at + 1)] };
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
