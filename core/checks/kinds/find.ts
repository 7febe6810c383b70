import { heardIn, kindNames } from "#core/ledger";
import {
  findCorrespondence,
  type Gpc,
  ipa,
  isOwnUnit,
  likelyConfusions,
  plainSound,
  showGrapheme,
  spellingsOfSound,
  splitGpc,
} from "#core/phonics";
import { dice, shuffled } from "#core/words";
import { drawSpellings } from "./draw.ts";
import { type Kind, nothingTold, type Pad } from "./kind.ts";
import { said } from "./pads.ts";

/** How many spellings to choose among, 4 to 9. */
interface FindSection {
  readonly choices: number;
}

/** Spellings that may stand among the choices, and how many choices the child has. */
interface FindSetup {
  readonly pool: readonly Gpc[];
  readonly choices: number;
}

const pad: Pad = [
  { outcome: "right", name: "Found at once" },
  { outcome: "slow", name: "Found, slow" },
  { outcome: "other", name: "Another spelling", hint: "of this sound" },
  { outcome: "wrong", name: "Something else", hint: "points elsewhere" },
  { outcome: "none", name: "No answer" },
];

/** A number that only the item decides, so that each card has its own order of choices. */
export function numberOf(text: string): number {
  let sum = 0;
  for (const sign of text) sum = (Math.imul(sum, 31) + (sign.codePointAt(0) ?? 0)) | 0;
  return sum >>> 1;
}

/**
 * The spellings among which the child finds the one for the sound: the right one, those most easily taken for it,
 * then others of the pool. No other spelling of the same sound is among them. At least two, at most `choices`.
 */
export function choicesFor(item: Gpc, { pool, choices }: FindSetup, seed: number): readonly string[] {
  const { grapheme, sound } = splitGpc(item);
  const same = new Set(spellingsOfSound(sound).map((entry) => entry.grapheme));
  const random = dice(seed + numberOf(item));
  const graphemes = [...new Set(pool.map((gpc) => splitGpc(gpc).grapheme))].filter((other) => !same.has(other));
  const near = likelyConfusions(item, 8).flatMap((confusion) =>
    spellingsOfSound(confusion.sound)
      .map((entry) => entry.grapheme)
      .filter((other) => graphemes.includes(other))
      .slice(0, 2),
  );
  const alikeInForm = graphemes.filter((other) => other.length === grapheme.length);
  const wrong = [...new Set([...near, ...shuffled(alikeInForm, random), ...shuffled(graphemes, random)])];
  return shuffled([grapheme, ...wrong.slice(0, Math.max(1, choices - 1))], random);
}

/** Sound to spelling, by pointing. An item is a correspondence; what is chosen is a spelling. */
export const find: Kind<"find", FindSection, FindSetup> = {
  id: "find",
  name: kindNames.find,
  about: "You say a sound, the child taps its spelling among several.",
  begins: { most: 12, choices: 6 },
  keeps: (drawn) => ({ pool: drawn?.pool ?? [], choices: drawn?.section.choices ?? 6 }),
  picks: "spellings",
  way: "cards",
  seconds: 6,
  order: "shuffled",
  fits: (item) => findCorrespondence(item) !== undefined,
  draw: drawSpellings,
  face: (item, setup, seed) => ({
    show: "choices",
    item,
    choices: choicesFor(item, setup, seed).map(showGrapheme),
  }),
  prompt: (item) => {
    const { sound, grapheme } = splitGpc(item);
    return {
      say: said(item),
      expects: `${showGrapheme(grapheme)} for ${ipa(sound)}`,
    };
  },
  pad: () => pad,
  likely: (item, setup, seed) =>
    choicesFor(item, setup, seed).map((choice) => ({
      heard: choice,
      shows: showGrapheme(choice),
      hint: choice === splitGpc(item).grapheme ? "right" : "points to it",
      outcome: choice === splitGpc(item).grapheme ? "right" : "wrong",
    })),
  tags: () => [],
  show: (item) => showGrapheme(splitGpc(item).grapheme),
  showHeard: showGrapheme,
  tell: (answer) => {
    const heard = heardIn(answer);
    const { grapheme, sound } = splitGpc(answer.item);
    if (!heard || answer.outcome !== "wrong") return nothingTold;
    return {
      says: [`Heard “${plainSound(sound)}” and pointed to ${showGrapheme(heard)}, not ${showGrapheme(grapheme)}.`],
      units: [],
      failed: [],
      mixed: isOwnUnit(answer.item) ? [] : [{ asked: grapheme, given: heard, of: "spelling" }],
    };
  },
};
