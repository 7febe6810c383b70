import { type Dice, dice, shuffled } from "#core/checks";
import { findCorrespondence, type Gpc, likelyConfusions, plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { breakers, judgeText, type Place, placeOf, type Reader, type Word, wordsOf } from "#core/words";

export const partKinds = [
  "revisit",
  "teach",
  "readWords",
  "exceptionWords",
  "writeWords",
  "sentence",
  "lastLook",
] as const;
export type PartKind = (typeof partKinds)[number];

export interface SessionPart {
  readonly kind: PartKind;
  readonly minutes: number;
  /** Spellings (`ea=ee`) for revisit, teach and last look; words or one sentence for the others. */
  readonly items: readonly string[];
  /** What the adult does, in a sentence. */
  readonly how: string;
}

export interface SessionPlan {
  readonly target: Gpc;
  readonly parts: readonly SessionPart[];
  /** What could not be done as wished, as sentences for the teacher. */
  readonly remarks: readonly string[];
}

export interface PlanWanted {
  /** What every child of the group can read. The target need not be in it. */
  readonly known: ReadonlySet<Gpc>;
  readonly target: Gpc;
  /** Other targets of the group, and what is fading in it: revisited first. */
  readonly revisit: readonly Gpc[];
  readonly words: readonly Word[];
  readonly sentences: readonly string[];
  /** Exception words taught so far, newest last. */
  readonly exceptionWords: readonly string[];
  readonly seed: number;
}

export const partTitles: Record<PartKind, string> = {
  revisit: "Revisit",
  teach: "Teach",
  readWords: "Read words",
  exceptionWords: "Exception words",
  writeWords: "Write words",
  sentence: "Write a sentence",
  lastLook: "Last look",
};

/** Minutes a part, 15 in all. */
export const partMinutes: Record<PartKind, number> = {
  revisit: 2,
  teach: 3,
  readWords: 3,
  exceptionWords: 1,
  writeWords: 3,
  sentence: 2,
  lastLook: 1,
};

const READ = 9;
const WRITE = 4;

/** The words a group can read with the target in them: all other units are known. */
export function practiceWords(words: readonly Word[], known: ReadonlySet<Gpc>, target: Gpc): readonly Word[] {
  const readable = new Set([...known, target]);
  return words.filter((word) => placeOf(word, target) !== undefined && breakers(word, readable).length === 0);
}

/**
 * Takes `count` words so that the target stands at the start, in the middle and at the end as evenly as
 * the words allow. Shorter words come first within a place; chance, from the dice, decides among equals.
 */
export function balanced(words: readonly Word[], target: Gpc, count: number, from: Dice): readonly Word[] {
  const places: Record<Place, Word[]> = { start: [], middle: [], end: [] };
  const mixed = shuffled(words, from).sort(
    (one, other) => Math.max(3, one.units.length) - Math.max(3, other.units.length),
  );
  for (const word of mixed) places[placeOf(word, target) ?? "middle"].push(word);
  const taken: Word[] = [];
  while (taken.length < count) {
    const before = taken.length;
    for (const place of ["start", "middle", "end"] as const) {
      const next = taken.length < count ? places[place].shift() : undefined;
      if (next) taken.push(next);
    }
    if (taken.length === before) break;
  }
  return taken;
}

/** Fills a 15-minute session. Every word uses only what all children know, and the target. */
export function planSession(wanted: PlanWanted): SessionPlan {
  const { known, target, words, sentences, exceptionWords, seed } = wanted;
  const from = dice(seed);
  const remarks: string[] = [];
  const shown = showGrapheme(splitGpc(target).grapheme);
  const candidates = practiceWords(words, known, target);
  const picked = balanced(candidates, target, READ + WRITE, from);
  const toWrite = picked.length > READ ? picked.slice(READ) : picked.slice(Math.ceil(picked.length / 2));
  const toRead = picked.length > READ ? picked.slice(0, READ) : picked.slice(0, Math.ceil(picked.length / 2));
  if (picked.length < READ + WRITE) {
    remarks.push(
      picked.length === 0
        ? `No word in the list has ${shown} and otherwise only what all of these children can read. Check more of what was taught, or add your own words.`
        : `Only ${picked.length} ${picked.length === 1 ? "word" : "words"} with ${shown} ${picked.length === 1 ? "fits" : "fit"} what all of these children can read. Add your own words if you like.`,
    );
  }
  const reader: Reader = {
    known: new Set([...known, target]),
    wholes: new Set(exceptionWords.map((word) => word.toLowerCase())),
    words: new Map(words.map((word) => [word.text, word])),
  };
  const sentence = pickSentence(sentences, reader, target, from);
  if (!sentence)
    remarks.push("No sentence in the list can be read with what all of these children know. Write your own below.");
  else if (!hasTarget(sentence, reader, target)) {
    remarks.push(
      `No sentence in the list practises ${shown} with what all of these children know; this one revisits other spellings.`,
    );
  }
  const revisit = [...new Set(wanted.revisit)].filter((gpc) => gpc !== target).slice(0, 6);
  const items: Record<PartKind, readonly string[]> = {
    revisit,
    teach: [target],
    readWords: shuffled(toRead, from).map((word) => word.text),
    exceptionWords: [...exceptionWords].reverse().slice(0, 4),
    writeWords: toWrite.map((word) => word.text),
    sentence: sentence ? [sentence] : [],
    lastLook: [target, ...revisit.slice(0, 3)],
  };
  const parts = partKinds.map((kind) => ({
    kind,
    minutes: partMinutes[kind],
    items: items[kind],
    how: howTo(kind, target),
  }));
  return { target, parts, remarks };
}

function hasTarget(sentence: string, reader: Reader, target: Gpc): boolean {
  return wordsOf(sentence).some((word) => {
    const listed = reader.words.get(word.toLowerCase());
    return listed?.units.some((unit) => unit.gpc === target);
  });
}

/** A sentence of which every word is listed or taught as a whole, with the target if any has it. */
function pickSentence(sentences: readonly string[], reader: Reader, target: Gpc, from: Dice): string | undefined {
  const readable = sentences.filter((sentence) =>
    judgeText(sentence, reader).every((word) => word.breakers.length === 0 && word.source !== "guessed"),
  );
  const practising = readable.filter((sentence) => hasTarget(sentence, reader, target));
  const choice = practising.length > 0 ? practising : readable.slice(-12);
  return choice.length > 0 ? choice[from.pick(choice.length)] : undefined;
}

function howTo(kind: PartKind, target: Gpc): string {
  const entry = findCorrespondence(target);
  const shown = showGrapheme(entry?.grapheme ?? splitGpc(target).grapheme);
  const sound = plainSound(splitGpc(target).sound);
  switch (kind) {
    case "revisit":
      return "Show each card once, shuffled. Put a card back in the pile when it was not right at once.";
    case "teach": {
      const mixed = likelyConfusions(target, 1)[0];
      const watch = mixed ? ` Listen for “${plainSound(mixed.sound)}” said instead.` : "";
      return `Show ${shown}, say “${sound}” as in ${entry?.keyword ?? shown}. Each child says it, then traces it while saying it.${watch}`;
    }
    case "readWords":
      return "Each child reads a word alone; the others read it in their heads and nod when ready.";
    case "exceptionWords":
      return "Read the word, find the part that is not as expected, read it again.";
    case "writeWords":
      return "Say the word, children count its sounds on their fingers, then write and check.";
    case "sentence":
      return "Say the sentence twice. Children repeat it, count the words, then write and read it back.";
    case "lastLook":
      return "Each child says the sound at sight. Mark it on the card.";
  }
}
