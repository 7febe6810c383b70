import { heardIn, kindNames } from "#core/ledger";
import { plural } from "#core/saying";
import {
  decodability,
  dice,
  explainSpelling,
  findWords,
  holdsAny,
  keyOf,
  shuffled,
  soundsLikeAnother,
  spellingInWords,
  wordsOf,
} from "#core/words";
import type { BlockId, CommonSection } from "../section.ts";
import { scoreSentence, sentenceInWords } from "../sentence.ts";
import { blocks } from "./blocks.ts";
import type { AskOf, Kind, Mixed, Pad, TellWanted, Told } from "./kind.ts";
import { nothingTold } from "./kind.ts";

/** Which shapes, and a sentence at the end. */
interface DictationSection {
  readonly blocks: readonly BlockId[];
  readonly sentence: boolean;
}

const pad: Pad = [
  { outcome: "right", name: "Right to the letter" },
  { outcome: "other", name: "Heard well", hint: "another spelling", typed: true },
  { outcome: "reversed", name: "Turned round", hint: "all else right" },
  { outcome: "wrong", name: "As typed", hint: "type it", typed: true },
  { outcome: "none", name: "Nothing written" },
];

/** A sentence has a space; a word has none. */
export function isSentence(item: string): boolean {
  return item.includes(" ");
}

/** Words of all chosen shapes in turn, then a sentence that these children can read, of five to nine words. */
function draw(ask: AskOf<CommonSection & DictationSection>): { items: readonly string[] } {
  const { section, taught, lexicon, seed, exceptionWords, sentences, recent } = ask;
  if (section.scope === "picked") return { items: [...new Set(section.picked)] };
  const known = new Set(taught);
  const focus = new Set(
    section.scope === "all" ? [] : section.scope === "recent" ? recent : taught.filter((gpc) => !ask.secure.has(gpc)),
  );
  const piles = section.blocks.map((id) => {
    const one = blocks[id];
    const found = findWords({
      lexicon,
      known,
      band: 3,
      seed,
      syllables: one.syllables,
      ...(one.shapes.length > 0 ? { shape: one.shapes } : {}),
    })
      .filter((word) => (one.endings ? word.joints.length > 0 : word.joints.length === 0))
      .filter(({ text }) => !ask.carriers || ask.carriers.has(keyOf(text)) || !soundsLikeAnother(text, lexicon));
    const wanted = found.filter((word) => holdsAny(word.units, focus));
    return shuffled([...wanted, ...(wanted.length < section.most ? found : [])].slice(0, 40), dice(seed));
  });
  const words: string[] = [];
  for (let round = 0; words.length < section.most && round < 40; round++)
    for (const pile of piles) {
      const word = pile[round]?.text;
      if (word && !words.includes(word) && words.length < section.most) words.push(word);
    }
  const length = (text: string) => wordsOf(text).length;
  const wholes = new Set(exceptionWords.map(keyOf));
  const sentence = section.sentence
    ? shuffled(sentences, dice(seed)).find(
        (text) =>
          length(text) >= 5 &&
          length(text) <= 9 &&
          decodability(text, known, new Set(), { lexicon, wholes }).shareOfRunning === 1,
      )
    : undefined;
  return { items: sentence ? [...words, sentence] : words };
}

function tellWord(item: string, written: string, wanted: TellWanted): Told {
  const told = explainSpelling(item, written, wanted);
  return {
    says: spellingInWords(told),
    units: told.units.map((one) => one.unit),
    failed: told.units.flatMap((one, at) => (one.outcome === "right" || one.outcome === "plausible" ? [] : [at])),
    mixed: told.units.flatMap((one): Mixed[] =>
      one.outcome === "implausible" || one.reversed
        ? [{ asked: one.unit.grapheme, given: one.written, of: "spelling" }]
        : [],
    ),
  };
}

function tellSentence(item: string, written: string, wanted: TellWanted): Told {
  const score = scoreSentence(item, written, wanted);
  const misspelled = score.words.filter((one) => one.spelling && !one.spelling.right);
  return {
    ...nothingTold,
    says: [
      ...sentenceInWords(score),
      ...misspelled.map(
        (one) => `${one.word} as ${one.spelling?.written}: ${spellingInWords(one.spelling as never)[0] ?? ""}`,
      ),
    ],
    mixed: misspelled.flatMap((one) => tellWord(one.word, one.spelling?.written ?? "", wanted).mixed),
  };
}

/** Writing words and a sentence that are read out. An item is the text; what was written is typed in afterwards. */
export const dictation: Kind<"dictation", DictationSection> = {
  id: "dictation",
  name: kindNames.dictation,
  about: "You read out, the child writes; afterwards you type what was written.",
  begins: {
    scope: "all",
    most: 6,
    strategy: "inOrder",
    stopAfter: 0,
    blocks: ["three", "fourEnd", "fourStart"],
    sentence: true,
  },
  picks: null,
  effort: "heard well, spelled in another way",
  way: "sheet",
  seconds: 25,
  order: "inOrder",
  fits: (item) => /^[\p{L}][\p{L}'’ ,.?!-]{0,119}$/u.test(item),
  draw,
  face: () => ({ show: "nothing" }),
  prompt: (item) => ({
    say: item,
    expects: isSentence(item) ? plural(wordsOf(item).length, "word") : "",
  }),
  pad: () => pad,
  likely: () => [],
  tags: () => [{ tag: "reversed", name: "Letters turned round" }],
  show: (item) => item,
  showHeard: (heard) => heard,
  tell: (answer, wanted) => {
    const turned = answer.tags.includes("reversed") ? ["A letter was turned round."] : [];
    if (answer.outcome === "none") return { ...nothingTold, says: ["Nothing was written."] };
    const written = heardIn(answer);
    if (written === null) return { ...nothingTold, says: turned };
    const told = isSentence(answer.item)
      ? tellSentence(answer.item, written, wanted)
      : tellWord(answer.item, written, wanted);
    return { ...told, says: [...told.says, ...turned] };
  },
};

/**
 * The outcome of what a child wrote: `right` to the letter (for a sentence: every word, capital, space and mark),
 * `other` when every sound of a word has a spelling that can stand for it, `none` when nothing was written.
 */
export function outcomeOfWriting(
  item: string,
  written: string,
  { lexicon, accent }: Omit<TellWanted, "setup">,
): "right" | "other" | "wrong" | "none" {
  const text = written.trim();
  if (text === "") return "none";
  if (isSentence(item)) return text === item ? "right" : "wrong";
  const told = explainSpelling(item, text, { lexicon, accent });
  return told.right ? "right" : told.heardWell ? "other" : "wrong";
}
