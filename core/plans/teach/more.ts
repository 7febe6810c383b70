import type { Gpc } from "#core/phonics";
import { findWords, type Lexicon, shapeOf, type Word } from "#core/words";
import { kindsOfPart } from "../kinds.ts";
import type { PartKind } from "../part-kinds.ts";

/** Words at hand while a session runs, found before it begins. */
export interface MoreWords {
  /** Words with what is taught, easy ones first; all else in them is known. */
  readonly words: readonly Word[];
}

/** Finds what may be asked for while a session runs. */
export function moreWords(from: {
  readonly lexicon: Lexicon;
  readonly known: ReadonlySet<Gpc>;
  readonly targets: readonly Gpc[];
}): MoreWords {
  const { lexicon, known, targets } = from;
  const readable = new Set([...known, ...targets]);
  const words = targets.flatMap((target) => findWords({ lexicon, known: readable, target }));
  return { words: [...new Map(words.map((word) => [word.text, word])).values()] };
}

/**
 * One more word like the one that is asked: as long, or shorter and without a cluster, or longer. The best that was not used; null where
 * there is none, or the part has no words.
 */
export function oneMore(
  { words }: MoreWords,
  wanted: {
    readonly kind: PartKind;
    readonly like: string;
    readonly used: ReadonlySet<string>;
    readonly step: "same" | "easier" | "harder";
  },
): string | null {
  const { kind, like, used, step } = wanted;
  if (kindsOfPart[kind].items !== "words" || kind === "exceptionWords" || kind === "madeUp") return null;
  const now = words.find(({ text }) => text === like);
  const length = now?.units.length ?? 3;
  const free = words.filter(({ text }) => text !== like && !used.has(text));
  const hardness = (word: Word) => word.units.length + (/CC/.test(shapeOf(word.units)) ? 1 : 0);
  const here = now ? hardness(now) : length;
  const fits = (word: Word) => {
    if (step === "easier") return hardness(word) < here || word.units.length <= 3;
    return step === "harder" ? hardness(word) > here : true;
  };
  const away = (word: Word) => (step === "same" ? Math.abs(hardness(word) - here) : 0);
  const found = free.filter(fits).toSorted((one, other) => away(one) - away(other))[0];
  return found?.text ?? null;
}
