import { heardIn, kindNames } from "#core/ledger";
import { findCorrespondence, type Gpc, plainSound, showGrapheme, splitGpc, withImplied } from "#core/phonics";
import { dice, type Lexicon, readWordItem, shuffled, type Word, wordItem, wordsSoundingLike } from "#core/words";
import { drawSpellings } from "./draw.ts";
import { noFaces } from "./faces.ts";
import { numberOf } from "./find.ts";
import { type Drawn, type Kind, nothingTold, type Pad } from "./kind.ts";
import { said } from "./pads.ts";

/** By item, the word with the gap in its units, and the other taught ways of writing the sound. */
interface ChooseSetup {
  readonly words: Readonly<Record<Gpc, string>>;
  readonly ways: Readonly<Record<Gpc, readonly Gpc[]>>;
}

/** Ways that a child chooses among, at most. */
const MOST_WAYS = 6;
/** Words looked at for one spelling, the commonest first. */
const MOST_WORDS = 40;

const pad: Pad = [
  { outcome: "right", name: "Right at once" },
  { outcome: "slow", name: "Right, slow", hint: "or put right" },
  { outcome: "other", name: "Could be", hint: "it would sound right" },
  { outcome: "wrong", name: "Another one", hint: "taps it" },
  { outcome: "none", name: "No answer" },
];

/**
 * The letters of a word before and after the gap where this spelling is; of a split one the gap stands for both letters, so that its
 * shape says nothing.
 * @example withGap("l a_e t", "a_e=ai") // ["l", "t"]
 */
export function withGap(word: string, gpc: Gpc): readonly [string, string] {
  const { units } = readWordItem(word);
  const asked = units.findIndex((unit) => unit.gpc === gpc);
  const sides: [string, string] = ["", ""];
  let closing = "";
  for (const [at, { grapheme }] of units.entries()) {
    const side = at > asked ? 1 : 0;
    const [opening = "", late = ""] = grapheme.split("_");
    sides[side] += (at === asked ? "" : opening) + closing;
    closing = at === asked ? "" : late;
  }
  sides[1] += closing;
  return sides;
}

/** The ways among which the child chooses, its own among them, in an order that only the item and the seed decide. */
function waysFor(item: Gpc, { ways }: ChooseSetup, seed: number): readonly string[] {
  const all = [item, ...(ways[item] ?? [])].slice(0, MOST_WAYS).map((gpc) => splitGpc(gpc).grapheme);
  return shuffled([...new Set(all)], dice(seed + numberOf(item)));
}

/**
 * A common word with this spelling once, of which all else is taught; none that sounds like another word, of which no one could say
 * which is meant.
 */
function wordWith(gpc: Gpc, { lexicon, known }: { readonly lexicon: Lexicon; readonly known: ReadonlySet<Gpc> }) {
  const fits = ({ units, text }: Word) =>
    units.filter((unit) => unit.gpc === gpc).length === 1 &&
    units.every((unit) => unit.gpc === gpc || unit.sound === "" || known.has(unit.gpc)) &&
    text.length > splitGpc(gpc).grapheme.replace("_", "").length &&
    wordsSoundingLike(text, lexicon).length === 0;
  const having = lexicon.words.filter(({ units }) => units.some((unit) => unit.gpc === gpc));
  return having
    .toSorted((one, other) => one.band - other.band)
    .slice(0, MOST_WORDS)
    .find(fits);
}

/** Sound to spelling, in a word, by choosing: of several taught ways of writing a sound the one that this word has. */
export const choose: Kind<"choose", unknown, ChooseSetup> = {
  id: "choose",
  name: kindNames.choose,
  about: "You say a word, the child sees it with a gap and taps the spelling that belongs there.",
  begins: { most: 12 },
  keeps: (drawn) => ({ words: drawn?.faces?.inWord ?? {}, ways: drawn?.faces?.also ?? {} }),
  picks: "spellings",
  none: "no sound was taught with two ways of writing it, in words that can be read",
  way: "cards",
  seconds: 8,
  order: "shuffled",
  fits: (item) => findCorrespondence(item) !== undefined,
  draw: (ask): Drawn => {
    const known = withImplied([...ask.taught, ...ask.section.picked]);
    const waysOf = (gpc: Gpc) =>
      [...new Set([...ask.taught, ...ask.section.picked])].filter(
        (other) => other !== gpc && splitGpc(other).sound === splitGpc(gpc).sound,
      );
    // Asked for more than there may be words for, and cut to as many afterwards.
    const { items } = drawSpellings({ ...ask, section: { ...ask.section, most: Number.POSITIVE_INFINITY } });
    const found = items.flatMap((gpc) => {
      const ways = waysOf(gpc);
      const word = ways.length > 0 ? wordWith(gpc, { lexicon: ask.lexicon, known }) : undefined;
      return word ? [{ gpc, ways, word: wordItem(word) }] : [];
    });
    const taken = ask.section.scope === "due" ? found.slice(0, ask.section.most) : found;
    return {
      items: taken.map(({ gpc }) => gpc),
      faces: {
        ...noFaces,
        also: Object.fromEntries(taken.map(({ gpc, ways }) => [gpc, ways])),
        inWord: Object.fromEntries(taken.map(({ gpc, word }) => [gpc, word])),
      },
    };
  },
  face: (item, setup, seed) => {
    const word = setup.words[item];
    return {
      show: "choices",
      item,
      choices: waysFor(item, setup, seed).map(showGrapheme),
      ...(word ? { gapped: withGap(word, item) } : {}),
    };
  },
  prompt: (item, _settings, { words }) => {
    const text = textOf(words[item]);
    const { grapheme } = splitGpc(item);
    return {
      say: text || said(item),
      expects: text ? `${showGrapheme(grapheme)} in ${text}` : showGrapheme(grapheme),
    };
  },
  pad: () => pad,
  likely: (item, setup, seed) =>
    waysFor(item, setup, seed).map((way) => ({
      heard: way,
      shows: showGrapheme(way),
      hint: way === splitGpc(item).grapheme ? "right" : "taps it",
      outcome: way === splitGpc(item).grapheme ? "right" : "wrong",
    })),
  tags: () => [],
  show: (item) => `${plainSound(splitGpc(item).sound)} → ${showGrapheme(splitGpc(item).grapheme)}`,
  showHeard: showGrapheme,
  tell: (answer, { setup }) => {
    const heard = heardIn(answer);
    if (!heard || answer.outcome !== "wrong") return nothingTold;
    const { grapheme } = splitGpc(answer.item);
    const text = textOf(setup.words[answer.item]);
    return {
      says: [`Chose ${showGrapheme(heard)}${text ? ` for “${text}”` : ""}, not ${showGrapheme(grapheme)}.`],
      units: [],
      failed: [],
      mixed: [{ asked: grapheme, given: heard, of: "spelling" }],
    };
  },
};

function textOf(word: string | undefined): string {
  return word ? readWordItem(word).text : "";
}
