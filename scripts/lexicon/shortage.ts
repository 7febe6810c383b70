import { readdirSync, readFileSync } from "node:fs";
import { exceptionWordsUpTo, type OrderContent, pointsOf, taughtUpTo } from "#core/order";
import type { Gpc } from "#core/phonics";
import { withImplied } from "#core/phonics";
import { readLibraryText } from "#core/reading";
import { judgeText, type Lexicon, readSentences, type TaughtReader, withinAge } from "#core/words";

/** What a sentence or phrase asks for: it is readable from a step on. */
export interface Shortage {
  readonly step: number;
  readonly point: string;
  /** Sentences that can be read once the point is taught and have it. */
  readonly have: number;
}

/** From so many readable words on a point has so many sentences. */
const ENOUGH_WORDS = 150;
/** From so many on there are phrases. */
const FIRST_PHRASE_WORDS = 5;
export const ENOUGH_SENTENCES = 12;
/** Words that are counted as readable: those known by this age. */
const AGE = 7;

/** Of each step the number of words that can be read after it. */
export function readableAfter(order: OrderContent, lexicon: Lexicon): readonly number[] {
  const words = withinAge(lexicon, AGE).words.filter(({ text }) => /^[a-z]{2,}$/.test(text));
  return order.steps.map(({ id }) => {
    const readable = withImplied(taughtUpTo(order, id));
    return words.filter(({ units }) => units.every(({ gpc }) => readable.has(gpc))).length;
  });
}

/** How a child reads who was taught an order up to each of its steps. */
function readersOf(order: OrderContent, lexicon: Lexicon): readonly TaughtReader[] {
  return order.steps.map(({ id }) => ({
    known: new Set(taughtUpTo(order, id)),
    teaching: new Set<Gpc>(),
    wholes: new Set(exceptionWordsUpTo(order, id).map((word) => word.toLowerCase())),
    lexicon,
  }));
}

/** Each sentence with the step, counted from 0, from which it can be read in an order, or none. */
export function readableFrom(
  sentences: readonly string[],
  order: OrderContent,
  lexicon: Lexicon,
): readonly { readonly text: string; readonly step: number | undefined }[] {
  const readers = readersOf(order, lexicon);
  return sentences.map((text) => {
    const fits = (at: number) =>
      judgeText(text, readers[at] as TaughtReader).every(({ verdict }) => verdict !== "not yet");
    let [low, high] = [0, readers.length];
    // What can be read after a step can be read after all later ones.
    while (low < high) {
      const middle = (low + high) >> 1;
      if (fits(middle)) high = middle;
      else low = middle + 1;
    }
    return { text, step: low < readers.length ? low : undefined };
  });
}

/** Points of an order with the sentences that each has once it is taught, from the step on at which enough words can be read. */
export function sentencesFor(
  sentences: readonly string[],
  order: OrderContent,
  lexicon: Lexicon,
): readonly Shortage[] {
  const words = readableAfter(order, lexicon);
  const readers = readersOf(order, lexicon);
  const judged = readableFrom(sentences, order, lexicon);
  const stepOf = new Map(order.steps.flatMap(({ gpcs }, at) => gpcs.map((gpc) => [gpc, at] as const)));
  return pointsOf(order).flatMap(({ name, gpcs }) => {
    const step = Math.max(...gpcs.map((gpc) => stepOf.get(gpc) ?? 0));
    if ((words[step] ?? 0) < ENOUGH_WORDS) return [];
    // A word that was met as a whole before practises the point once its units are all taught.
    const practises = (text: string) =>
      judgeText(text, readers[step] as TaughtReader).some(
        ({ verdict, reading }) => verdict === "ready" && reading.units.some(({ gpc }) => gpcs.includes(gpc)),
      );
    const have = judged.filter((one) => one.step !== undefined && one.step <= step && practises(one.text));
    return [{ step: step + 1, point: name, have: have.length }];
  });
}

/** Steps at which some words can be read and not yet enough for sentences, with the phrases that can be read then. */
export function phrasesEarly(
  phrases: readonly string[],
  order: OrderContent,
  lexicon: Lexicon,
): readonly { readonly step: number; readonly words: number; readonly phrases: number }[] {
  const judged = readableFrom(phrases, order, lexicon);
  return readableAfter(order, lexicon).flatMap((words, at) => {
    if (words < FIRST_PHRASE_WORDS || words >= ENOUGH_WORDS) return [];
    const have = judged.filter(({ step }) => step !== undefined && step <= at).length;
    return [{ step: at + 1, words, phrases: have }];
  });
}

/** The phrases that ship. */
export function shippedPhrases(): readonly string[] {
  return readSentences(readFileSync("data/phrases.txt", "utf8"));
}

/** The sentences that ship. */
export function shippedSentences(): readonly string[] {
  return readSentences(readFileSync("data/sentences.txt", "utf8"));
}

/** From so many readable words on there is a first text; each third of an order has so many. */
const FIRST_TEXT_WORDS = 40;
export const TEXTS_A_THIRD = 3;

/** How the texts of a shelf fall upon an order. */
export interface ShelfOfOrder {
  /** The first step after which so many words can be read, and that of the first text; counted from 1. */
  readonly wordsFrom: number;
  readonly firstFrom: number | undefined;
  /** Texts that become readable in each third of its steps, and those that never do. */
  readonly thirds: readonly [number, number, number];
  readonly never: number;
}

/** The texts by the steps of an order from which they can be read. */
export function shelfOf(texts: readonly string[], order: OrderContent, lexicon: Lexicon): ShelfOfOrder {
  const words = readableAfter(order, lexicon);
  const steps = readableFrom(texts, order, lexicon).map(({ step }) => step);
  const third = Math.ceil(order.steps.length / 3);
  const inThird = (at: number) =>
    steps.filter((step) => step !== undefined && Math.floor(step / third) === at).length;
  const readable = steps.flatMap((step) => (step === undefined ? [] : [step]));
  return {
    wordsFrom: words.findIndex((one) => one >= FIRST_TEXT_WORDS) + 1,
    firstFrom: readable.length > 0 ? Math.min(...readable) + 1 : undefined,
    thirds: [inThird(0), inThird(1), inThird(2)],
    never: steps.length - readable.length,
  };
}

/** Title and body of each text that ships. */
export function shippedTexts(): readonly string[] {
  return readdirSync("data/texts")
    .sort()
    .map((file) => readLibraryText(readFileSync(`data/texts/${file}`, "utf8")))
    .map(({ title, body }) => `${title}\n${body}`);
}
