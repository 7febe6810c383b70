import type { KindId } from "#core/ledger";

/** What a check covers. `due`: all that is taught and not known to be secure. */
export type Scope = "due" | "all" | "recent" | "picked";
export const scopes: readonly Scope[] = ["due", "all", "recent", "picked"];

/** `deck`: every item until all are asked. `minute`: as many as a minute holds. */
export type Form = "deck" | "minute";
export const forms: readonly Form[] = ["deck", "minute"];

/** Which item comes next. `shuffled`: a new order each round. `missed`: only what was not right at once the last time. */
export type StrategyName = "inOrder" | "shuffled" | "missed";
export const strategyNames: readonly StrategyName[] = ["inOrder", "shuffled", "missed"];

/** Shapes of words, from easy to long. */
export type BlockId = "two" | "three" | "fourEnd" | "fourStart" | "five" | "twoSyllables" | "endings" | "longer";
export const blockIds: readonly BlockId[] = [
  "two",
  "three",
  "fourEnd",
  "fourStart",
  "five",
  "twoSyllables",
  "endings",
  "longer",
];

/** Tasks without letters. The first four put parts together; `apart` takes a word apart; `where` and `alike` listen. */
export type Task = "compound" | "syllables" | "rest" | "sounds" | "apart" | "where" | "alike";
export const tasks: readonly Task[] = ["compound", "syllables", "rest", "sounds", "apart", "where", "alike"];

interface Common {
  readonly scope: Scope;
  /** At most this many items (for words: in each block; for listening: in each task). */
  readonly most: number;
  readonly recentSteps: number;
  readonly picked: readonly string[];
  readonly strategy: StrategyName;
  /** Misses in a row after which stopping is suggested; 0 never. */
  readonly stopAfter: number;
  readonly form: Form;
}

/** What a kind has beside what all have. */
interface Own {
  readonly card: unknown;
  readonly exception: unknown;
  readonly write: unknown;
  readonly paper: unknown;
  /** Which shapes, and made-up words among them where the school uses them. */
  readonly words: { readonly blocks: readonly BlockId[]; readonly madeUp: boolean };
  /** Which shapes, and a sentence at the end. */
  readonly dictation: { readonly blocks: readonly BlockId[]; readonly sentence: boolean };
  /** How many spellings to choose among, 4 to 9. */
  readonly find: { readonly choices: number };
  readonly listen: { readonly tasks: readonly Task[] };
  readonly names: { readonly cases: Cases };
}

/** Which letters. */
export type Cases = "small" | "capital" | "both";
export const letterCases: readonly Cases[] = ["small", "capital", "both"];

/** One part of a plan: which kind of check, over what, and how. */
export type Section = Sections[KindId];
/** A part of this kind. */
export type SectionOf<K extends KindId> = Sections[K];
type Sections = { [K in KindId]: Common & { readonly kind: K } & Own[K] };

const base: Common = {
  scope: "due",
  most: 40,
  recentSteps: 3,
  picked: [],
  strategy: "shuffled",
  stopAfter: 5,
  form: "deck",
};

const begins: { readonly [K in KindId]: Partial<Common> & Own[K] } = {
  card: {},
  names: { scope: "all", most: 52, cases: "small" },
  find: { most: 12, choices: 6 },
  write: { most: 12 },
  words: {
    scope: "all",
    most: 4,
    strategy: "inOrder",
    stopAfter: 4,
    blocks: ["three", "fourEnd", "fourStart"],
    madeUp: true,
  },
  exception: { most: 20 },
  dictation: {
    scope: "all",
    most: 6,
    strategy: "inOrder",
    stopAfter: 0,
    blocks: ["three", "fourEnd", "fourStart"],
    sentence: true,
  },
  listen: { scope: "all", most: 4, strategy: "inOrder", stopAfter: 4, tasks: ["sounds", "apart", "where"] },
  paper: { scope: "all", most: 12, strategy: "inOrder", stopAfter: 0 },
};

/**
 * A section as it begins, before anyone changes it.
 * @example sectionOf("names", { cases: "both" })
 */
export function sectionOf<K extends KindId>(kind: K, change: Partial<Omit<SectionOf<K>, "kind">> = {}): SectionOf<K> {
  return { ...base, ...(begins[kind] as Partial<Common>), ...change, kind } as unknown as SectionOf<K>;
}
