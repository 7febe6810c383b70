import type { Doer, PartKind } from "./part-kinds.ts";

export const doerNames: Readonly<Record<Doer, string>> = {
  child: "one child at a time",
  together: "all together",
  adult: "the adult shows",
};

interface KindOfPart {
  readonly title: string;
  /** What it is for, in a line. */
  readonly about: string;
  /** Minutes that it takes, where no one says otherwise. */
  readonly minutes: number;
  readonly who: Doer;
  /** What is laid out for it. */
  readonly materials: string;
  /**
   * What its items are: `spellings` (`ea=ee`), `words` to be read or written by units, `spoken` words that are only heard, `lines`
   * to be read as they stand.
   */
  readonly items: "spellings" | "words" | "spoken" | "lines";
}

/** Kinds whose words stand with marks under their sounds, where no one says otherwise. */
const marked: ReadonlySet<PartKind> = new Set([
  "blend",
  "readWords",
  "chain",
  "build",
  "writeWords",
  "exceptionWords",
]);

/** Whether words of a part stand with marks under their sounds: as it was said, else by its kind. */
export function hasMarks({
  kind,
  marks,
}: {
  readonly kind: PartKind;
  readonly marks?: boolean | undefined;
}): boolean {
  return kindsOfPart[kind].items === "words" && (marks ?? marked.has(kind));
}

export const kindsOfPart: Readonly<Record<PartKind, KindOfPart>> = {
  revisit: {
    ...{ title: "Revisit", minutes: 2, who: "child", materials: "cards", items: "spellings" },
    about: "Cards of what is about to be lost and what is in doubt, each child's own few.",
  },
  hear: {
    ...{ title: "Hear it", minutes: 1, who: "together", materials: "", items: "spoken" },
    about:
      "Words are said; children tell whether the sound is at the start, in the middle, at the end, or not there.",
  },
  teach: {
    ...{ title: "Teach", minutes: 3, who: "adult", materials: "a large card", items: "spellings" },
    about: "The new spelling: how it looks, what it says, how it is written.",
  },
  blend: {
    ...{ title: "Blend", minutes: 2, who: "together", materials: "sound cards", items: "words" },
    about: "Words from their sounds, one card after the other.",
  },
  readWords: {
    ...{ title: "Read words", minutes: 3, who: "child", materials: "word strips", items: "words" },
    about: "Words with the spelling that is taught, all else known.",
  },
  readAgain: {
    ...{ title: "Read again, at speed", minutes: 1, who: "child", materials: "word strips", items: "words" },
    about: "The same words in another order, without marks.",
  },
  madeUp: {
    ...{ title: "Made-up words", minutes: 1, who: "child", materials: "", items: "words" },
    about: "Words that are none, said to be so: they can only be sounded out.",
  },
  chain: {
    ...{ title: "Chain", minutes: 2, who: "together", materials: "sound tiles", items: "words" },
    about: "One sound changes from word to word.",
  },
  sort: {
    ...{ title: "Sort", minutes: 2, who: "together", materials: "word strips, a mat", items: "lines" },
    about: "Words go to the spelling that they have.",
  },
  pairs: {
    ...{ title: "Pairs", minutes: 1, who: "child", materials: "", items: "lines" },
    about: "Two words that differ in the one sound that is mixed up.",
  },
  build: {
    ...{ title: "Build words", minutes: 2, who: "child", materials: "sound tiles, boxes", items: "words" },
    about: "Words are said and put together on boxes, a box a sound.",
  },
  writeWords: {
    ...{ title: "Write words", minutes: 3, who: "child", materials: "sheets", items: "words" },
    about: "Words are said, counted in sounds, written and checked.",
  },
  exceptionWords: {
    ...{ title: "Exception words", minutes: 1, who: "child", materials: "word strips", items: "words" },
    about: "Words with a part that is not as expected.",
  },
  readSentence: {
    ...{ title: "Read sentences", minutes: 1, who: "child", materials: "strips", items: "lines" },
    about: "Sentences that can be read with what is known and what is taught.",
  },
  sentence: {
    ...{ title: "Write a sentence", minutes: 2, who: "child", materials: "sheets", items: "lines" },
    about: "A sentence is said, its words are counted, it is written and read back.",
  },
  yesNo: {
    ...{ title: "Yes or no", minutes: 1, who: "together", materials: "", items: "lines" },
    about: "A question that is read, answered, and given a reason.",
  },
  phrase: {
    ...{ title: "Phrases and pictures", minutes: 2, who: "child", materials: "strips, pictures", items: "lines" },
    about: "A phrase of a few words is read and put to its picture.",
  },
  text: {
    ...{ title: "Text", minutes: 5, who: "child", materials: "the text", items: "lines" },
    about: "A text of the shelf that all of them can read.",
  },
  lastLook: {
    ...{ title: "Last look", minutes: 1, who: "child", materials: "cards", items: "spellings" },
    about: "The spelling of the day and a few others, once more at sight.",
  },
};
