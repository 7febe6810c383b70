import { defaultSettings } from "#core/checks";
import { type Gpc, withImplied } from "#core/phonics";
import { listed, plural } from "#core/saying";
import { findWords, type KnownBy, type Lexicon, type MadeUp, type Word } from "#core/words";
import { Filler, type SessionChild, type ShelfEntry } from "./fill.ts";
import { soundsOfFocus, spellingsOfFocus, wordsOfFocus } from "./focus.ts";
import type { Focus } from "./focus-kind.ts";
import { fewWords, howTo, type SchoolWays, shown } from "./how-to.ts";
import { kindsOfPart } from "./kinds.ts";
import type { Doer, PartKind } from "./part-kinds.ts";
import { type GroupReader, helpWith } from "./reads.ts";
import { type Routine, teachesNew, USUAL } from "./routine.ts";
import { shippedRoutines } from "./shipped.ts";
import { whatWouldHelp, wordsForMost } from "./short.ts";

export interface SessionPart {
  readonly kind: PartKind;
  readonly minutes: number;
  /** As the kind has them (`kindsOfPart`): spellings (`ea=ee`), words, or lines. */
  readonly items: readonly string[];
  /** Cards of single children, where each has its own. */
  readonly each?: readonly { readonly childId: string; readonly items: readonly string[] }[];
  /** What the adult does, in a sentence. */
  readonly how: string;
  /** Who does it; as its kind has it where it is left out. */
  readonly who?: Doer;
  /** Marks under the sounds of its words; as its kind has it where it is left out. */
  readonly marks?: boolean;
}

export interface SessionPlan {
  readonly target: Gpc;
  /** Taught beside it, where there is room for two. */
  readonly second?: Gpc;
  /** What it is about in place of a new spelling. */
  readonly focus?: Focus;
  readonly parts: readonly SessionPart[];
  /** Children who say at sight what it teaches: they are asked their cards alone. */
  readonly cardsOnly?: readonly string[];
  /** What could not be done as wished, as sentences for the teacher. */
  readonly remarks: readonly string[];
}

export interface PlanWanted {
  /** What the group can read, by its own limit. The target need not be in it. */
  readonly known: ReadonlySet<Gpc>;
  /** The children, where some may need help: the plan says who, and with which words. */
  readonly readers?: readonly GroupReader[];
  /** The children with their chances, where each is to have cards of its own. */
  readonly children?: readonly SessionChild[];
  readonly target: Gpc;
  /** Another that is taught beside it. */
  readonly second?: Gpc | undefined;
  /** What it is about in place of a new spelling: its own spellings, where it has some, come before target and second. */
  readonly focus?: Focus | undefined;
  /** Other targets of the group, and what is fading in it: revisited first. */
  readonly revisit: readonly Gpc[];
  /** The words on offer: those of an age that the children know. */
  readonly lexicon: Lexicon;
  /** Up to which age words of sentences are known; every word when left out. */
  readonly age?: KnownBy | undefined;
  readonly sentences: readonly string[];
  /** Answers to those of them that are questions. */
  readonly answers?: ReadonlyMap<string, string>;
  /** Phrases, each with the word whose picture it tells of. */
  readonly phrases?: ReadonlyMap<string, string>;
  readonly madeUp?: readonly MadeUp[];
  readonly texts?: readonly ShelfEntry[];
  /** Exception words taught so far, newest last. */
  readonly exceptionWords: readonly string[];
  /** Words that these children had in the last days: others are taken while 40 fit. */
  readonly hadLately?: readonly string[];
  /** Exception words that these children miss, and sounds that they take for one another, what is missing most first. */
  readonly missedWords?: readonly string[];
  readonly mixedSounds?: readonly (readonly [string, string])[];
  /** What the school has chosen of that on which teachers disagree; the defaults when left out. */
  readonly ways?: SchoolWays | undefined;
  /** How the session is held, with a focus as `routineAbout` has it; the usual one when left out. */
  readonly routine?: Routine;
  readonly seed: number;
}

/** Words that are named of those with which a child needs help. */
const MOST_NAMED = 5;
/** Children who are named of those who need help. */
const MOST_HELPED = 8;

/**
 * What children read or write of an item: not the words that they only hear, nor a title, an answer or the head of a heap.
 * @example readOf("sort", "ai: rain, tail") // "rain, tail"
 */
export function readOf(kind: PartKind, item: string): string {
  if (kindsOfPart[kind].items === "spellings" || kind === "hear" || kind === "text") return "";
  if (kind === "sort") return item.replace(/^[^:]*:\s*/, "");
  return kind === "yesNo" || kind === "phrase" ? item.replace(/\s*\([^)]*\)$/, "") : item;
}

/** What a session teaches anew: nothing where it is review alone, whatever its words practise. */
export function taughtIn(plan: {
  readonly target: Gpc;
  readonly second?: Gpc | undefined;
  readonly parts: readonly { readonly kind: PartKind }[];
}): readonly Gpc[] {
  return teachesNew(plan) ? targetsOf(plan) : [];
}

/** What stands in the way where few words fit, and what one more spelling would bring, in sentences. */
function tooFew(from: {
  readonly lexicon: Lexicon;
  readonly known: ReadonlySet<Gpc>;
  readonly targets: readonly Gpc[];
  readonly readers: readonly GroupReader[];
}): string[] {
  const { lexicon, known, targets, readers } = from;
  const says = targets.flatMap((target) => {
    const others = targets.filter((gpc) => gpc !== target);
    const few = fewWords(practiceWords(lexicon, new Set([...known, ...others]), target).length, target);
    if (!few) return [];
    const opener = whatWouldHelp(lexicon, { known, targets });
    return [opener ? `${few} ${plural(opener.words, "more word")} would fit with ${shown(opener.gpc)} known.` : few];
  });
  if (says.length === 0) return says;
  const { words, without } = wordsForMost(lexicon, { readers, targets });
  return words.length === 0 ? says : [...says, `Most can read ${listed(words)} (not yet: ${listed(without)}).`];
}

/** What a session teaches: one spelling or two. */
export function targetsOf({
  target,
  second,
}: {
  readonly target: Gpc;
  readonly second?: Gpc | undefined;
}): readonly Gpc[] {
  return second && second !== target ? [target, second] : [target];
}

/** What any of these children was taught, with what all of them can read. */
export function taughtTo(
  children: readonly { readonly chances: Iterable<readonly [Gpc, number]> }[],
  known: Iterable<Gpc>,
): ReadonlySet<Gpc> {
  return new Set([...children.flatMap(({ chances }) => [...chances].map(([gpc]) => gpc)), ...known]);
}

/** The words a group can read with the target in them, short and common ones first: all other units are known. */
export function practiceWords(lexicon: Lexicon, known: ReadonlySet<Gpc>, target: Gpc): readonly Word[] {
  return findWords({ lexicon, known, target });
}

/**
 * Fills a session by a routine. Every word that is read uses only what all children know, and the target. A part that cannot be
 * filled stays, empty, with a remark.
 */
export function planSession(wanted: PlanWanted): SessionPlan {
  const { lexicon, exceptionWords, children = [], focus = [], ways = defaultSettings } = wanted;
  const { parts: asked } = wanted.routine ?? shippedRoutines[USUAL];
  // Where no made-up words are used, words are read in their place.
  const isReplaced = !ways.madeUp && asked.some(({ kind }) => kind === "madeUp");
  const routine = {
    parts: isReplaced
      ? asked.map((part) => (part.kind === "madeUp" ? { ...part, kind: "readWords" as const, how: "" } : part))
      : asked,
  };
  const [own, beside] = spellingsOfFocus(focus, taughtTo(children, wanted.known));
  const target = own ?? wanted.target;
  const another = own ? beside : wanted.second;
  const second = another === target ? undefined : another;
  const mixed = soundsOfFocus(focus);
  const filler = new Filler(
    {
      ...{
        children,
        answers: new Map(),
        phrases: new Map(),
        madeUp: [],
        texts: [],
        hadLately: [],
        missedWords: [],
        mixedSounds: [],
        ...wanted,
      },
      ...{ target, second, focus },
      missedWords: [...wordsOfFocus(focus), ...(wanted.missedWords ?? [])],
      mixedSounds: [...(mixed ? [mixed] : []), ...(wanted.mixedSounds ?? [])],
      age: wanted.age ?? 12,
      revisit: [...new Set(wanted.revisit)].filter((gpc) => gpc !== target && gpc !== second),
    },
    routine.parts,
  );
  // Words of a shape, and whole words, are not chosen by a spelling.
  const about = focus.length === 0 || own ? targetsOf({ target, second }) : [];
  const remarks = tooFew({ lexicon, known: wanted.known, targets: about, readers: wanted.readers ?? [] });
  if (isReplaced) remarks.push("This school uses no made-up words: words are read in their place.");
  const parts = routine.parts.map(({ kind, minutes, who, how, marks }): SessionPart => {
    const { items, each, remark } = filler.fill(kind, minutes);
    if (remark && !remarks.includes(remark)) remarks.push(remark);
    return {
      ...{ kind, minutes, items, how: how || howTo(kind, target, { second, ways }) },
      ...{ ...(each ? { each } : {}), ...(who === kindsOfPart[kind].who ? {} : { who }) },
      ...(marks === undefined ? {} : { marks }),
    };
  });
  const given = parts
    .filter(({ kind }) => kind !== "madeUp")
    .flatMap(({ kind, items }) => items.map((item) => readOf(kind, item)));
  const wholes = new Set(exceptionWords.map((word) => word.toLowerCase()));
  // Endings and doubled letters follow from what is read.
  const readers = (wanted.readers ?? []).map((one) => ({ ...one, reads: withImplied(one.reads) }));
  const helped = helpWith(given, readers, { targets: targetsOf({ target, second }), lexicon, wholes });
  for (const { name, words } of helped.slice(0, MOST_HELPED)) {
    const more = words.length > MOST_NAMED ? ` and ${words.length - MOST_NAMED} more` : "";
    remarks.push(`${name} needs help with ${words.slice(0, MOST_NAMED).join(", ")}${more}.`);
  }
  if (helped.length > MOST_HELPED)
    remarks.push(`${plural(helped.length - MOST_HELPED, "child needs", "children need")} help as well.`);
  return { target, ...(second ? { second } : {}), ...(focus.length > 0 ? { focus } : {}), parts, remarks };
}
