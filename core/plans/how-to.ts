import { defaultSettings, type Settings } from "#core/checks";
import {
  asIn,
  findCorrespondence,
  type Gpc,
  likelyConfusions,
  plainSound,
  showGrapheme,
  splitGpc,
} from "#core/phonics";
import { plural } from "#core/saying";
import type { PartKind } from "./part-kinds.ts";

/** A spelling as it is written. */
export function shown(gpc: Gpc): string {
  return showGrapheme(findCorrespondence(gpc)?.grapheme ?? splitGpc(gpc).grapheme);
}

/** What the school has chosen of that on which teachers disagree, as far as a session follows it. */
export type SchoolWays = Pick<Settings, "answerForm" | "exceptionWay" | "madeUp">;

/** How an exception word is read. */
const wordsSay: Readonly<Record<SchoolWays["exceptionWay"], string>> = {
  sounded: "Read the word, find the part that is not as expected, read it again.",
  wholes: "Read the word, spell it with the names of its letters, cover it, spell it again.",
};

/** What a child says to a card. */
const saysToCard: Readonly<Record<SchoolWays["answerForm"], string>> = {
  sound: "the sound",
  nameSound: "the names of its letters and the sound",
  nameKeywordSound: "the names of its letters, the keyword and the sound",
};

/** What the adult does in a part, in a sentence or two, in the school's ways; a few more where two spellings are taught. */
export function howTo(
  kind: PartKind,
  target: Gpc,
  { second, ways = defaultSettings }: { readonly second?: Gpc | undefined; readonly ways?: SchoolWays } = {},
): string {
  if (kind === "hear" && second)
    return "Say which sound to listen for, then the word. Children show whether it is at the start, in the middle, at the end, or not there.";
  if (kind === "teach" && second)
    return `${howTo(kind, target, { ways })} Then the same with ${shown(second)}: ${howTo(kind, second, { ways })}`;
  const entry = findCorrespondence(target);
  const sound = plainSound(splitGpc(target).sound);
  const says: Readonly<Record<PartKind, () => string>> = {
    revisit: () => {
      const all = ways.answerForm === "sound" ? "" : ` Each child says ${saysToCard[ways.answerForm]}.`;
      return `Show each child its own cards, shuffled.${all} Put a card back in the pile when it was not right at once.`;
    },
    hear: () =>
      `Say each word. Children show whether “${sound}” is at the start, in the middle, at the end, or not there.`,
    teach: () => {
      const mixed = likelyConfusions(target, 1)[0];
      const watch = mixed ? ` Listen for “${plainSound(mixed.sound)}” said instead.` : "";
      const keyword = entry?.keyword || shown(target);
      const say = {
        sound: `say “${sound}”${asIn(target)}`,
        nameSound: `say the names of its letters, then “${sound}”${asIn(target)}`,
        nameKeywordSound: `say the names of its letters, “${keyword}”, “${sound}”`,
      }[ways.answerForm];
      return `Show ${shown(target)}, ${say}. Each child says it, then traces it while saying it.${watch}`;
    },
    blend: () => "Lay one sound card after the other. Children say each sound, then the word.",
    readWords: () => "Each child reads a word alone; the others read it in their heads and nod when ready.",
    readAgain: () => "The same words without marks. Each child reads a line as smoothly as they can.",
    madeUp: () => "Say first that these are no real words. Each child sounds one out.",
    chain: () => "Build the first word. Say the next; a child changes the one sound that is another.",
    sort: () => "Read the word, then lay it under the spelling that it has.",
    pairs: () => "Say one of the two; a child points to it, then reads both.",
    build: () => "Say the word. Children put a tile in a box for each sound, then read it back.",
    writeWords: () => "Say the word, children count its sounds on their fingers, then write and check.",
    exceptionWords: () => wordsSay[ways.exceptionWay],
    readSentence: () => "Each child reads a sentence alone, then says it as if telling someone.",
    sentence: () => "Say the sentence twice. Children repeat it, count the words, then write and read it back.",
    yesNo: () => "A child reads the question; all answer, one says why.",
    phrase: () => "Lay out the pictures. A child reads a phrase and puts it to its picture, or draws it.",
    text: () => "Look at the hard words first. Each child reads alone; ask what happened.",
    lastLook: () => `Each child says ${saysToCard[ways.answerForm]} at sight. Mark it on the card.`,
  };
  return says[kind]();
}

/** How many words there were, in a sentence, when they were few. */
export function fewWords(count: number, target: Gpc): string | undefined {
  if (count >= 13) return undefined;
  return count === 0
    ? `No word in the list has ${shown(target)} and otherwise only what all of these children can read. Check more of what was taught, or add your own words.`
    : `Only ${plural(count, "word")} with ${shown(target)} ${count === 1 ? "fits" : "fit"} what all of these children can read. Add your own words if you like.`;
}
