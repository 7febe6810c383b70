import type { SectionBody } from "#contract";
import { type Ask, type PlannedCheck, planCheck, type Settings } from "#core/checks";
import { type KnownBy, withinAge } from "#core/words";
import type { JobGiven } from "../frame/jobs.ts";
import { turn } from "../frame/turn.ts";
import type { Shipped } from "../shipped.ts";
import { lexiconOf, type SentWords } from "../words/laid.ts";

/** What a part of a check is drawn from: what is known of a child, or of all of them together. */
export type DrawnFrom = Pick<
  Ask,
  "taught" | "recent" | "exceptionWords" | "recentExceptionWords" | "secure" | "doubt" | "last"
> & {
  /** Up to which age its words are known. */
  readonly age: KnownBy;
};

/** A plan of checks, and for whom its items are drawn. */
export interface Dealt {
  readonly words: SentWords;
  readonly settings: Settings;
  readonly sections: readonly SectionBody[];
  /** Each child with the seed of what it does alone, and what each part is drawn from. */
  readonly children: readonly { readonly seed: number; readonly from: readonly DrawnFrom[] }[];
  /** Of each part that all do from one sheet what all have in common; null for the others. */
  readonly together: readonly (DrawnFrom | null)[];
}

/**
 * Draws the items of each part for each child, in the order of both. The seed is that of what all do from one sheet;
 * neighbours have the choices on it in another order.
 */
export async function deal(
  { words, settings, sections, children, together }: Dealt,
  { stock, seed, tell }: JobGiven<Shipped>,
): Promise<PlannedCheck[][]> {
  const lexicon = lexiconOf(stock.lexicon, words);
  const { madeUp, sentences, carriers, compounds } = stock;
  const draw = (section: SectionBody, from: DrawnFrom, by: number) =>
    planCheck({
      lexicon: withinAge(lexicon, from.age),
      madeUp,
      sentences,
      compounds,
      carriers,
      settings,
      ...from,
      section,
      seed: by,
    } satisfies Ask);
  const sheets = sections.map((section, part) => {
    const from = together[part];
    return from ? draw(section, from, seed) : undefined;
  });
  const dealt: PlannedCheck[][] = [];
  for (const [at, { seed: own, from }] of children.entries()) {
    dealt.push(
      sections.map((section, part) => {
        const sheet = sheets[part];
        if (!sheet) return draw(section, from[part] as DrawnFrom, own);
        if (sheet.setup.kind !== "paper") return sheet;
        return { ...sheet, setup: { ...sheet.setup, version: at % 2 === 0 ? "A" : "B" } };
      }),
    );
    tell((at + 1) / children.length);
    await turn();
  }
  return dealt;
}
