import type { Dice } from "#core/checks";
import type { GivenAnswer } from "#core/ledger";
import type { Gpc } from "#core/phonics";
import type { DemoChild } from "./people.ts";

/** A made-up child with what it has learned so far and what it has answered. */
export interface Pupil extends DemoChild {
  readonly id: string;
  readonly classNumber: number;
  /** How well each correspondence sits, 0 to 1. */
  readonly learned: Map<Gpc, number>;
  /** Week in which it was last practised on purpose. */
  readonly practised: Map<Gpc, number>;
  answers: GivenAnswer[];
}

/** What was taught before the eight weeks: the earlier, the surer; the quick have more of it. */
export function learnBefore(pupil: Pupil, taught: readonly Gpc[], from: Dice): void {
  for (const [at, gpc] of taught.entries()) {
    const age = 1 - at / taught.length;
    const sticks = from.share() < 1 - (1 - pupil.pace) * (1 - age) ** 1.1;
    pupil.learned.set(gpc, sticks ? 0.9 + 0.1 * age : 0.55 * age);
  }
}

/** Teaching and practice of one correspondence: `by` is added, up to 1. */
export function practise(pupil: Pupil, gpc: Gpc, week: number, by: number): void {
  pupil.learned.set(gpc, Math.min(1, (pupil.learned.get(gpc) ?? 0) + by));
  pupil.practised.set(gpc, week);
}

/** A week of ordinary reading: everything begun settles a little, faster for the quick. */
export function growAWeek(pupil: Pupil): void {
  for (const [gpc, learned] of pupil.learned) {
    if (learned < 1) pupil.learned.set(gpc, Math.min(1, learned + pupil.pace * 0.1));
  }
}
