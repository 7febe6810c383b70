import {
  findCorrespondence,
  type Gpc,
  likelyConfusions,
  plainSound,
  showGrapheme,
  splitGpc,
  withImplied,
} from "#core/phonics";
import { form, plural } from "#core/saying";
import {
  type Dice,
  dice,
  findWords,
  judgeText,
  type KnownBy,
  type Lexicon,
  shuffled,
  type TaughtReader,
  type Word,
} from "#core/words";
import { type GroupReader, helpWith } from "./reads.ts";

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
  /** What the group can read, by its own limit. The target need not be in it. */
  readonly known: ReadonlySet<Gpc>;
  /** The children, where some may need help: the plan says who, and with which words. */
  readonly readers?: readonly GroupReader[];
  readonly target: Gpc;
  /** Other targets of the group, and what is fading in it: revisited first. */
  readonly revisit: readonly Gpc[];
  /** The words on offer: those of an age that the children know. */
  readonly lexicon: Lexicon;
  /** Up to which age words of sentences are known; every word when left out. */
  readonly age?: KnownBy | undefined;
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

/** Words that are named of those with which a child needs help. */
const MOST_NAMED = 5;
/** Children who are named of those who need help. */
const MOST_HELPED = 8;
const READ = 9;
const WRITE = 4;

/** The words a group can read with the target in them, short and common ones first: all other units are known. */
export function practiceWords(lexicon: Lexicon, known: ReadonlySet<Gpc>, target: Gpc): readonly Word[] {
  return findWords({ lexicon, known, target });
}

/** Fills a 15-minute session. Every word uses only what all children know, and the target. */
export function planSession(wanted: PlanWanted): SessionPlan {
  const { known, target, lexicon, sentences, exceptionWords, seed } = wanted;
  const from = dice(seed);
  const remarks: string[] = [];
  const shown = showGrapheme(splitGpc(target).grapheme);
  const picked = findWords({ lexicon, known, target, place: "balanced", count: READ + WRITE, seed });
  const toWrite = picked.length > READ ? picked.slice(READ) : picked.slice(Math.ceil(picked.length / 2));
  const toRead = picked.length > READ ? picked.slice(0, READ) : picked.slice(0, Math.ceil(picked.length / 2));
  if (picked.length < READ + WRITE) {
    remarks.push(
      picked.length === 0
        ? `No word in the list has ${shown} and otherwise only what all of these children can read. Check more of what was taught, or add your own words.`
        : `Only ${plural(picked.length, "word")} with ${shown} ${form(picked.length, "fits", "fit")} what all of these children can read. Add your own words if you like.`,
    );
  }
  const reader: TaughtReader = {
    known,
    teaching: new Set([target]),
    wholes: new Set(exceptionWords.map((word) => word.toLowerCase())),
    lexicon,
  };
  const sentence = pickSentence(sentences, { reader, age: wanted.age ?? 12 }, from);
  if (!sentence)
    remarks.push("No sentence in the list can be read with what all of these children know. Write your own below.");
  else if (!sentence.practises) {
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
    sentence: sentence ? [sentence.text] : [],
    lastLook: [target, ...revisit.slice(0, 3)],
  };
  const given = [...items.readWords, ...items.writeWords, ...items.sentence];
  const wholes = new Set(exceptionWords.map((word) => word.toLowerCase()));
  // Endings and doubled letters follow from what is read.
  const readers = (wanted.readers ?? []).map((one) => ({ ...one, reads: withImplied(one.reads) }));
  const helped = helpWith(given, readers, { target, lexicon, wholes });
  for (const { name, words } of helped.slice(0, MOST_HELPED)) {
    const more = words.length > MOST_NAMED ? ` and ${words.length - MOST_NAMED} more` : "";
    remarks.push(`${name} needs help with ${words.slice(0, MOST_NAMED).join(", ")}${more}.`);
  }
  if (helped.length > MOST_HELPED)
    remarks.push(`${plural(helped.length - MOST_HELPED, "child needs", "children need")} help as well.`);
  const parts = partKinds.map((kind) => ({
    kind,
    minutes: partMinutes[kind],
    items: items[kind],
    how: howTo(kind, target),
  }));
  return { target, parts, remarks };
}

interface PickedSentence {
  readonly text: string;
  readonly practises: boolean;
}

/** A sentence of which every word is known or taught as a whole, with the target if any has it. All are judged in one go. */
function pickSentence(
  sentences: readonly string[],
  { reader, age }: { readonly reader: TaughtReader; readonly age: KnownBy },
  from: Dice,
): PickedSentence | undefined {
  const readable: PickedSentence[] = [];
  const words = judgeText(sentences.join("\n"), reader);
  let at = 0;
  let next = 0;
  for (const text of sentences) {
    const end = at + text.length;
    let fits = true;
    let practises = false;
    for (let word = words[next]; word && word.at < end; word = words[++next]) {
      if (word.verdict === "not yet" || word.source === "rules") fits = false;
      if ((reader.lexicon.find(word.text)[0]?.knownBy ?? 0) > age) fits = false;
      if (word.verdict === "target") practises = true;
    }
    if (fits) readable.push({ text, practises });
    at = end + 1;
  }
  const practising = readable.filter((sentence) => sentence.practises);
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
