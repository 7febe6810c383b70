import { below, type Curve, meanChance, updated } from "../gaussian.ts";
import type { Heard } from "../hearing.ts";
import { type By, likelihoodsOf } from "../listen.ts";
import { type Foreseen, foresee, type Mind } from "../mind.ts";
import type { Skill } from "../skills.ts";

/** What it would tell to ask something: how much doubt it takes away in the mean, and whether it will come right. */
export interface Telling {
  /** The chance that it comes right. */
  readonly right: number;
  /** Doubt that is expected to go, weighed by what depends on each skill. */
  readonly settles: number;
  /** The skill of which it tells most. */
  readonly most: Skill;
}

/** How doubtful it is on which side of a half a skill lies: 0 when it is settled, a half when it could be either. */
const doubt = (gap: number) => 2 * gap * (1 - gap);

/** What an item would tell of the skills that it asks. `weight` says what depends on each; 0 leaves it out. */
export function tellingOf(
  mind: Mind,
  heard: Heard,
  { day, by, weight }: { readonly day: number; readonly by: By; readonly weight: (skill: Skill) => number },
): Telling {
  const skills = heard.form === "one" ? [heard.skill] : heard.skills;
  const seen = skills.map((skill) => foresee(mind, skill, day, by));
  const outcomes = likelihoodsOf(mind, heard, seen, day, by);
  let [settles, most, best] = [0, skills[0] as Skill, -1];
  for (const [at, skill] of skills.entries()) {
    const w = weight(skill);
    if (w <= 0) continue;
    const before = seen[at] as Foreseen;
    const now = doubt(below(0, before));
    if (now < 0.01) continue;
    const then = outcomes.reduce((sum, outcome) => {
      const likelihood = outcome.of[at] as Curve | null;
      return sum + outcome.chance * (likelihood ? doubt(below(0, updated(before, likelihood))) : now);
    }, 0);
    const its = w * Math.max(0, now - then);
    settles += its;
    if (its > best) [best, most] = [its, skill];
  }
  return { right: outcomes[0]?.chance ?? meanChance(seen[0] as Foreseen), settles, most };
}
