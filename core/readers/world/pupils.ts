import { correspondences, type Gpc, spellingsOfSound, splitGpc } from "#core/phonics";
import type { Dice } from "#core/words";
import { type Temper, tempers } from "../temper.ts";
import type { Assumptions } from "./assumptions.ts";

/** A simulated child of a class, apart from what it has learned. */
export interface Pupil {
  readonly id: string;
  readonly temper: Temper;
  /** Logits above or below what a meeting gives an average child. */
  readonly quick: number;
  readonly keepsLonger: number;
  /** Share of days on which it is not there. */
  readonly absent: number;
}

/** A draw from the normal distribution with mean 0 and spread 1 (Box and Muller). */
export function normal(from: Dice): number {
  return Math.sqrt(-2 * Math.log(1 - from.share())) * Math.cos(2 * Math.PI * from.share());
}

const logistic = (logit: number) => 1 / (1 + Math.exp(-logit));
const logitOf = (share: number) => Math.log(share / (1 - share));

/** A child of any kind, drawn by the dice; kinds come in turn so that each class has all of them. */
export function drawPupil(id: string, turn: number, a: Assumptions, from: Dice): Pupil {
  const kinds = Object.values(tempers);
  const temper = kinds[turn % kinds.length] as Temper;
  return {
    id,
    temper,
    quick: a.learningSpread * normal(from),
    keepsLonger: Math.exp(a.halfLifeSpread * normal(from)) * (temper.name === "forgetful" ? 0.7 : 1),
    absent: a.absent.least + (a.absent.most - a.absent.least) * from.share() ** 2,
  };
}

/** How much harder than an average one each spelling is, in logits: partly by its form, partly no one knows why. */
export function drawHardness(a: Assumptions, from: Dice): ReadonlyMap<Gpc, number> {
  return new Map(
    correspondences.map(({ gpc }) => {
      const { grapheme, sound } = splitGpc(gpc);
      const letters = Math.min(3, grapheme.replace("_", "").length);
      const rank = Math.min(
        4,
        Math.max(
          0,
          spellingsOfSound(sound).findIndex((one) => one.gpc === gpc),
        ),
      );
      const byForm = a.lettersHarder * (letters - 1.5) + a.laterSpellingHarder * (rank - 1);
      return [gpc, byForm + a.itemSpread * normal(from)];
    }),
  );
}

/** What a meeting gives this child for this spelling: a share of what is missing. */
export function gives(pupil: Pupil, hardness: number, share: number, a: Assumptions): number {
  const whole = logistic(logitOf(a.lessonGives) + pupil.quick - hardness);
  return Math.min(0.97, whole * share);
}
