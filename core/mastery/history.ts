import { type GivenAnswer, heardIn, isRight } from "#core/ledger";
import { plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { readWordItem, showSaid } from "#core/words";
import { inOrder } from "./days.ts";
import { type Chance, chanceOn, type FollowWanted, opened, take } from "./follow.ts";
import { heardFrom } from "./heard.ts";
import type { Heard } from "./hearing.ts";
import { newMind } from "./mind.ts";
import { readSkill, type Skill } from "./skills.ts";

/** An answer that spoke of a skill, and how far it moved the chance. */
export interface Moved {
  readonly answer: GivenAnswer;
  /** What it was, in a few words that follow a date: `read in “rain”`. */
  readonly says: string;
  /** The chance on its day, before it was heard and after. */
  readonly before: number;
  readonly after: Pick<Chance, "chance" | "low" | "high">;
}

/** Every answer that spoke of a skill, the oldest first, with what it changed. Costs a replay of the child's log. */
export function historyOf(answers: readonly GivenAnswer[], skill: Skill, wanted: FollowWanted): readonly Moved[] {
  const mind = opened(newMind(wanted.p));
  const found: Moved[] = [];
  const { firstDay = "" } = wanted;
  for (const answer of inOrder(answers)) {
    if (answer.day < firstDay) continue;
    const about = heardFrom(answer, wanted.words).find((heard) => speaksOf(heard, skill));
    const before = about ? chanceOn(mind, skill, answer.day, wanted).chance : 0;
    take(mind, answer, wanted);
    if (!about) continue;
    const { chance, low, high } = chanceOn(mind, skill, answer.day, wanted);
    found.push({ answer, says: sayingOf(answer, about, skill), before, after: { chance, low, high } });
  }
  return found;
}

function speaksOf(heard: Heard, skill: Skill): boolean {
  if (heard.form === "one") return heard.skill === skill || (heard.parts?.includes(skill) ?? false);
  return placesOf(heard, skill).length > 0 || heard.blend === skill;
}

/** Where in a word a skill stands, among the word's skills; a unit of the school's own at each of its parts. */
function placesOf(heard: Extract<Heard, { form: "word" }>, skill: Skill): readonly number[] {
  const at = heard.skills.indexOf(skill);
  return at >= 0 ? [at] : (heard.over?.find((one) => one.skill === skill)?.of ?? []);
}

/** The pieces of evidence that moved the chance most, by logits, the newest first. */
export function movedMost(history: readonly Moved[], most = 3): readonly Moved[] {
  const logit = (chance: number) => Math.log(chance / (1 - chance));
  const by = ({ before, after }: Moved) => Math.abs(logit(after.chance) - logit(before));
  const picked = new Set([...history].sort((one, other) => by(other) - by(one)).slice(0, most));
  return history.filter((one) => picked.has(one)).reverse();
}

const plainly: Partial<Record<GivenAnswer["outcome"], string>> = {
  right: "said at once",
  ownWay: "said in their own way",
  slow: "said, slowly",
  sounded: "sounded out, then said",
  none: "no answer",
};

/** What an answer was for a skill, in a few words. */
function sayingOf(answer: GivenAnswer, heard: Heard, skill: Skill): string {
  if (heard.form === "one") {
    const says = sayingOfOne(answer, readSkill(skill).verb);
    return heard.skill === skill ? says : `${says}, in “${showGrapheme(splitGpc(answer.item).grapheme)}”`;
  }
  const text = answer.kind === "dictation" ? answer.item : readWordItem(answer.item).text;
  const said = heardIn(answer);
  const as = said === null ? "" : `, ${heard.where === "written" ? "written" : "read as"} “${showSaid(said)}”`;
  if (readSkill(skill).verb === "blend") return sayingOfBlending(heard.outcome, `“${text}”${as}`);
  const where = heard.where === "text" ? `“${text}” in a text` : `“${text}”`;
  const verb = heard.where === "written" ? "written" : heard.where === "choice" ? "ringed" : "read";
  switch (heard.outcome.came) {
    case "right":
      return `${verb} in ${where}`;
    case "slow":
      return `read slowly in ${where}`;
    case "sounded":
      return `sounded out in ${where}`;
    case "blend":
      return `its sound was right in ${where}, the word was not`;
    case "failed": {
      const { failed } = heard.outcome;
      if (failed.length === 0) return `${where} went wrong, and no one noted where${as}`;
      return placesOf(heard, skill).some((at) => failed.includes(at))
        ? `went wrong in ${where}${as}`
        : `right in ${where}, where something else went wrong`;
    }
  }
}

function sayingOfBlending({ came }: Extract<Heard, { form: "word" }>["outcome"], where: string): string {
  if (came === "blend") return `the sounds were right and the word was not: ${where}`;
  if (came === "failed") return `went wrong: ${where}`;
  return came === "right"
    ? `blended: ${where}`
    : `blended, ${came === "sounded" ? "sounded out" : "slowly"}: ${where}`;
}

function sayingOfOne(answer: GivenAnswer, verb: string): string {
  const heard = heardIn(answer);
  const inSession = answer.source.kind === "session" ? ", in a session" : "";
  if (answer.kind === "choose")
    return isRight(answer.outcome) ? "chosen for a word" : "another was chosen for a word";
  if (verb === "spell") return isRight(answer.outcome) ? "written" : `missed when it was written${inSession}`;
  if (answer.kind === "find") return isRight(answer.outcome) ? "found among others" : "missed among others";
  if (answer.source.kind === "judgement")
    return isRight(answer.outcome) ? "known, as the teacher says" : "not known, as the teacher says";
  const plain = plainly[answer.outcome];
  if (plain) return `${plain}${inSession}`;
  return `missed${heard ? `, said “${plainSound(heard)}”` : ""}${inSession}`;
}
