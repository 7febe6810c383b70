import { isSentence, scoreSentence, type TellWanted } from "#core/checks";
import { type GivenAnswer, heardIn } from "#core/ledger";
import { explainSpelling, type SpellingExplanation, split, type Unit } from "#core/words";
import type { Heard } from "./hearing.ts";
import { overOf } from "./over.ts";
import type { Skill } from "./skills.ts";

type Wanted = Pick<TellWanted, "lexicon" | "accent">;

/** What a word or a sentence that was written says of spelling, word by word. A word that was left out says nothing. */
export function writtenHeard(answer: GivenAnswer, wanted: Wanted): readonly Heard[] {
  const { item, outcome } = answer;
  const isDone = outcome === "right" || outcome === "reversed";
  const text = heardIn(answer) ?? (isDone ? item : null);
  if (isSentence(item)) {
    if (text === null) return [];
    return scoreSentence(item, text, wanted).words.flatMap(({ spelling }) =>
      spelling ? spelled(spelling, wanted) : [],
    );
  }
  if (text !== null) return spelled(explainSpelling(item, text, wanted), wanted);
  return heardOf(split(item, wanted)[0]?.units ?? [], "all of it", wanted);
}

/** Another spelling that can stand for the sound is not the one that was asked: the unit failed, the sound was heard. */
function spelled({ units }: SpellingExplanation, wanted: Wanted): readonly Heard[] {
  return heardOf(
    units.map(({ unit }) => unit),
    units.flatMap(({ outcome, reversed }, at) => (outcome === "right" || reversed ? [] : [at])),
    wanted,
  );
}

function heardOf(
  units: readonly Unit[],
  failed: readonly number[] | "all of it",
  { lexicon }: Wanted,
): readonly Heard[] {
  const its = units.map((unit): Skill | null => (unit.sound === "" ? null : `spell ${unit.gpc}`));
  const skills = [...new Set(its.filter((one) => one !== null))];
  if (skills.length === 0) return [];
  const at = its.map((skill) => (skill === null ? -1 : skills.indexOf(skill)));
  const over = overOf("spell", units, at, lexicon);
  const about = {
    form: "word",
    skills,
    blend: null,
    band: 5,
    where: "written",
    ...(over.length > 0 && { over }),
  } as const;
  if (failed === "all of it") return [{ ...about, outcome: { came: "failed", failed: [] } }];
  const places = new Set(failed.flatMap((place) => ((at[place] ?? -1) < 0 ? [] : [at[place] as number])));
  return [{ ...about, outcome: places.size > 0 ? { came: "failed", failed: [...places] } : { came: "right" } }];
}
