import type { KindId } from "#core/ledger";
import { type CommonSection, type CommonSetup, commonSection } from "../section.ts";
import { card } from "./card.ts";
import { choose } from "./choose.ts";
import { dictation } from "./dictation.ts";
import { exception } from "./exception.ts";
import { find } from "./find.ts";
import type { AskOf, KindOf, ToKeep } from "./kind.ts";
import { listen } from "./listen.ts";
import { names } from "./names.ts";
import { paper } from "./paper.ts";
import { seek } from "./seek.ts";
import { words } from "./words.ts";
import { write } from "./write.ts";

/** A new kind is one file and one line here, and one where marks learn its name (`core/ledger/kinds.ts`). */
const each = { card, words, exception, write, dictation, find, choose, listen, names, paper, seek };

type Each = typeof each;
type Sections = { [K in KindId]: Each[K] extends KindOf<K, infer Part, never> ? Part : never };
type Setups = { [K in KindId]: Each[K] extends KindOf<K, never, infer MadeWith> ? MadeWith : never };

/** One part of a plan: which kind of check, over what, and how. */
export type Section = Sections[KindId];
/** A part of this kind. */
export type SectionOf<K extends KindId> = Sections[K];

/** What a check was made with; kept with the check, so that it needs nothing else later. */
export type Setup = Setups[KindId];
/** That of a check of this kind. */
export type SetupOf<K extends KindId> = Setups[K];

/** What is known of a child, or of a group, when a check is made. */
export type Ask<K extends KindId = KindId> = AskOf<SectionOf<K>>;

/** A kind for who does not know which one it is. */
export type AnyKind = KindOf<KindId, Section, Setup> & {
  readonly begins: object;
  keeps?(drawn?: ToKeep<Section>): object;
};

/** Every kind of check by its id. */
export const kinds: Readonly<Record<KindId, AnyKind>> = each satisfies { [K in KindId]: { readonly id: K } };

/** The kind whose card this is, whose pad it has and whose mark it gets. @example kindAsked("seek", "ai=ai") // "card" */
export function kindAsked(kind: KindId, item: string): KindId {
  return kinds[kind].kindOf?.(item) ?? kind;
}

/**
 * A section as it begins, before anyone changes it.
 * @example sectionOf("names", { cases: "both" })
 */
export function sectionOf<K extends KindId>(kind: K, change: Partial<Omit<SectionOf<K>, "kind">> = {}): SectionOf<K> {
  const begun: CommonSection = { ...commonSection, ...kinds[kind].begins };
  return { ...begun, ...change, kind } as unknown as SectionOf<K>;
}

/**
 * The setup of a check of this kind, of what is stored of it: null for one from before kinds had a setup of their own.
 * @example plainSetup("card") // a shuffled deck
 */
export function plainSetup<K extends KindId>(kind: K, stored: object | null = null): SetupOf<K> {
  const common: CommonSetup = { strategy: "shuffled", stopAfter: 5, form: "deck" };
  return { ...common, ...kinds[kind].keeps?.(), ...stored, kind } as unknown as SetupOf<K>;
}

/** The setup as one of a sheet; an empty sheet for a check of another kind. */
export function asSheet(setup: Setup): SetupOf<"paper"> {
  return setup.kind === "paper" ? setup : plainSetup("paper", setup);
}

export { blocks } from "./blocks.ts";
export { withGap } from "./choose.ts";
export { isSentence, outcomeOfWriting } from "./dictation.ts";
export type { AskedLetters, Faces } from "./faces.ts";
export { choicesFor } from "./find.ts";
export * from "./kind.ts";
export { taskNames, taskOf } from "./listen.ts";
export { choicesOnSheet } from "./paper.ts";
