import type { GivenAnswer, KindId, Outcome, Tag } from "#core/ledger";
import { type Accent, type Gpc, plainSound, showGrapheme } from "#core/phonics";
import type { Lexicon, MadeUp, Unit } from "#core/words";
import type { CommonSection, CommonSetup } from "../section.ts";
import type { Settings } from "../settings.ts";
import type { AskedLetters, Faces } from "./faces.ts";

/** What the child's face shows. It never holds a mark. */
export type Face =
  | { readonly show: "nothing" }
  | { readonly show: "text"; readonly text: string; readonly size: "letters" | "word" }
  /** A word of which one spelling is asked. */
  | { readonly show: "within"; readonly text: string; readonly letters: readonly AskedLetters[] }
  | {
      readonly show: "choices";
      readonly item: string;
      readonly choices: readonly string[];
      /** The word that they are for: its letters before and after a gap. */
      readonly gapped?: readonly [string, string];
    };

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
  /** The item that it is right for, where that is another one. */
  readonly item?: string | undefined;
}

/** One of several right answers to one card. */
export interface OneOf {
  readonly item: string;
  readonly shows: string;
  readonly hint: string;
}

/** Something seen beside the answer, switched on before the mark. */
export interface TagChoice {
  readonly tag: Tag;
  readonly name: string;
}

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
  /** By word, a sentence to say it in; what sounds like another word and has none is not dictated. */
  readonly carriers?: ReadonlyMap<string, string> | undefined;
  /** Compound words in their two parts, `tow path`. */
  readonly compounds: readonly string[];
}

/** What is known of a child, or of a group, when a check is made of this part of a plan. */
export interface AskOf<Part> extends Stock {
  readonly section: Part;
  readonly settings: Settings;
  /** Everything taught so far, in teaching order, and that of the last steps. */
  readonly taught: readonly Gpc[];
  readonly recent: readonly Gpc[];
  readonly exceptionWords: readonly string[];
  readonly recentExceptionWords: readonly string[];
  /** Correspondences that are secure today. */
  readonly secure: ReadonlySet<Gpc>;
  /** How doubtful each taught one is, by how much depends on it; 0 is settled. Missing: all alike. */
  readonly doubt?: ReadonlyMap<Gpc, number> | undefined;
  /** By item, the outcome of the last time it was asked in this kind of check. */
  readonly last: ReadonlyMap<string, Outcome>;
  readonly seed: number;
}

export interface Drawn {
  readonly items: readonly string[];
  readonly sheet?: Readonly<Record<string, readonly SheetChoice[]>> | undefined;
  /** How its cards ask a spelling with several sounds. */
  readonly faces?: Faces | undefined;
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

export interface TellWanted<MadeWith = unknown> {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
  readonly setup: MadeWith;
}

/** What a check keeps for itself is made of this; nothing is drawn for one from before its kind had something of its own. */
export interface ToKeep<Part> {
  readonly section: Part;
  /** Spellings taught, and the items. */
  readonly pool: readonly Gpc[];
  readonly sheet: Drawn["sheet"];
  readonly faces: Drawn["faces"];
}

/** A kind by what its part of a plan is, and what a check of it is made with. */
export interface KindOf<Id, Part, MadeWith> {
  readonly id: Id;
  readonly name: string;
  /** What the child does, in one sentence for the adult. */
  readonly about: string;
  /** Cards one after another, or one sheet that is filled in afterwards. */
  readonly way: "cards" | "sheet";
  /** Seconds an item takes as a rule, all around it included. */
  readonly seconds: number;
  /** What can be picked by hand for it. */
  readonly picks: "spellings" | "words" | "letters" | null;
  /** Why there may be nothing to ask of what was taught, where more is needed than that it was; goes on from *nothing to ask:*. */
  readonly none?: string;
  /** How right answers with effort are called; "slow" when left out. */
  readonly effort?: string;
  /** The items sorted by what they ask, to be counted by it; of one that is of no pile nothing is counted. */
  readonly piles?: { readonly title: string; of(item: string): string | undefined };
  /** It is drawn once, and is the same for all children who are checked in one go. */
  readonly shared?: boolean;
  /** Cards to shuffle, or blocks that grow in the order in which they are. */
  readonly order: "shuffled" | "inOrder";
  /** The kind that an item of a check of several is of; its own where this is left out. */
  readonly kindOf?: (item: string) => KindId;
  /** True when the text is an item of this kind. */
  readonly fits: (item: string) => boolean;
  /** Which items a check has; none when nothing fits. */
  draw(ask: AskOf<Part>): Drawn;
  face(item: string, setup: MadeWith, seed: number): Face;
  prompt(item: string, settings: Settings, setup: MadeWith): Prompt;
  readonly pad: (settings: Settings) => Pad;
  likely(item: string, setup: MadeWith, seed: number): readonly Likely[];
  /** Several answers that are asked for with one card, its own first; left out where every card has one. */
  all?(item: string, setup: MadeWith): readonly OneOf[];
  readonly tags: (settings: Settings) => readonly TagChoice[];
  /** The item as it is shown in lists. */
  readonly show: (item: string) => string;
  /** What was said, written or chosen, as it is shown. */
  readonly showHeard: (heard: string) => string;
  tell(answer: GivenAnswer, wanted: TellWanted<MadeWith>): Told;
}

/**
 * One kind of check, whole: what it asks, shows and takes, and what its answers say. `OwnSection` is what a part of a plan
 * says for it beside what all say, `OwnSetup` what a check keeps beside what all keep.
 */
export type Kind<Id extends KindId, OwnSection = unknown, OwnSetup = unknown> = KindOf<
  Id,
  CommonSection & { readonly kind: Id } & OwnSection,
  CommonSetup & { readonly kind: Id } & OwnSetup
> & {
  /** A part of a plan as it begins, where that differs from other kinds. */
  readonly begins: Partial<CommonSection> & OwnSection;
} & (unknown extends OwnSetup
    ? unknown
    : { keeps(drawn?: ToKeep<CommonSection & { readonly kind: Id } & OwnSection>): OwnSetup });

/** An answer that says nothing about its parts. */
export const nothingTold: Told = { says: [], units: [], failed: [], mixed: [] };

/** One of two things taken for one another, as it is read: a sound in quotes, a spelling as it is. */
export function showMixed(mixed: Mixed): string {
  const show = (text: string) => (mixed.of === "sound" ? `“${plainSound(text)}”` : showGrapheme(text));
  return `${show(mixed.given)} for ${show(mixed.asked)}`;
}
