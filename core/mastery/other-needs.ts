import { kinds, plainSetup } from "#core/checks";
import { type GivenAnswer, heardIn } from "#core/ledger";
import {
  type Gpc,
  ipa,
  isVowel,
  plainSound,
  showGrapheme,
  spellingsOfSound,
  splitGpc,
  usualGpc,
} from "#core/phonics";
import { isWordItem, readWordItem, shapeOf, syllableStarts } from "#core/words";
import { type ConfusionCount, confusionsIn } from "./confusions.ts";
import { dayNumber, dayOfNumber } from "./days.ts";
import type { HeardWanted } from "./hearing.ts";
import type { Known } from "./known.ts";
import {
  type NeedFamily,
  type OtherNeedKind,
  otherNeedKindOf,
  otherNeedKinds,
  plainFamilyName,
  shapeInWords,
} from "./need-ids.ts";
import { readSkill, type Skill } from "./skills.ts";
import { needFor, type SaidBy, standingOfSkill, sureness } from "./standing.ts";

/** A need besides reading single spellings, with the evidence for it. */
export interface OtherNeed {
  /** `contrast sound b/d`, `rate texts`, or the skill: `blend CCVC`, `read said`, `write said`, `spell ai=ai`. */
  readonly id: string;
  readonly kind: OtherNeedKind;
  /**
   * How much of it is missing, 0 to 1; of a contrast the share of its last answers in which the one was taken for the other, of the
   * rate that of the aim.
   */
  readonly need: number;
  /** Answers against it, of so many that spoke of it; of a contrast those of the last four weeks. */
  readonly misses: number;
  readonly answers: number;
  /** The last day on which an answer spoke of it. */
  readonly lastDay: string;
  /** Items in which it happened, as they are shown, of the rate the newest text; empty where the model does not keep them. */
  readonly items: readonly string[];
  /** Of blending a cluster: words of the last four weeks that lost their first sound. */
  readonly lostFirst: number;
}

const verbKinds: Readonly<Record<string, OtherNeedKind>> = {
  blend: "blending",
  read: "word",
  write: "writing",
  spell: "writing",
};

/**
 * So often must a pair have been mixed up in four weeks, in more than one item, and in such a share of what asked for one of the two,
 * before it is worth a lesson: slips come once, and two in sixty are slips as well.
 */
const LEAST_MIXED = 2;
const LEAST_MIXED_SHARE = 0.1;
const LATELY_DAYS = 28;

/** What the needs besides single spellings are told from. */
export interface OtherNeedsWanted {
  readonly known: Pick<Known, "mind" | "shown">;
  /** The child's standing answers, by which contrasts and lost sounds are told. */
  readonly answers: readonly GivenAnswer[];
  readonly words: Pick<HeardWanted, "lexicon" | "accent">;
  readonly today: string;
  readonly by: SaidBy;
}

/**
 * What a child needs besides reading single spellings: pairs that it mixes up, shapes of words that it does not blend, exception
 * words, and spellings that it reads and does not write. What was not asked, or missed only once, is no need.
 * @returns by kind, what is missing most first
 */
export function otherNeeds({ known, answers, words, today, by }: OtherNeedsWanted): readonly OtherNeed[] {
  const from = dayNumber(today) - LATELY_DAYS;
  const lately = answers.filter(({ day }) => dayNumber(day) > from);
  const lost = lostFirstIn(lately, words);
  const skills = Object.keys(known.mind.traces) as Skill[];
  const needs = skills.flatMap((skill): OtherNeed[] => {
    const { verb, thing } = readSkill(skill);
    const kind = verbKinds[verb];
    const trace = known.mind.traces[skill];
    if (!kind || !trace || trace.misses < sureness.missesForGap) return [];
    const standing = standingOfSkill(known, skill, today, by);
    const need = needFor(standing);
    if (need === 0) return [];
    return [
      {
        ...{ id: skill, kind, need, misses: standing.misses, answers: standing.answers },
        lastDay: dayOfNumber(trace.day),
        items: [],
        lostFirst: kind === "blending" ? (lost.get(thing) ?? 0) : 0,
      },
    ];
  });
  const contrasts = confusionsIn(lately, { ...words, today }).flatMap((mixed) => contrastOf(mixed, lately) ?? []);
  const place = (one: OtherNeed) => otherNeedKinds.indexOf(one.kind);
  return [...contrasts, ...needs].sort((one, other) => place(one) - place(other) || other.need - one.need);
}

/** A pair that is mixed up often enough to be taught as a contrast. */
function contrastOf(mixed: ConfusionCount, lately: readonly GivenAnswer[]): OtherNeed | undefined {
  if (mixed.count < LEAST_MIXED || mixed.items.length < LEAST_MIXED) return undefined;
  const both = new Set(mixed.pair.split("/"));
  const asked = lately.filter(({ item }) => asksOne(item, both, mixed.of)).length;
  const answers = Math.max(asked, mixed.count);
  if (mixed.count < answers * LEAST_MIXED_SHARE) return undefined;
  return {
    id: `contrast ${mixed.of} ${mixed.pair}`,
    kind: "contrast",
    need: Math.round((100 * mixed.count) / answers) / 100,
    ...{ misses: mixed.count, answers, lastDay: mixed.lastDay, items: mixed.items, lostFirst: 0 },
  };
}

/** Whether an item, a spelling or a word in its units, asks for one of a pair. */
function asksOne(item: string, pair: ReadonlySet<string>, of: ConfusionCount["of"]): boolean {
  if (!isWordItem(item)) return false;
  return readWordItem(item).units.some(({ grapheme, sound }) => pair.has(of === "sound" ? sound : grapheme));
}

/** By shape, words that lost the first sound of a cluster and were right otherwise. */
function lostFirstIn(lately: readonly GivenAnswer[], words: OtherNeedsWanted["words"]): ReadonlyMap<string, number> {
  const found = new Map<string, number>();
  for (const answer of lately) {
    if (answer.kind !== "words" || heardIn(answer) === null) continue;
    const { failed, mixed, units } = kinds.words.tell(answer, { ...words, setup: plainSetup("words") });
    const clusterAtStart = units.length > 2 && [0, 1].every((at) => !isVowel(units[at]?.sound ?? "schwa"));
    if (!clusterAtStart || failed.length !== 1 || failed[0] !== 0 || mixed.length > 0) continue;
    const { stressed, joints } = readWordItem(answer.item);
    const shape = shapeOf(units, syllableStarts(units, stressed, joints));
    found.set(shape, (found.get(shape) ?? 0) + 1);
  }
  return found;
}

/** By spelling, how often it was mixed up in the last four weeks: of two sounds, the spelling that each usually has. */
export function mixedUp(needs: readonly OtherNeed[]): ReadonlyMap<Gpc, number> {
  const found = new Map<Gpc, number>();
  for (const { id, kind, misses } of needs) {
    if (kind !== "contrast") continue;
    const [of = "", pair = ""] = readSkill(id).thing.split(" ");
    for (const one of pair.split("/")) {
      const gpc = of === "sound" ? spellingsOfSound(one)[0]?.gpc : usualGpc(one);
      if (gpc) found.set(gpc, (found.get(gpc) ?? 0) + misses);
    }
  }
  return found;
}

/** What a teacher would call it: *blending with a cluster at the start*, *b and d*, *the word said*, *writing ai*. */
export function otherNeedName(id: string): string {
  const { verb, thing } = readSkill(id);
  if (id.startsWith("contrast ")) {
    const [of = "", pair = ""] = thing.split(" ");
    const [one = "", other = ""] = pair.split("/");
    const shown = of === "sound" ? plainSound : showGrapheme;
    const [first, second] = [shown(one), shown(other)];
    const told = first === second ? [ipa(one), ipa(other)] : [`“${first}”`, `“${second}”`];
    return `${told.join(" and ")} told apart`;
  }
  if (otherNeedKindOf(id) === "rate") return "the rate in texts";
  if (verb === "blend") return `blending ${shapeInWords(thing)}`;
  if (verb === "read") return `the word “${thing}”`;
  if (verb === "write") return `writing the word “${thing}”`;
  return `writing ${showGrapheme(splitGpc(thing).grapheme)}`;
}

/** What a teacher would call needs that are taught together: *exception words*, *blending a cluster at the start*. */
export function needFamilyName(family: NeedFamily): string {
  return plainFamilyName(family) ?? otherNeedName(family);
}
