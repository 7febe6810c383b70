import { commonWords, examplesOf, opensFor } from "#core/groups";
import type { JobGiven } from "../frame/jobs.ts";
import type { Shipped } from "../shipped.ts";
import { lexiconOf, type SentWords } from "../words/laid.ts";

/** For whom it is worked out what each spelling opens. */
export interface WorthWanted {
  readonly words: SentWords;
  readonly gpcs: readonly string[];
  /** The chance of each of these for each child, in their order. */
  readonly children: readonly { readonly id: string; readonly chances: readonly number[] }[];
}

export interface Worth {
  /** Weighed common words that each spelling would open for each child, whole numbers, in the order of the spellings. */
  readonly rows: readonly { readonly id: string; readonly opens: readonly number[] }[];
  /** By spelling, common words that it opens for these children in the mean. */
  readonly examples: Readonly<Record<string, readonly string[]>>;
}

/** What each spelling would open for each of these children. */
export function worthFor({ words, gpcs, children }: WorthWanted, { stock }: JobGiven<Shipped>): Worth {
  const common = commonWords(lexiconOf(stock.lexicon, words));
  const rows = children.map(({ id, chances }) => {
    const { of } = opensFor(common, new Map(gpcs.map((gpc, at) => [gpc, chances[at] ?? 0])));
    return { id, opens: gpcs.map((gpc) => Math.round(of.get(gpc) ?? 0)) };
  });
  const mean = new Map(
    gpcs.map((gpc, at) => [
      gpc,
      children.reduce((sum, { chances }) => sum + (chances[at] ?? 0), 0) / Math.max(1, children.length),
    ]),
  );
  const opening = gpcs.filter((_, at) => rows.some(({ opens }) => (opens[at] ?? 0) > 0));
  return { rows, examples: Object.fromEntries(opening.map((gpc) => [gpc, examplesOf(common, gpc, mean)])) };
}
