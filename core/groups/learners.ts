import { cellAt } from "#core/mastery";
import type { Gpc } from "#core/phonics";
import type { Learner } from "./fit.ts";

/** A map of gaps as groups look at it. */
export interface MapOfGaps {
  readonly columns: readonly { readonly gpc: Gpc }[];
  readonly rows: readonly { readonly id: string; readonly classId: string; readonly cells: string }[];
}

/** The children of a map with what each needs, all needs alike, what is secure, and how much it was taught. */
export function learnersIn({ columns, rows }: MapOfGaps): readonly Learner[] {
  return rows.map(({ id, classId, cells }) => {
    const needs = new Map<Gpc, number>();
    const secure = new Set<Gpc>();
    let taught = 0;
    for (const [at, { gpc }] of columns.entries()) {
      const { need, state, taught: isTaught } = cellAt(cells, at);
      if (need > 0) needs.set(gpc, need);
      if (state === "secure") secure.add(gpc);
      if (isTaught) taught++;
    }
    return { id, classId, needs, secure, taught };
  });
}

/** What a teacher said of a spelling that would be worth teaching. */
export interface Said {
  readonly gpc: Gpc;
  readonly how: "pinned" | "later" | "struck";
}

/**
 * Needs as a teacher has them: what is pinned counts as much as anything can, also where no answer speaks for it, unless it is
 * secure; what is put off or struck out is no need now.
 * @param said the later of two about the same spelling counts: what is said of a child stands behind what is said of its class
 */
export function heeding(learner: Learner, said: readonly Said[]): Learner {
  if (said.length === 0) return learner;
  const needs = new Map(learner.needs);
  for (const { gpc, how } of new Map(said.map((one) => [one.gpc, one])).values()) {
    if (how !== "pinned") needs.delete(gpc);
    else if (!learner.secure.has(gpc)) needs.set(gpc, 1);
  }
  return { ...learner, needs };
}
