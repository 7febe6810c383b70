/**
 * What the worlds of simulated classes assume of children who learn to read. None of these numbers was measured on
 * children: they are stated so that they can be doubted, and each world can be run with others. Shares are 0 to 1, times
 * are days.
 */
export const assumptions = {
  /** A child takes to spellings faster or slower than others: spread of the logit of what one lesson gives. */
  learningSpread: 1.1,
  /** Some spellings do not stick with a child, though others like them do: spread of the same logit, for child and spelling. */
  pairSpread: 1.9,
  /** What a first lesson gives an average child for an average spelling: the share of what is still missing. */
  lessonGives: 0.65,
  /** A meeting again in class gives this share of what a lesson gives. */
  againGives: 0.45,
  /** Meetings again in class in the three weeks after a lesson. */
  againAtFirst: 5,
  /** Later, the chance a school day that the class meets a spelling again. */
  againLater: 0.05,
  /** Three letters are harder than one; a second or third spelling of a sound is harder than its first: logits. */
  lettersHarder: 0.35,
  laterSpellingHarder: 0.3,
  /** What no one can say beforehand about how hard a spelling is: spread in logits. */
  itemSpread: 0.45,
  /** Days in which half of what was just learned is gone, by the world's forgetting. */
  halfLife: { slow: 100, middle: 50, fast: 25 },
  /** Children differ in it: spread of its logarithm. */
  halfLifeSpread: 0.35,
  /** A meeting that gives all, after all had faded, multiplies the half-life by one more than this; without fading, by one. */
  halfLifeGrows: 7,
  mostHalfLife: 400,
  /** What is mostly said is nearly always said: logits of what has come about, times this, are those of the chance at sight. */
  sharpness: 2.2,
  /** In the world of stairs, how many of its five stairs a meeting leads up that would give all. */
  stairsAMeeting: 1.6,
  /** A child misses this share of days: spread over children from the least to the most. */
  absent: { least: 0.02, most: 0.18 },
  /** Came from another class or home with this share of the early spellings known. */
  knownBefore: 0.3,
  /** A common word is read as a whole, whatever its spellings: by band 1, 2, 3. */
  wholeWord: { 1: 0.35, 2: 0.15, 3: 0.04 } as Readonly<Record<number, number>>,
  /** In a text the sentence helps: this share of words that would fail comes right. */
  contextHelps: 0.45,
  /** What was said wrong is noted in this share of misread words. */
  noted: 0.7,
  /** At the end of a session this share of what is missing comes right at that moment, without being kept. */
  sameDayHelp: 0.5,
  /** Share of a lesson's gain that a session in a small group gives, for what it teaches and for what it revisits. */
  sessionGives: 1.05,
  sessionRevisits: 0.6,
  /** Of two points in one session each gives this share of what it would give alone; so many cards have all of `sessionRevisits`, more share it. */
  twoGive: 0.65,
  cardsWhole: 2,
} as const;

/** As `assumptions`: any of them can be another number. */
export type Assumptions = { readonly [K in keyof typeof assumptions]: Widened<(typeof assumptions)[K]> };
type Widened<T> = T extends number ? number : T;

export type Forgetting = keyof typeof assumptions.halfLife;
