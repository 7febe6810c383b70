/** One number of the model: what it means, between what it may lie, and where its value comes from. */
interface Described {
  readonly value: number;
  /** The least and the most that a refit may make of it. */
  readonly range: readonly [number, number];
  readonly means: string;
}

const described = {
  start: {
    value: 0.207,
    range: [-1, 5],
    means: "logit of the chance of an average spelling for an average child, just taught",
  },
  untaught: { value: -1.5, range: [-4, 1], means: "the same before it was taught" },
  missedLesson: {
    value: 0.5,
    range: [0, 1],
    means: "share of a lesson that a child has who was away on its day, from what the class goes on with",
  },
  abilitySpread: { value: 0.991, range: [0.3, 2.5], means: "spread between children, in logits" },
  ownSpread: {
    value: 2.61,
    range: [0.5, 4],
    means: "spread between the spellings of one child that nothing explains, in logits",
  },
  letters: { value: 0.414, range: [0, 1], means: "logits that each letter beyond one makes a spelling harder" },
  laterSpelling: {
    value: 0.609,
    range: [0, 1],
    means: "logits that each place behind the usual spelling of its sound makes it harder",
  },
  related: {
    value: 0.15,
    range: [0, 0.9],
    means:
      "share of what is special about the single letter that its double has, or the first sound of a spelling its second",
  },
  partWeight: {
    value: 0.5,
    range: [0, 1],
    means: "share of an answer to a unit of the school's own that speaks of its parts as well",
  },
  halfLife: {
    value: 239,
    range: [10, 600],
    means: "days in which the odds of something just taught are halved, while the class goes on using it",
  },
  fadingSpread: {
    value: 0.3,
    range: [0.05, 1.2],
    means: "spread between children of the logarithm of the half-life",
  },
  ownFadingSpread: { value: 0.316, range: [0.05, 1.2], means: "the same between the spellings of one child" },
  grows: {
    value: 6.09,
    range: [0, 8],
    means: "what a right answer adds to the half-life, in shares of it, if its odds had all but gone",
  },
  shrinks: { value: 0.603, range: [0.2, 1], means: "what a wrong answer leaves of the half-life" },
  drift: {
    value: 0.0118,
    range: [0, 0.05],
    means: "variance of the logit that a day adds, for all that no one sees",
  },
  lesson: { value: 1.2, range: [0, 4], means: "logits that the lesson of a class gives" },
  session: { value: 0.842, range: [0, 4], means: "logits that a session gives for what it teaches" },
  revisit: { value: 0.208, range: [0, 3], means: "logits that it gives for what it revisits" },
  quick: {
    value: 0.18,
    range: [0, 1],
    means: "logarithm by which these are greater for a child that is a logit above the average",
  },
  gainSpread: { value: 1.25, range: [0.1, 2], means: "spread of such a gain, as a share of it" },
  sessionGrows: {
    value: 0.3,
    range: [0, 8],
    means: "what a session adds to the half-life, in shares of it, if its odds had all but gone",
  },
  slip: { value: 0.0283, range: [0.005, 0.2], means: "chance that what is known is not said right on a card" },
  guess: { value: 0.099, range: [0.01, 0.35], means: "chance that what is not known is said right on a card" },
  slowStart: {
    value: 0.367,
    range: [0.01, 0.6],
    means: "share of a child's right answers that are slow, before any",
  },
  slowWeak: {
    value: 0.453,
    range: [0, 0.8],
    means: "by how much more often an answer is slow that would be missed at any other time",
  },
  unitSlip: { value: 0.036, range: [0.005, 0.2], means: "chance that a known unit fails in a word" },
  unitGuess: { value: 0.108, range: [0.01, 0.4], means: "chance that an unknown unit comes right in a word" },
  whole1: {
    value: 0.354,
    range: [0, 0.8],
    means: "chance that one of the commonest words (band 1) is read as a whole",
  },
  whole2: { value: 0.0243, range: [0, 0.6], means: "the same for band 2" },
  whole3: { value: 0.01, range: [0, 0.4], means: "the same for rarer words" },
  context: {
    value: 0.447,
    range: [0, 0.9],
    means: "chance that the sentence helps with a word of a text that would fail",
  },
  blendStart: { value: 2.07, range: [-1, 6], means: "logit of the chance that known sounds are blended right" },
  blendSpread: { value: 1.42, range: [0.3, 2.5], means: "spread between children of that logit" },
  blendOwn: { value: 2, range: [0.1, 2], means: "spread between the shapes of words of one child" },
  blendJoin: {
    value: 0.05,
    range: [0, 1.5],
    means: "logits that each joint beyond the second makes a word harder to blend",
  },
  sameDay: {
    value: 0.477,
    range: [0, 0.95],
    means: "chance that what is missing comes right at the end of a session, on the same day",
  },
  againWeight: { value: 0.6, range: [0, 1], means: "weight of an answer to what was asked before on the same day" },
  helpWeight: { value: 0.3, range: [0, 1], means: "weight of an answer after a hint or a model" },
  textWeight: { value: 0.832, range: [0.05, 1], means: "weight of a word read in a text" },
  spellStart: { value: -0.7, range: [-3, 1], means: "logits by which a spelling is harder to write than to read" },
  spellSpread: { value: 0.8, range: [0.2, 2], means: "spread between children of that difference" },
  spellLink: {
    value: 0.5,
    range: [0, 0.95],
    means: "share of what is special about reading a spelling that writing it has too",
  },
  spellOwn: { value: 1.2, range: [0.3, 3], means: "spread of what is special about writing alone" },
  wordStart: { value: 0.5, range: [-2, 3], means: "logit of the chance of an exception word, just taught" },
  judgedLogit: {
    value: 2.8,
    range: [1.5, 4],
    means: "logit that a teacher speaks of who says that a spelling is known; as far below a half when it is not",
  },
  judgedSpread: { value: 0.8, range: [0.3, 2], means: "spread of what she may mean by it" },
  judgedHalfLife: { value: 42, range: [7, 200], means: "days in which what it raised is halved, until it is asked" },
  findGuess: { value: 0.25, range: [0.1, 0.5], means: "chance of pointing to the right one among several by luck" },
} as const satisfies Record<string, Described>;

export type ParameterName = keyof typeof described;
/** All numbers of the model by name. */
export type Parameters = Readonly<Record<ParameterName, number>>;

/** The names of all parameters, in the order in which they are told. */
export const parameterNames = Object.keys(described) as readonly ParameterName[];

/** What ships. Fitted to simulated classes (`npm run sim -- fit`), where classes can say something of them. */
export const shipped = Object.fromEntries(parameterNames.map((name) => [name, described[name].value])) as Parameters;

/** Goes up with every change of the model or of a value that ships: what was kept by another one is worked out anew. */
export const MODEL_VERSION = 5;

/** What a parameter means, and between what it may lie. */
export function describeParameter(name: ParameterName): Omit<Described, "value"> {
  return described[name];
}
