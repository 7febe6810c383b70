import { type GivenAnswer, heardIn, isRight, isRightAtOnce } from "#core/ledger";
import { findCorrespondence } from "#core/phonics";
import { failedUnits, isWordItem, Kept, readWordItem, shapeOf, syllableStarts, type Unit } from "#core/words";
import { writtenHeard } from "./heard-writing.ts";
import type { Heard, HeardWanted, Over } from "./hearing.ts";
import { overOf } from "./over.ts";
import { type Skill, skillsOfParts } from "./skills.ts";

const MOST_WORDS = 20_000;

interface WordParts {
  readonly units: readonly Unit[];
  readonly skills: readonly Skill[];
  /** For each unit, its place in `skills`; -1 for a letter without a sound. */
  readonly at: readonly number[];
  readonly blend: Skill;
  readonly madeUp: boolean;
  readonly text: string;
}
const parts = new Kept<string, WordParts>(MOST_WORDS);

function partsOf(item: string): WordParts {
  return parts.of(item, () => {
    const { units, stressed, joints, madeUp, text } = readWordItem(item);
    const skills: Skill[] = [];
    const at = units.map((unit) => {
      if (unit.sound === "") return -1;
      const skill: Skill = `say ${unit.gpc}`;
      if (!skills.includes(skill)) skills.push(skill);
      return skills.indexOf(skill);
    });
    const shape = shapeOf(units, syllableStarts(units, stressed, joints));
    return { units, skills, at, blend: `blend ${shape}`, madeUp, text };
  });
}

interface Laid {
  /** By lexicon: which units failed when a word was said as something. */
  readonly failed: Kept<string, readonly number[]>;
  readonly band: Kept<string, number>;
  readonly over: Kept<string, readonly Over[]>;
  readonly written: Kept<string, readonly Heard[]>;
}
const laid = new WeakMap<object, Laid>();
function laidBy({ lexicon }: HeardWanted): Laid {
  const known = laid.get(lexicon);
  if (known) return known;
  const fresh = {
    failed: new Kept<string, readonly number[]>(MOST_WORDS),
    band: new Kept<string, number>(MOST_WORDS),
    over: new Kept<string, readonly Over[]>(MOST_WORDS),
    written: new Kept<string, readonly Heard[]>(MOST_WORDS),
  };
  laid.set(lexicon, fresh);
  return fresh;
}

/**
 * What an answer says of skills; several things for a sentence, nothing where it says nothing. What was said wrong is laid
 * under the word's units, unless the adult named those that failed.
 */
export function heardFrom(answer: GivenAnswer, wanted: HeardWanted): readonly Heard[] {
  const { kind, item, outcome } = answer;
  // What no version of this tool can ask stays in the log and says nothing.
  if (!isKnown(kind, item)) return [];
  switch (kind) {
    case "card": {
      const { kind: source } = answer.source;
      const by = source === "session" || source === "judgement" ? source : "card";
      return [spelling("say", answer, by)];
    }
    case "find":
      return [spelling("say", answer, "choice")];
    case "choose":
      return [spelling("spell", answer, "choice")];
    case "write":
      return [spelling("spell", answer, "written")];
    case "names":
      return [{ form: "one", skill: `name ${item}`, outcome: plainly(answer), by: "card" }];
    case "listen":
      return [{ form: "one", skill: `hear ${item.split(" ")[0]}`, outcome: plainly(answer), by: "card" }];
    case "exception":
      return [{ form: "one", skill: `read ${item.toLowerCase()}`, outcome: plainly(answer), by: "card" }];
    case "paper": {
      if (answer.tags.includes("doubled")) return [];
      return [word(answer, "choice", wanted)];
    }
    case "words":
      if (outcome === "wrong" && answer.tags.includes("putRight")) return [];
      return [word(answer, answer.way === "text" ? "text" : "alone", wanted)];
    case "seek":
      return [];
    case "dictation":
      return laidBy(wanted).written.of(`${wanted.accent?.id}\t${item}\t${outcome}\t${heardIn(answer)}`, () =>
        writtenHeard(answer, wanted),
      );
  }
}

/** True for an answer whose item this version can read. */
export function isHeard({ kind, item }: Pick<GivenAnswer, "kind" | "item">): boolean {
  return kind !== "seek" && isKnown(kind, item);
}

const ofSpelling: ReadonlySet<string> = new Set(["card", "find", "choose", "write"]);

function isKnown(kind: GivenAnswer["kind"], item: string): boolean {
  if (ofSpelling.has(kind)) return findCorrespondence(item) !== undefined;
  return (kind !== "words" && kind !== "paper") || known.of(item, () => isWordItem(item));
}
const known = new Kept<string, boolean>(MOST_WORDS);

function plainly({ outcome }: GivenAnswer): "right" | "slow" | "wrong" | "otherWay" {
  if (outcome === "other") return "otherWay";
  if (isRightAtOnce(outcome) || outcome === "reversed") return "right";
  return isRight(outcome) ? "slow" : "wrong";
}

type HeardOne = Extract<Heard, { form: "one" }>;

function spelling(verb: "say" | "spell", answer: GivenAnswer, by: HeardOne["by"]): HeardOne {
  const { item } = answer;
  const parts = skillsOfParts(verb, item);
  const one: HeardOne = { form: "one", skill: `${verb} ${item}`, outcome: plainly(answer), by };
  return parts.length > 0 ? { ...one, parts } : one;
}

function word(answer: GivenAnswer, where: "alone" | "text" | "choice", wanted: HeardWanted): Heard {
  const { skills, blend, madeUp, text } = partsOf(answer.item);
  const { lexicon } = wanted;
  const over = laidBy(wanted).over.of(answer.item, () => overWord(answer.item, lexicon));
  const band = madeUp ? 0 : laidBy(wanted).band.of(text, () => lexicon.find(text)[0]?.band ?? 5);
  const its = { skills, ...(over.length > 0 ? { over } : {}) };
  const about = { form: "word", ...its, blend: where === "choice" ? null : blend, band, where } as const;
  const { outcome } = answer;
  if (outcome === "sounded" || outcome === "slow" || outcome === "blend")
    return { ...about, outcome: { came: outcome } };
  if (isRight(outcome)) return { ...about, outcome: { came: "right" } };
  return { ...about, outcome: { came: "failed", failed: failedIn(answer, wanted) } };
}

/** The units of the school's own over a word that was read. */
function overWord(item: string, lexicon: HeardWanted["lexicon"]): readonly Over[] {
  if (lexicon.ownUnits.length === 0) return [];
  const { units, at } = partsOf(item);
  return overOf("say", units, at, lexicon);
}

/** Places in the word's skills that failed. */
function failedIn(answer: GivenAnswer, wanted: HeardWanted): readonly number[] {
  const { units, at } = partsOf(answer.item);
  const named = answer.outcome === "wrong" || answer.outcome === "blend" ? answer.units : null;
  const heard = heardIn(answer);
  // What was ringed on a sheet names no unit by itself: the sheet is not here.
  const failed =
    named ??
    (heard === null || answer.kind === "paper"
      ? []
      : laidBy(wanted).failed.of(`${wanted.accent?.id}\t${answer.item}\t${heard}`, () =>
          failedUnits(units, heard, wanted),
        ));
  return [...new Set(failed.flatMap((one) => ((at[one] ?? -1) < 0 ? [] : [at[one] as number])))];
}
