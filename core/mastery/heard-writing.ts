import { isSentence, scoreSentence, type TellWanted } from "#core/checks";
import { type GivenAnswer, heardIn } from "#core/ledger";
import { explainSpelling, type SpellingExplanation, split } from "#core/words";
import type { Heard } from "./hearing.ts";
import type { Skill } from "./skills.ts";

/** What a word or a sentence that was written says of spelling, word by word. A word that was left out says nothing. */
export function writtenHeard(answer: GivenAnswer, wanted: Pick<TellWanted, "lexicon" | "accent">): readonly Heard[] {
  const { item, outcome } = answer;
  const isDone = outcome === "right" || outcome === "reversed";
  const text = heardIn(answer) ?? (isDone ? item : null);
  if (isSentence(item)) {
    if (text === null) return [];
    return scoreSentence(item, text, wanted).words.flatMap(({ spelling }) => (spelling ? spelled(spelling) : []));
  }
  if (text !== null) return spelled(explainSpelling(item, text, wanted));
  const units = split(item, wanted)[0]?.units ?? [];
  return heardOf(
    units.map((unit): Skill | null => (unit.sound === "" ? null : `spell ${unit.gpc}`)),
    "all of it",
  );
}

/** Another spelling that can stand for the sound is not the one that was asked: the unit failed, the sound was heard. */
function spelled({ units }: SpellingExplanation): readonly Heard[] {
  return heardOf(
    units.map(({ unit }): Skill | null => (unit.sound === "" ? null : `spell ${unit.gpc}`)),
    units.flatMap(({ outcome, reversed }, at) => (outcome === "right" || reversed ? [] : [at])),
  );
}

function heardOf(units: readonly (Skill | null)[], failed: readonly number[] | "all of it"): readonly Heard[] {
  const skills = [...new Set(units.filter((one) => one !== null))];
  if (skills.length === 0) return [];
  const about = { form: "word", skills, blend: null, band: 5, where: "written" } as const;
  if (failed === "all of it") return [{ ...about, outcome: { came: "failed", failed: [] } }];
  const places = new Set(failed.flatMap((at) => (units[at] ? [skills.indexOf(units[at])] : [])));
  return [{ ...about, outcome: places.size > 0 ? { came: "failed", failed: [...places] } : { came: "right" } }];
}
