import { commonWords, examplesOf, opensFor, type ShelfText, shelfText, textsOpened } from "#core/groups";
import { keyOf, type Lexicon } from "#core/words";
import type { JobGiven } from "../frame/jobs.ts";
import type { Shipped } from "../shipped.ts";
import { lexiconOf, type SentWords } from "../words/laid.ts";

/** A child as it is told what each spelling would bring it. */
export interface ToWeigh {
  readonly id: string;
  /** The chance of each spelling, in their order. */
  readonly chances: readonly number[];
  readonly wholes: readonly string[];
  /** What its class is taught next. */
  readonly next: readonly string[];
  /** How much of each chance goes in four weeks, in hundredths, and how often each was mixed up lately, in the order of the spellings. */
  readonly fades: readonly number[];
  readonly mixed: readonly number[];
}

/** A text of the school's own. */
interface OwnShelfText {
  readonly id: string;
  readonly title: string;
  readonly body: string;
}

/** For whom it is worked out what each spelling brings. */
export interface WorthWanted {
  readonly words: SentWords;
  readonly gpcs: readonly string[];
  readonly children: readonly ToWeigh[];
  readonly texts: readonly OwnShelfText[];
}

/** What each spelling would bring one child, in the order of the spellings. */
interface Row {
  readonly id: string;
  readonly opens: readonly number[];
  readonly texts: readonly number[];
  readonly next: readonly number[];
  readonly fades: readonly number[];
  readonly mixed: readonly number[];
}

export interface Worth {
  readonly rows: readonly Row[];
  /** By spelling, common words that it opens for these children in the mean. */
  readonly examples: Readonly<Record<string, readonly string[]>>;
  /** By spelling, titles of texts that it opens for some of them, those of most children first. */
  readonly titles: Readonly<Record<string, readonly string[]>>;
}

/** Titles that are told of one spelling. */
const MOST_TITLES = 4;

const shelves = new WeakMap<Lexicon, readonly ShelfText[]>();

/** The texts that ship, taken apart once for each lexicon, and those of the school. */
function shelfOf(stock: Shipped, lexicon: Lexicon, own: readonly OwnShelfText[]): readonly ShelfText[] {
  const made =
    shelves.get(lexicon) ?? stock.texts.map(({ id, title, body }) => shelfText(id, `${title}\n${body}`, lexicon));
  shelves.set(lexicon, made);
  return [...made, ...own.map(({ id, title, body }) => shelfText(id, `${title}\n${body}`, lexicon))];
}

/** What each spelling would bring each of these children. */
export function worthFor({ words, gpcs, children, texts }: WorthWanted, { stock }: JobGiven<Shipped>): Worth {
  const lexicon = lexiconOf(stock.lexicon, words);
  const common = commonWords(
    lexicon,
    lexicon.ownUnits.filter((unit) => gpcs.includes(unit)),
  );
  const shelf = shelfOf(stock, lexicon, texts);
  const counted = new Map<string, Map<string, number>>();
  const rows = children.map(({ id, chances, wholes, next, fades, mixed }): Row => {
    const known = new Map(gpcs.map((gpc, at) => [gpc, chances[at] ?? 0]));
    const { of, forNext } = opensFor(common, known, new Set(next));
    const opened = textsOpened(shelf, { chances: known, wholes: new Set(wholes.map(keyOf)) });
    for (const [gpc, ids] of opened)
      for (const text of ids) {
        const its = counted.get(gpc) ?? new Map<string, number>();
        counted.set(gpc, its.set(text, (its.get(text) ?? 0) + 1));
      }
    return {
      id,
      opens: gpcs.map((gpc) => Math.round(of.get(gpc) ?? 0)),
      texts: gpcs.map((gpc) => opened.get(gpc)?.length ?? 0),
      next: gpcs.map((gpc) => Math.round(forNext.get(gpc) ?? 0)),
      fades,
      mixed,
    };
  });
  const mean = new Map(
    gpcs.map((gpc, at) => [
      gpc,
      children.reduce((sum, { chances }) => sum + (chances[at] ?? 0), 0) / Math.max(1, children.length),
    ]),
  );
  const opening = gpcs.filter((_, at) => rows.some(({ opens }) => (opens[at] ?? 0) > 0));
  const titles = new Map([...stock.texts, ...texts].map(({ id, title }) => [id, title]));
  return {
    rows,
    examples: Object.fromEntries(opening.map((gpc) => [gpc, examplesOf(common, gpc, mean)])),
    titles: Object.fromEntries(
      [...counted].map(([gpc, its]) => [
        gpc,
        [...its]
          .sort(([, one], [, other]) => other - one)
          .slice(0, MOST_TITLES)
          .map(([id]) => titles.get(id) ?? ""),
      ]),
    ),
  };
}
