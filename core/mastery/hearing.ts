import type { TellWanted } from "#core/checks";
import type { Skill } from "./skills.ts";

/** What became of a word by its parts. */
type WordOutcome =
  | { readonly came: "right" | "slow" | "sounded" | "blend" }
  /** The parts that failed, as indexes; none where no one knows which. */
  | { readonly came: "failed"; readonly failed: readonly number[] };

/** A unit of the school's own over a word. */
export interface Over {
  readonly skill: Skill;
  readonly of: readonly number[];
}

/** What one answer says, in terms of skills. */
export type Heard =
  | {
      readonly form: "one";
      readonly skill: Skill;
      readonly outcome: "right" | "slow" | "wrong" | "otherWay";
      readonly by: "card" | "session" | "choice" | "written" | "judgement";
      /** Of a unit of the school's own, the same of its parts. */
      readonly parts?: readonly Skill[];
    }
  | {
      readonly form: "word";
      readonly skills: readonly Skill[];
      /** Units of the school's own that lie over the word, each with its parts as places in `skills`. */
      readonly over?: readonly Over[];
      readonly blend: Skill | null;
      /** 1 to 5; 0 for a word that is none. */
      readonly band: number;
      readonly where: "alone" | "text" | "choice" | "written";
      readonly outcome: WordOutcome;
    };

/** The skills of spellings, or of one thing, of which an answer speaks; units of the school's own and their parts among them. */
export function spellingsOf(heard: Heard): readonly Skill[] {
  if (heard.form === "one") return [heard.skill, ...(heard.parts ?? [])];
  return [...heard.skills, ...(heard.over ?? []).map(({ skill }) => skill)];
}

export type HeardWanted = Pick<TellWanted, "lexicon" | "accent">;
