import { cellAt, familyOfNeed, isOtherNeed, type NeedFamily } from "#core/mastery";
import type { Gpc } from "#core/phonics";
import type { Learner, Target } from "./fit.ts";

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
 * secure; what is put off or struck out is no need now. What is said of needs that are no spellings is for `withOthers`.
 * @param said the later of two about the same spelling counts: what is said of a child stands behind what is said of its class
 */
export function heeding(learner: Learner, said: readonly Said[]): Learner {
  if (said.length === 0) return learner;
  const needs = new Map(learner.needs);
  for (const { gpc, how } of new Map(said.map((one) => [one.gpc, one])).values()) {
    if (isOtherNeed(gpc)) continue;
    if (how !== "pinned") needs.delete(gpc);
    else if (!learner.secure.has(gpc)) needs.set(gpc, 1);
  }
  return { ...learner, needs };
}

/** A need that is no spelling, as `otherNeeds` gives it. */
export interface OtherThan {
  readonly id: string;
  /** 0 to 1. */
  readonly need: number;
}

/** Where needs of spellings were not weighed, or there are none. */
const NOT_WEIGHED = 1;

/**
 * Children with what else they need, so that groups are made for that too. Needs that are taught together are one; the greatest
 * counts. Nothing says what such a need would bring, so to be rid of it is worth what a need of a spelling is worth in the mean.
 * @param plain the same children with their needs as they were before they were weighed
 * @param others by child; a child that is not there needs nothing else
 * @param said by child: what is put off or struck out is no need now, what is pinned counts as much as anything can
 */
export function withOthers(
  learners: readonly Learner[],
  {
    plain,
    others,
    said = new Map(),
  }: {
    readonly plain: readonly Pick<Learner, "needs">[];
    readonly others: ReadonlyMap<string, readonly OtherThan[]>;
    readonly said?: ReadonlyMap<string, readonly Said[]>;
  },
): readonly Learner[] {
  const sum = (all: readonly Pick<Learner, "needs">[]) =>
    all.reduce((one, { needs }) => [...needs.values()].reduce((left, right) => left + right, one), 0);
  const all = sum(plain);
  const mean = all > 0 ? Math.min(1, sum(learners) / all) : NOT_WEIGHED;
  return learners.map((learner) => {
    const how = new Map((said.get(learner.id) ?? []).map((one) => [one.gpc, one.how]));
    const needs = new Map<Target, number>(learner.needs);
    for (const [family, need] of familiesOf(others.get(learner.id) ?? [], how, mean)) needs.set(family, need);
    return needs.size === learner.needs.size ? learner : { ...learner, needs };
  });
}

function familiesOf(
  needs: readonly OtherThan[],
  how: ReadonlyMap<string, Said["how"]>,
  mean: number,
): ReadonlyMap<NeedFamily, number> {
  const found = new Map<NeedFamily, number>();
  for (const { id, need } of needs) {
    const family = familyOfNeed(id);
    const said = how.get(id);
    if (!family || said === "later" || said === "struck" || need <= 0) continue;
    const counts = said === "pinned" ? 1 : Math.min(1, need) * mean;
    found.set(family, Math.max(found.get(family) ?? 0, counts));
  }
  return found;
}
