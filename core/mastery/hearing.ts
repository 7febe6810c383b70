import type { TellWanted } from "#core/checks";
import type { Skill } from "./skills.ts";

/** What became of a word by its parts. */
type WordOutcome =
  | { readonly came: "right" | "slow" | "sounded" | "blend" }
  /** The parts that failed, as indexes; none where no one knows which. */
  | { readonly came: "failed"; readonly failed: readonly number[] };

/** What one answer says, in terms of skills. */
export type Heard =
  | {
      readonly form: "one";
      readonly skill: Skill;
      readonly outcome: "right" | "slow" | "wrong" | "otherWay";
      readonly by: "card" | "session" | "choice" | "written" | "judgement";
    }
  | {
      readonly form: "word";
      readonly skills: readonly Skill[];
      readonly blend: Skill | null;
      /** 1 to 5; 0 for a word that is none. */
      readonly band: number;
      readonly where: "alone" | "text" | "choice" | "written";
      readonly outcome: WordOutcome;
    };

export type HeardWanted = Pick<TellWanted, "lexicon" | "accent">;
