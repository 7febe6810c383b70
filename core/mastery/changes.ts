import type { GivenAnswer } from "#core/ledger";
import { isOwnUnit } from "#core/phonics";
import { chanceOn } from "./follow.ts";
import { heardFrom } from "./heard.ts";
import { type HeardWanted, spellingsOf } from "./hearing.ts";
import type { Known } from "./known.ts";
import { readSkill, type Skill } from "./skills.ts";
import { type SaidBy, type State, standingOn } from "./standing.ts";

/** How a child stood with a skill: its chance, and the word on the map where it stands there. */
export interface Stood {
  readonly chance: number;
  readonly state: State | null;
}

/** A skill that stands elsewhere on the map because of some answers. */
export interface Change {
  readonly skill: Skill;
  readonly before: Stood;
  readonly after: Stood;
}

/** Less than this, a chance has not moved. */
const LEAST_MOVED = 0.1;

/** Skills that these answers speak of. */
export function skillsIn(answers: readonly GivenAnswer[], words: HeardWanted): ReadonlySet<Skill> {
  const found = new Set<Skill>();
  for (const answer of answers)
    for (const heard of heardFrom(answer, words)) {
      for (const skill of spellingsOf(heard)) found.add(skill);
    }
  return found;
}

/** A unit of the school's own lies over words of those too who are not taught it, and says nothing of them. */
function isUntaughtUnit(skill: Skill, { lessons }: SaidBy): boolean {
  const { thing } = readSkill(skill);
  return isOwnUnit(thing) && lessons.taughtOn(thing) === undefined;
}

/**
 * What stands elsewhere with some answers than without them, as of a day: another word on the map, or a chance that moved by a
 * tenth; what moved most first. Listening and letter names are no part of the map.
 */
export function changesBetween(
  without: Pick<Known, "mind" | "shown">,
  known: Pick<Known, "mind" | "shown">,
  skills: Iterable<Skill>,
  day: string,
  by: SaidBy,
): readonly Change[] {
  const stood = (one: Pick<Known, "mind" | "shown">, skill: Skill): Stood => {
    const { verb, thing } = readSkill(skill);
    if (verb === "say") return standingOn(one, thing, day, by);
    return { chance: chanceOn(one.mind, skill, day, by).chance, state: null };
  };
  const moved = ({ before, after }: Change) => Math.abs(after.chance - before.chance);
  return [...skills]
    .filter((skill) => !["hear", "name"].includes(readSkill(skill).verb) && !isUntaughtUnit(skill, by))
    .map((skill): Change => {
      const [before, after] = [stood(without, skill), stood(known, skill)];
      return {
        skill,
        before: { chance: before.chance, state: before.state },
        after: { chance: after.chance, state: after.state },
      };
    })
    .filter((one) => one.before.state !== one.after.state || moved(one) >= LEAST_MOVED)
    .sort((one, other) => moved(other) - moved(one) || (one.skill < other.skill ? -1 : 1));
}
