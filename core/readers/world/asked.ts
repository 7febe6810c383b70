import { type GivenAnswer, inCheck, inSession } from "#core/ledger";
import { type Gpc, isVowel, likelyConfusions } from "#core/phonics";
import { type Dice, inSounds, type Unit, type Word, wordItem } from "#core/words";
import { answerCard } from "../readers.ts";
import type { Assumptions } from "./assumptions.ts";
import type { Pupil } from "./pupils.ts";

/** One question to one child. */
export interface Question {
  readonly pupil: Pupil;
  /** The chance that it says a spelling at sight on that day. */
  readonly chance: (gpc: Gpc) => number;
  readonly day: string;
  /** Minute of the day: answers are marked in the order in which they were asked. */
  readonly minute: number;
  readonly a: Assumptions;
  readonly from: Dice;
}

type Said = Pick<GivenAnswer, "outcome"> & { readonly heard: string | null; readonly ms: number | null };

let count = 0;
/** An id that sorts in the order of asking, and is the same in each run. */
const nextId = () => `00000000-0000-4000-8000-${(count++).toString(16).padStart(12, "0")}`;

/** Ids begin anew: two runs give the same log. */
export function beginIds(): void {
  count = 0;
}

function answer(
  { pupil, day, minute }: Question,
  of: Pick<GivenAnswer, "kind" | "source" | "help" | "way"> & { readonly item: string },
  { outcome, heard, ms }: Said,
): GivenAnswer {
  const at = new Date(Date.parse(`${day}T09:00:00.000Z`) + minute * 60_000);
  const given = {
    id: nextId(),
    childId: pupil.id,
    markedAt: at.toISOString(),
    day,
    markedBy: "A colleague",
    ...of,
    ms,
    pass: 1,
    tags: [],
  };
  if (outcome === "wrong" || outcome === "blend" || outcome === "other")
    return { ...given, outcome, heard, units: null };
  return { ...given, outcome };
}

/** A card: what the child says at sight. */
export function askCard(question: Question, gpc: Gpc): GivenAnswer {
  const { pupil, chance, from } = question;
  return answer(
    question,
    { ...inCheck("card", "check"), item: gpc },
    answerCard(pupil.temper, gpc, chance(gpc), 0, from),
  );
}

/** What a colleague marks at the end of a session: easier than on another day. */
export function askInSession(question: Question, gpc: Gpc): GivenAnswer {
  const { pupil, chance, a, from } = question;
  const now = chance(gpc) + (1 - chance(gpc)) * a.sameDayHelp;
  const { outcome, heard } = answerCard(pupil.temper, gpc, now, 0, from);
  const said = outcome === "ownWay" ? ("right" as const) : outcome;
  return answer(
    question,
    { ...inSession("card", "session", "report"), item: gpc },
    { outcome: said, heard, ms: null },
  );
}

/** Which units of a word the child does not know at this moment. */
function failing({ pupil, chance, from }: Question, units: readonly Unit[]): number[] {
  const { sure, luck } = pupil.temper;
  return units.flatMap((unit, at) =>
    unit.sound !== "" && from.share() >= luck + (sure - luck) * chance(unit.gpc) ? [at] : [],
  );
}

/** The word with its failed units said as something like them, in sounds; null where no such thing comes to mind. */
function saidInstead(units: readonly Unit[], failed: readonly number[], from: Dice): string | null {
  const sounds = units.map((unit, at): string => {
    if (!failed.includes(at)) return unit.sound;
    const like = likelyConfusions(unit.gpc, 4).filter(({ sound }) => isVowel(sound) === isVowel(unit.sound));
    return like[Math.min(from.pick(Math.max(1, like.length)), from.pick(Math.max(1, like.length)))]?.sound ?? "";
  });
  const said = sounds.filter(Boolean);
  return said.length > 1 && said.join(" ") !== units.map((unit) => unit.sound).join(" ") ? inSounds(said) : null;
}

/** A word on its own, in a check; one that is made up is never known as a whole. */
export function askWord(
  question: Question,
  word: Pick<Word, "text" | "units" | "band">,
  madeUp = false,
): GivenAnswer {
  const { pupil, a, from } = question;
  const { temper } = pupil;
  const { units } = word;
  const of = { ...inCheck("words", "check"), item: wordItem(word, madeUp) };
  const right = (ms: number): Said => ({
    outcome: from.share() < temper.slow ? "slow" : "right",
    heard: null,
    ms: ms + from.pick(1500),
  });
  if (!madeUp && from.share() < (a.wholeWord[word.band] ?? 0)) return answer(question, of, right(700));
  const failed = failing(question, units);
  if (failed.length > 0) {
    if (from.share() >= temper.guesses) return answer(question, of, { outcome: "none", heard: null, ms: 6000 });
    const heard = from.share() < a.noted ? saidInstead(units, failed, from) : null;
    return answer(question, of, { outcome: "wrong", heard, ms: 3000 });
  }
  const joins = Math.max(0, units.length - 2);
  if (from.share() > temper.blends ** joins) return answer(question, of, { outcome: "blend", heard: null, ms: 5000 });
  if (from.share() < temper.sounds) return answer(question, of, { outcome: "sounded", heard: null, ms: 4500 });
  return answer(question, of, right(1000));
}

/** A word as it comes in a text: the sentence helps, and a misread may be told at once. */
export function askInText(question: Question, word: Word, readingId: string): GivenAnswer {
  const { pupil, a, from } = question;
  const { units } = word;
  const of = {
    kind: "words",
    source: { kind: "reading", readingId },
    help: "none",
    way: "text",
    item: wordItem(word),
  } as const;
  const asWhole = from.share() < (a.wholeWord[word.band] ?? 0) * 1.5;
  const failed = asWhole ? [] : failing(question, units);
  if (failed.length === 0 || from.share() < a.contextHelps) {
    const sounded = from.share() < pupil.temper.sounds / 8;
    return answer(question, of, { outcome: sounded ? "sounded" : "right", heard: null, ms: null });
  }
  if (from.share() >= pupil.temper.guesses) return answer(question, of, { outcome: "none", heard: null, ms: null });
  const heard = from.share() < a.noted ? saidInstead(units, failed, from) : null;
  return answer(question, of, { outcome: "wrong", heard, ms: null });
}
