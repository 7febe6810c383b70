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

/** What a check that asks only what is in doubt may mix: kinds of check. */
export const seekMixes = ["card", "words", "exception"] as const;
export type SeekMix = (typeof seekMixes)[number];

/** What a part of a plan says whatever its kind is. */
export interface CommonSection {
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

/** What a check keeps whatever its kind is. */
export type CommonSetup = Pick<CommonSection, "strategy" | "stopAfter" | "form">;

/** Which letters. */
export type Cases = "small" | "capital" | "both";
export const letterCases: readonly Cases[] = ["small", "capital", "both"];

/** A part of a plan as it begins, unless its kind begins in another way. */
export const commonSection: CommonSection = {
  scope: "due",
  most: 40,
  recentSteps: 3,
  picked: [],
  strategy: "shuffled",
  stopAfter: 5,
  form: "deck",
};
