import { form, plural } from "#core/saying";
import { explainSpelling, keyOf, type Lexicon, type SpellingExplanation, wordsOf } from "#core/words";

/** One word of a dictated sentence and what stands for it. */
export interface SentenceWord {
  readonly word: string;
  /** Missing when the word was left out. */
  readonly spelling: SpellingExplanation | undefined;
}

export interface SentenceScore {
  readonly words: readonly SentenceWord[];
  readonly leftOut: readonly string[];
  readonly putIn: readonly string[];
  /** Begins with a capital. */
  readonly capital: boolean;
  /** Names that were written without their capital. */
  readonly smallNames: readonly string[];
  /** Capitals that do not belong, each word once. */
  readonly oddCapitals: readonly string[];
  /** Ends with the mark it should have. */
  readonly endMark: boolean;
  /** Words that were run together, as they were written. */
  readonly runTogether: readonly string[];
  /** Words right to the letter, capitals apart. */
  readonly right: number;
}

export interface SentenceWanted {
  readonly lexicon: Lexicon;
}

const OUT = 1;
const FAR = 0.95;

/**
 * Lays what a child wrote beside the sentence that was read out: word by word with the least change, words run
 * together seen as what they are. Any text is taken; an empty one leaves every word out.
 */
export function scoreSentence(sentence: string, written: string, { lexicon }: SentenceWanted): SentenceScore {
  const wanted = wordsOf(sentence).map((word) => word.text);
  const { tokens, runTogether } = apart(
    wanted,
    wordsOf(written).map((word) => word.text),
  );
  const cost = (word: string, token: string) =>
    keyOf(word) === keyOf(token)
      ? 0
      : Math.min(FAR * 2, distance(keyOf(word), keyOf(token)) / Math.max(word.length, 2));
  const grid: { cost: number; step: "both" | "out" | "in" }[][] = [];
  for (let i = 0; i <= wanted.length; i++) {
    grid[i] = [];
    for (let j = 0; j <= tokens.length; j++) {
      const options: { cost: number; step: "both" | "out" | "in" }[] = [];
      if (i > 0 && j > 0)
        options.push({ cost: at(grid, i - 1, j - 1) + cost(wanted[i - 1] ?? "", tokens[j - 1] ?? ""), step: "both" });
      if (i > 0) options.push({ cost: at(grid, i - 1, j) + OUT, step: "out" });
      if (j > 0) options.push({ cost: at(grid, i, j - 1) + OUT, step: "in" });
      const best = options.sort((one, other) => one.cost - other.cost)[0] ?? { cost: 0, step: "both" as const };
      grid[i]?.push(best);
    }
  }
  const pairs: [string | undefined, string | undefined][] = [];
  for (let i = wanted.length, j = tokens.length; i > 0 || j > 0; ) {
    const { step } = grid[i]?.[j] ?? { step: "both" as const };
    if (step === "both") pairs.unshift([wanted[--i], tokens[--j]]);
    else if (step === "out") pairs.unshift([wanted[--i], undefined]);
    else pairs.unshift([undefined, tokens[--j]]);
  }
  const both = pairs.filter((pair): pair is [string, string] => pair[0] !== undefined && pair[1] !== undefined);
  const isName = (word: string) => word === "I" || (/^\p{Lu}/u.test(word) && word !== wanted[0]);
  const first = wordsOf(written)[0]?.text ?? "";
  return {
    words: pairs.flatMap(([word, token]) =>
      word === undefined
        ? []
        : [{ word, spelling: token === undefined ? undefined : explainSpelling(word, token, { lexicon }) }],
    ),
    leftOut: pairs.flatMap(([word, token]) => (word !== undefined && token === undefined ? [word] : [])),
    putIn: pairs.flatMap(([word, token]) => (word === undefined && token !== undefined ? [token] : [])),
    capital: /^\p{Lu}/u.test(first),
    smallNames: both.filter(([word, token]) => isName(word) && !/^\p{Lu}/u.test(token)).map(([word]) => word),
    oddCapitals: [
      ...new Set(
        both
          .filter(
            ([word, token]) =>
              /\p{Lu}/u.test(token.slice(1)) || (word === word.toLowerCase() && /^\p{Lu}/u.test(token)),
          )
          .map(([, token]) => token),
      ),
    ],
    endMark: endOf(written) === endOf(sentence),
    runTogether,
    right: both.filter(([word, token]) => keyOf(word) === keyOf(token)).length,
  };
}

function at(grid: readonly (readonly { cost: number }[])[], i: number, j: number): number {
  return grid[i]?.[j]?.cost ?? Number.POSITIVE_INFINITY;
}

function endOf(text: string): string {
  return /[.?!]$/.exec(text.trim())?.[0] ?? "";
}

/** Takes tokens apart that are two or three neighbouring words of the sentence without a space. */
function apart(wanted: readonly string[], tokens: readonly string[]): { tokens: string[]; runTogether: string[] } {
  const runTogether: string[] = [];
  const found = tokens.flatMap((token) => {
    if (wanted.some((word) => keyOf(word) === keyOf(token))) return [token];
    for (const length of [2, 3]) {
      for (let from = 0; from + length <= wanted.length; from++) {
        const run = wanted.slice(from, from + length);
        if (keyOf(run.join("")) !== keyOf(token)) continue;
        runTogether.push(token);
        let at = 0;
        return run.map((word) => {
          at += word.length;
          return token.slice(at - word.length, at);
        });
      }
    }
    return [token];
  });
  return { tokens: found, runTogether };
}

/** Changes of letters from one word to another (put in, left out, exchanged). */
function distance(one: string, other: string): number {
  let row = Array.from({ length: other.length + 1 }, (_, at) => at);
  for (let i = 1; i <= one.length; i++) {
    const next = [i];
    for (let j = 1; j <= other.length; j++) {
      const change = (row[j - 1] ?? 0) + (one[i - 1] === other[j - 1] ? 0 : 1);
      next.push(Math.min(change, (row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1));
    }
    row = next;
  }
  return row[other.length] ?? 0;
}

/** What a written sentence says, as short sentences for a colleague; the spelling of its words comes after. */
export function sentenceInWords(score: SentenceScore): readonly string[] {
  const list = (words: readonly string[]) => words.map((word) => `“${word}”`).join(", ");
  const found: string[] = [
    `${score.right} of ${plural(score.words.length, "word")} ${form(score.right, "is", "are")} right to the letter.`,
  ];
  if (score.leftOut.length > 0) found.push(`Left out: ${list(score.leftOut)}.`);
  if (score.putIn.length > 0) found.push(`Put in: ${list(score.putIn)}.`);
  if (score.runTogether.length > 0) found.push(`No space in ${list(score.runTogether)}.`);
  if (!score.capital) found.push("No capital at the start.");
  if (score.smallNames.length > 0) found.push(`No capital for ${list(score.smallNames)}.`);
  if (score.oddCapitals.length > 0) found.push(`A capital that does not belong in ${list(score.oddCapitals)}.`);
  if (!score.endMark) found.push("The end mark is missing or another one.");
  return found;
}
