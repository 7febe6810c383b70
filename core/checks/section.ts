import type { KindId } from "#core/ledger";

/** What a check covers. `due`: all that is taught and not known to be secure. */
export type Scope = "due" | "all" | "recent" | "picked";
export const scopes: readonly Scope[] = ["due", "all", "recent", "picked"];

/** `deck`: every item until all are asked. `minute`: as many as a minute holds. */
export type Form = "deck" | "minute";

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

/** One part of a plan: which kind of check, over what, and how. What a kind does not use it leaves alone. */
export interface Section {
  readonly kind: KindId;
  readonly scope: Scope;
  /** At most this many items (for words: in each block; for listening: in each task). */
  readonly most: number;
  readonly recentSteps: number;
  readonly picked: readonly string[];
  readonly strategy: StrategyName;
  /** Misses in a row after which stopping is suggested; 0 never. */
  readonly stopAfter: number;
  readonly form: Form;
  /** Letter names: which letters. */
  readonly cases: "small" | "capital" | "both";
  /** Words: which shapes. */
  readonly blocks: readonly BlockId[];
  /** Words: made-up ones among them, where the school uses them. */
  readonly madeUp: boolean;
  /** Listening: which tasks. */
  readonly tasks: readonly Task[];
  /** Hear and find: how many spellings to choose among, 4 to 9. */
  readonly choices: number;
  /** Dictation: a sentence at the end. */
  readonly sentence: boolean;
}

const base: Omit<Section, "kind"> = {
  scope: "due",
  most: 40,
  recentSteps: 3,
  picked: [],
  strategy: "shuffled",
  stopAfter: 5,
  form: "deck",
  cases: "small",
  blocks: ["three", "fourEnd", "fourStart"],
  madeUp: true,
  tasks: ["sounds", "apart", "where"],
  choices: 6,
  sentence: true,
};

const changes: Record<KindId, Partial<Section>> = {
  card: {},
  names: { scope: "all", most: 52 },
  find: { most: 12 },
  write: { most: 12 },
  words: { scope: "all", most: 4, strategy: "inOrder", stopAfter: 4 },
  exception: { most: 20 },
  dictation: { scope: "all", most: 6, strategy: "inOrder", stopAfter: 0 },
  listen: { scope: "all", most: 4, strategy: "inOrder", stopAfter: 4 },
  paper: { scope: "all", most: 12, strategy: "inOrder", stopAfter: 0 },
};

/** A section as it begins, before anyone changes it. */
export function sectionOf(kind: KindId, change: Partial<Section> = {}): Section {
  return { ...base, ...changes[kind], ...change, kind };
}
