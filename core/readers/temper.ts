/** How a simulated child tends to answer. All shares are 0 to 1. */
export interface Temper {
  readonly name: string;
  /** How surely something learned is right at sight. */
  readonly sure: number;
  /** How surely something not learned still comes right. */
  readonly luck: number;
  /** Share of right answers that come slowly. */
  readonly slow: number;
  /** Share of misses in which something else is said, rather than nothing. */
  readonly guesses: number;
  /** Share of misses on look-alikes and sound-alikes even when learned. */
  readonly mixes: number;
  /** How much of what is learned goes in a week without practice. */
  readonly forgets: number;
  /** Share of right answers said in the child's own way. */
  readonly ownWay: number;
  /** How surely known sounds are put together, for each sound of a word after the second. */
  readonly blends: number;
  /** Share of right words that are still sounded out aloud. */
  readonly sounds: number;
}

const even: Temper = {
  name: "steady",
  sure: 0.97,
  luck: 0.08,
  slow: 0.06,
  guesses: 0.6,
  mixes: 0.01,
  forgets: 0.02,
  ownWay: 0,
  blends: 0.97,
  sounds: 0.15,
};

/** Seven kinds of reader, for the demo school, benchmarks and tests. */
export const tempers = {
  steady: even,
  forgetful: { ...even, name: "forgetful", sure: 0.97, forgets: 0.09, slow: 0.12 },
  guesser: { ...even, name: "guesser", sure: 0.96, guesses: 0.97, luck: 0.18, slow: 0.02, sounds: 0.02, blends: 0.9 },
  slowAndRight: { ...even, name: "slow and right", sure: 0.98, slow: 0.55, guesses: 0.4, sounds: 0.7 },
  lookAlikes: { ...even, name: "confuses look-alikes", sure: 0.975, mixes: 0.35, guesses: 0.9 },
  quiet: { ...even, name: "says nothing when unsure", sure: 0.975, guesses: 0.08, slow: 0.2 },
  weakBlender: { ...even, name: "strong at sounds, weak at blending", sure: 0.98, blends: 0.68, sounds: 0.6 },
} as const satisfies Record<string, Temper>;
