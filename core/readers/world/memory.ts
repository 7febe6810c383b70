import type { Assumptions, Forgetting } from "./assumptions.ts";

/** What one child has of one spelling. Only the memory that made it reads it. */
export interface Trace {
  readonly day: number;
  /** Between 0 and 1: the chance at sight on that day, or how far it has come. */
  readonly strength: number;
  /** Days, or the number of spaced meetings. */
  readonly lasting: number;
}

/** What a meeting with a spelling is worth to a child. */
interface Meeting {
  readonly day: number;
  /** Share of what is missing that it gives, 0 to 1. */
  readonly gives: number;
}

/** A child's own way with what it learned. */
interface Keeping {
  /** Of this child, beside the world's: more than 1 keeps longer. */
  readonly keepsLonger: number;
}

/** How things are learned and forgotten in a world. */
export interface Memory {
  readonly name: string;
  /** In a sentence, for the table of assumptions. */
  readonly says: string;
  readonly met: (before: Trace | undefined, meeting: Meeting, child: Keeping) => Trace;
  /** The chance that the child says it at sight on a day. */
  readonly chance: (trace: Trace | undefined, day: number, child: Keeping) => number;
}

/** Learning closes a share of what is missing; forgetting is exponential, with a half-life that grows where much had faded. */
export function halfLives(forgetting: Forgetting, a: Assumptions): Memory {
  const chance: Memory["chance"] = (trace, day, { keepsLonger }) =>
    trace ? trace.strength * 2 ** (-(day - trace.day) / (trace.lasting * keepsLonger)) : 0;
  return {
    name: `half-lives, ${forgetting}`,
    says: "A meeting gives a share of what is missing; half of it is gone after a time that grows with each meeting, most where much had faded.",
    chance,
    met: (before, { day, gives }, child) => {
      const now = chance(before, day, child);
      const faded = before && before.strength > 0 ? 1 - now / before.strength : 0;
      const lasting = before ? before.lasting * (1 + a.halfLifeGrows * faded * gives) : a.halfLife[forgetting];
      return { day, strength: now + (1 - now) * gives, lasting: Math.min(lasting, a.mostHalfLife) };
    },
  };
}

const stairs = [0.03, 0.16, 0.5, 0.82, 0.94, 0.98];
const halfAt: Readonly<Record<Forgetting, number>> = { slow: 0.16, middle: 0.28, fast: 0.45 };

/**
 * Learning goes up in stairs, each meeting a chance of one; forgetting follows a power of the time, flatter for each meeting
 * on a day of its own. The stair is drawn beforehand by how much a meeting gives, as a part of a stair.
 */
export function stairsAndPower(forgetting: Forgetting, a: Assumptions): Memory {
  const height = (strength: number) => {
    const at = Math.min(strength, stairs.length - 1);
    const low = Math.floor(at);
    // Between two stairs the child is nearly on the lower one until it has nearly come up.
    const part = (at - low) ** 2;
    return (stairs[low] ?? 0) * (1 - part) + (stairs[low + 1] ?? stairs[low] ?? 0) * part;
  };
  const chance: Memory["chance"] = (trace, day, { keepsLonger }) => {
    if (!trace) return 0;
    const slope = halfAt[forgetting] / keepsLonger / (1 + 0.35 * trace.lasting);
    return height(trace.strength) * (1 + Math.max(0, day - trace.day) / 3) ** -slope;
  };
  return {
    name: `stairs and powers, ${forgetting}`,
    says: "Meetings lead up stairs from 3% to 98%; what is there goes with a power of the time, more slowly for each day on which it was met.",
    chance,
    met: (before, { day, gives }) => {
      const spaced = before && day - before.day >= 2 ? 1 : 0;
      const sunk = before ? Math.min(before.strength, before.strength * (1 - 0.004 * (day - before.day))) : 0;
      return {
        day,
        strength: Math.min(stairs.length - 1, sunk + gives * a.stairsAMeeting),
        lasting: Math.min(8, (before?.lasting ?? 0) + spaced),
      };
    },
  };
}
