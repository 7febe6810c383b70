import type { GivenAnswer } from "#core/ledger";
import {
  type Foresight,
  foresightOf,
  lessonsFrom,
  type OwnValues,
  type PlainLessons,
  parametersWith,
  type Refit,
  refit,
  type ToForetell,
} from "#core/mastery";
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
  /** Numbers of the model that the school has of its own; null while it goes by what ships. */
  readonly own: OwnValues | null;
}

function understood({ children, words, accent, own }: ForetellWanted, stock: Shipped): ToForetell[] {
  const by = { lexicon: lexiconOf(stock.lexicon, words), accent: accentOf(accent) };
  return children.map(({ answers, lessons }) => ({
    answers,
    wanted: { lessons: lessonsFrom(lessons), p: parametersWith(own), words: by },
  }));
}

/** Looks for numbers of the model by which these answers are foretold better; null for too few of them. */
export function findModelFor(wanted: ForetellWanted, { stock, seed, tell }: JobGiven<Shipped>): Refit | null {
  return refit(understood(wanted, stock), { now: wanted.own, seed, tell });
}

/** How well the model, and simpler ways, foretold the cards of these children. */
export function foretellCards(
  wanted: ForetellWanted,
  { stock }: JobGiven<Shipped>,
): Foresight & { readonly children: number } {
  return { ...foresightOf(understood(wanted, stock)), children: wanted.children.length };
}
