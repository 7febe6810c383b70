import type { Gpc } from "#core/phonics";
import type { Learner, Target } from "./fit.ts";

/** Two children, by id; which comes first says nothing. */
export type Pair = readonly [string, string];

/** What a grouping has to keep to beside the size of its groups. What is left out is no limit. */
export interface Limits {
  /** Groups at most, as many as there are adults for. */
  readonly mostGroups?: number;
  /** Pairs that must not be in one group. */
  readonly apart?: readonly Pair[];
  /** Pairs that must be in one group. */
  readonly together?: readonly Pair[];
  /** Children who are taught by themselves. */
  readonly alone?: readonly string[];
  /** Child id → number of the group (from 0) in which the child must stay. */
  readonly locked?: ReadonlyMap<string, number>;
  /** Child id → numbers of the groups in which the child must not be. */
  readonly barred?: ReadonlyMap<string, readonly number[]>;
  /** Groups hold children of one class only. Needs `classId` on the learners. */
  readonly withinClasses?: boolean;
  /** The oldest and the youngest year group in one group differ by this at most. Needs `year` on the learners. */
  readonly yearsApart?: number;
}

export interface GroupsWanted {
  readonly learners: readonly Learner[];
  /** All correspondences in teaching order. */
  readonly order: readonly Gpc[];
  readonly shape:
    | { readonly by: "count"; readonly count: number }
    | { readonly by: "size"; readonly least: number; readonly most: number };
  /** Targets a group, 1 or more. Default 4. */
  readonly mostTargets?: number;
  readonly limits?: Limits;
  /** What it is worth that a child stays with those it is with now (`group` of the learners), in whole needs. Default 0. */
  readonly stay?: number;
  readonly seed: number;
}

/** Why a child has no place. */
export type Unplaced =
  /** Needs nothing that was taught and asked. */
  | "no need"
  /** None of the groups with room for it works on anything that it needs. */
  | "no fit"
  /** There are more children than places. */
  | "no room";

export interface ProposedGroup {
  readonly members: readonly string[];
  readonly targets: readonly Target[];
}

/** A limit that cannot be kept, in parts that a screen can say. */
export interface Unkept {
  readonly limit: "apart" | "together" | "alone" | "locked" | "least" | "room";
  readonly children: readonly string[];
  /** Why it cannot be kept, a whole sentence in which `{0}`, `{1}` … stand for the children's names. */
  readonly why: string;
  /** What would help, each a whole sentence. */
  readonly helps: readonly string[];
}

export interface Proposal {
  readonly groups: readonly ProposedGroup[];
  readonly unplaced: ReadonlyMap<string, Unplaced>;
  readonly unkept: readonly Unkept[];
  /** The whole need met, for comparing proposals; higher is better. */
  readonly worth: number;
}
