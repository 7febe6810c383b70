import type { GivenAnswer } from "#core/ledger";
import { type Foresight, foresightOf, lessonsFrom, type PlainLessons, shipped } from "#core/mastery";
import { accentOf } from "#core/phonics";
import type { JobGiven } from "../frame/jobs.ts";
import type { Shipped } from "../shipped.ts";
import { lexiconOf, type SentWords } from "../words/laid.ts";

/** Whose answers are foretold, each from those before it. */
export interface ForetellWanted {
  readonly children: readonly { readonly answers: readonly GivenAnswer[]; readonly lessons: PlainLessons }[];
  readonly words: SentWords;
  /** Id of the accent whose sounds count as right. */
  readonly accent: string;
}

/** How well the model, and simpler ways, foretold the cards of these children. */
export function foretellCards(
  { children, words, accent }: ForetellWanted,
  { stock }: JobGiven<Shipped>,
): Foresight & { readonly children: number } {
  const understood = { lexicon: lexiconOf(stock.lexicon, words), accent: accentOf(accent) };
  const wanted = children.map(({ answers, lessons }) => ({
    answers,
    wanted: { lessons: lessonsFrom(lessons), p: shipped, words: understood },
  }));
  return { ...foresightOf(wanted), children: children.length };
}
