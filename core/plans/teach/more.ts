import type { Gpc } from "#core/phonics";
import { findWords, type Lexicon, shapeOf } from "#core/words";
import { kindsOfPart } from "../kinds.ts";
import type { PartKind } from "../part-kinds.ts";

/** A word at hand, with how much there is to blend in it: its sounds, and one more for a cluster. */
interface AtHand {
  readonly text: string;
  readonly sounds: number;
  readonly hardness: number;
}

/** Words at hand while a session runs, found before it begins: with what is taught, easy ones first; all else in them is known. */
export type MoreWords = readonly AtHand[];

/** Finds what may be asked for while a session runs. */
export function moreWords(from: {
  readonly lexicon: Lexicon;
  readonly known: ReadonlySet<Gpc>;
  readonly targets: readonly Gpc[];
}): MoreWords {
  const { lexicon, known, targets } = from;
  const readable = new Set([...known, ...targets]);
  const words = targets.flatMap((target) => findWords({ lexicon, known: readable, target }));
  return [...new Map(words.map((word) => [word.text, word])).values()].map(({ text, units }) => ({
    ...{ text, sounds: units.length },
    hardness: units.length + (/CC/.test(shapeOf(units)) ? 1 : 0),
  }));
}

/**
 * One more word like the one that is asked: as hard, or easier (shorter, or without a cluster), or harder. The best that was not used;
 * null where there is none, or the part has no words.
 */
export function oneMore(
  words: MoreWords,
  wanted: {
    readonly kind: PartKind;
    readonly like: string;
    readonly used: ReadonlySet<string>;
    readonly step: "same" | "easier" | "harder";
  },
): string | null {
  const { kind, like, used, step } = wanted;
  if (kindsOfPart[kind].items !== "words" || kind === "exceptionWords" || kind === "madeUp") return null;
  const here = words.find(({ text }) => text === like)?.hardness ?? 3;
  const fits = ({ sounds, hardness }: AtHand) => {
    if (step === "easier") return hardness < here || sounds <= 3;
    return step === "harder" ? hardness > here : true;
  };
  let best: AtHand | undefined;
  for (const one of words) {
    if (one.text === like || used.has(one.text) || !fits(one)) continue;
    if (step !== "same") return one.text;
    if (!best || Math.abs(one.hardness - here) < Math.abs(best.hardness - here)) best = one;
    if (best.hardness === here) return best.text;
  }
  return best?.text ?? null;
}
