import type { Role } from "#contract";

/** Who asks, in which school. */
export interface Actor {
  readonly schoolId: string;
  /** A member's role; `visitor` has a link or a code, or asks what anyone may. */
  readonly as: Role | "visitor";
  /** Null for visitors, and for the lead of this machine, who needs no account. */
  readonly memberId: string | null;
  /** What the trail calls them. */
  readonly name: string;
  /** A lead who is none until a second factor is set up, as the school wants it. */
  readonly lacksSecond?: true;
}
