import type { GivenAnswer, KindId, Outcome, Tag } from "#core/ledger";
import { type Accent, type Gpc, plainSound, showGrapheme } from "#core/phonics";
import type { Lexicon, MadeUp, Unit } from "#core/words";
import type { Section, SectionOf } from "../section.ts";
import type { Settings } from "../settings.ts";

/** What the child's face shows. It never holds a mark. */
export type Face =
  | { readonly show: "nothing" }
  | { readonly show: "text"; readonly text: string; readonly size: "letters" | "word" }
  | { readonly show: "choices"; readonly item: string; readonly choices: readonly string[] };

/** What the adult reads beside the item. */
export interface Prompt {
  /** What to say to the child; empty when the card says it all. */
  readonly say: string;
  /** The right answer, in a few words. */
  readonly expects: string;
  /** The word in its units, to be drawn with brackets. */
  readonly units?: readonly Unit[] | undefined;
  readonly unexpected?: readonly number[] | undefined;
}

/** One place of the pad: what a key or a tap marks, and the rarer mark that holding it gives. */
export interface PadMark {
  readonly outcome: Outcome;
  readonly name: string;
  readonly hint?: string | undefined;
  /** What was said must be typed, or is asked for. */
  readonly typed?: boolean | undefined;
}
export interface PadPlace extends PadMark {
  readonly held?: PadMark | undefined;
}
/** Five places: right at once, right with effort, right in another way, something else, no answer. */
export type Pad = readonly [PadPlace, PadPlace, PadPlace, PadPlace, PadPlace];

/** An answer that is likely instead of the right one, marked with one key. */
export interface Likely {
  readonly heard: string;
  /** How it is shown on the pad. */
  readonly shows: string;
  readonly hint: string;
  readonly outcome: "wrong" | "other" | "right";
}

/** Something seen beside the answer, switched on before the mark. */
export interface TagChoice {
  readonly tag: Tag;
  readonly name: string;
}

interface CommonSetup {
  readonly strategy: Section["strategy"];
  readonly stopAfter: number;
  readonly form: Section["form"];
}

/** What a check of a kind keeps beside what all keep. */
interface OwnSetup extends Readonly<Record<Exclude<KindId, "find" | "paper">, unknown>> {
  /** Spellings that may stand among the choices, and how many choices the child has. */
  readonly find: { readonly pool: readonly Gpc[]; readonly choices: number };
  readonly paper: {
    /** The choices of a sheet, by item. */
    readonly sheet: Readonly<Record<string, readonly SheetChoice[]>>;
    /** Which of the two orders of choices a child's sheet has, so that neighbours cannot copy. */
    readonly version: "A" | "B";
  };
}

/** What a check was made with; kept with the check, so that it needs nothing else later. */
export type Setup = Setups[KindId];
/** That of a check of this kind. */
export type SetupOf<K extends KindId> = Setups[K];
type Setups = { [K in KindId]: CommonSetup & { readonly kind: K } & OwnSetup[K] };

export interface SheetChoice {
  readonly text: string;
  /** Missing for the right one: what choosing it says. */
  readonly from?: Gpc | undefined;
  readonly to?: Gpc | undefined;
}

/** Everything that ships and that items are drawn from. */
export interface Stock {
  readonly lexicon: Lexicon;
  readonly madeUp: readonly MadeUp[];
  readonly sentences: readonly string[];
  /** Compound words in their two parts, `tow path`. */
  readonly compounds: readonly string[];
}

/** What is known of a child, or of a group, when a check is made. */
export interface Ask<K extends KindId = KindId> extends Stock {
  readonly section: SectionOf<K>;
  readonly settings: Settings;
  /** Everything taught so far, in teaching order, and that of the last steps. */
  readonly taught: readonly Gpc[];
  readonly recent: readonly Gpc[];
  readonly exceptionWords: readonly string[];
  readonly recentExceptionWords: readonly string[];
  readonly isSecure: (gpc: Gpc) => boolean;
  /** The outcome of the last time the item was asked in this kind of check. */
  readonly lastOf: (item: string) => Outcome | undefined;
  readonly seed: number;
}

export interface Drawn {
  readonly items: readonly string[];
  readonly sheet?: Readonly<Record<string, readonly SheetChoice[]>> | undefined;
}

/** Two things taken for one another: sounds, or spellings. */
export interface Mixed {
  readonly asked: string;
  readonly given: string;
  readonly of: "sound" | "spelling";
}

/** What an answer says about the parts of its item. */
export interface Told {
  /** Sentences for a colleague, the main thing first. */
  readonly says: readonly string[];
  /** The item in its units, and the indexes of those that failed; empty where an item has no units. */
  readonly units: readonly Unit[];
  readonly failed: readonly number[];
  readonly mixed: readonly Mixed[];
}

export interface TellWanted<K extends KindId = KindId> {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
  readonly setup: SetupOf<K>;
}

/** One kind of check, whole: what it asks, shows and takes, and what its answers say. */
export interface Kind<K extends KindId = KindId> {
  readonly id: K;
  readonly name: string;
  /** What the child does, in one sentence for the adult. */
  readonly about: string;
  /** Cards one after another, or one sheet that is filled in afterwards. */
  readonly way: "cards" | "sheet";
  /** Seconds an item takes as a rule, all around it included. */
  readonly seconds: number;
  /** Cards to shuffle, or blocks that grow in the order in which they are. */
  readonly order: "shuffled" | "inOrder";
  /** True when the text is an item of this kind. */
  readonly fits: (item: string) => boolean;
  /** Which items a check has; none when nothing fits. */
  draw(ask: Ask<K>): Drawn;
  face(item: string, setup: SetupOf<K>, seed: number): Face;
  readonly prompt: (item: string, settings: Settings) => Prompt;
  readonly pad: (settings: Settings) => Pad;
  likely(item: string, setup: SetupOf<K>, seed: number): readonly Likely[];
  readonly tags: (settings: Settings) => readonly TagChoice[];
  /** The item as it is shown in lists. */
  readonly show: (item: string) => string;
  /** What was said, written or chosen, as it is shown. */
  readonly showHeard: (heard: string) => string;
  tell(answer: GivenAnswer, wanted: TellWanted<K>): Told;
}

export const nothingTold: Told = { says: [], units: [], failed: [], mixed: [] };

/** One of two things taken for one another, as it is read: a sound in quotes, a spelling as it is. */
export function showMixed(mixed: Mixed): string {
  const show = (text: string) => (mixed.of === "sound" ? `“${plainSound(text)}”` : showGrapheme(text));
  return `${show(mixed.given)} for ${show(mixed.asked)}`;
}
