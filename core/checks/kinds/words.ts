import { type GivenAnswer, heardIn, kindNames } from "#core/ledger";
import { ipa, isVowel, likelyConfusions, showGrapheme } from "#core/phonics";
import {
  explain,
  inSounds,
  isWordItem,
  misreadInWords,
  readWordItem,
  showSaid,
  spellOut,
  type Unit,
  wordItem,
} from "#core/words";
import type { BlockId } from "../section.ts";
import { blockNameOf, wordsOfBlock } from "./blocks.ts";
import { type Kind, type Likely, type Mixed, nothingTold, type Pad, type TellWanted, type Told } from "./kind.ts";
import { saidPad } from "./pads.ts";

/** Which shapes, and made-up words among them where the school uses them. */
interface WordsSection {
  readonly blocks: readonly BlockId[];
  readonly madeUp: boolean;
}

const pad: Pad = [
  { ...saidPad[0], name: "Right at sight", held: { outcome: "ownWay", name: "In their own way" } },
  { outcome: "sounded", name: "Sounded out", hint: "and blended", held: { outcome: "slow", name: "At sight, slow" } },
  {
    outcome: "blend",
    name: "Sounds right",
    hint: "blended wrong",
    held: { outcome: "blend", name: "What was said", typed: true },
  },
  { ...saidPad[3], name: "Another word", hint: "type it" },
  saidPad[4],
];

/**
 * Misreadings that are likely, in sounds: the first of a cluster dropped, then each unit's likeliest confusions, two a
 * unit. None that an adult would not want to see on a screen.
 */
function likelyMisreads(units: readonly Unit[], most = 6): readonly Likely[] {
  const spoken = units.map((unit) => unit.sound).filter(Boolean);
  const found = new Map<string, Likely>();
  const add = (sounds: readonly string[], hint: string) => {
    const heard = inSounds(sounds);
    const spelled = showSaid(heard);
    // Spelled as the word itself it would look right: then its sounds say what it is.
    const shows = spelled === spellOut(units) ? `/${sounds.map(ipaOf).join("")}/` : spelled;
    if (sounds.length > 1 && heard !== inSounds(spoken) && isFit(shows) && !found.has(shows))
      found.set(shows, { heard, shows, hint, outcome: "wrong" });
  };
  if (units.findIndex((unit) => isVowel(unit.sound)) > 1)
    add(spoken.slice(1), `without ${showGrapheme(units[0]?.grapheme ?? "")}`);
  const swaps = units.map((unit) => (unit.sound === "" ? [] : likelyConfusions(unit.gpc, 4)));
  for (let rank = 0; rank < 2; rank++) {
    for (const [at, options] of swaps.entries()) {
      const [other, unit] = [options[rank]?.sound, units[at]];
      if (!other || !unit || isVowel(other) !== isVowel(unit.sound)) continue;
      // A joint that begins with the right sound is that sound and one more: no unit of the word fails.
      if (joints.has(`${unit.sound} ${other}`)) continue;
      add(
        units.map((one, i) => (i === at ? other : one.sound)),
        `${showGrapheme(unit.grapheme)} as ${ipa(other)}`,
      );
    }
  }
  return [...found.values()].slice(0, most);
}

const joints: ReadonlySet<string> = new Set(["k ks", "k kw", "g gz", "t ts"]);

const ipaOf = (sound: string) => ipa(sound).replaceAll("/", "");

/** Letter runs that no screen of ours offers by itself; what a child really said may be typed all the same. */
const unfit =
  /f[aeiou]+c?k|sh?i+t|c[uo]nt|^[dc][io]c?k|c[ou]m$|t[iu]ts?$|p[ie]+n[iu]s|pis|p[uo]s+y|ars|^as+$|nig|fag|slu|hoor|^r[ae]+p|s[ei]ks|wank|tw[ao]t|pube|bich|bast|dam[n]?$|^hel+$|kill?$|gun$|drug/;

function isFit(text: string): boolean {
  return !unfit.test(text);
}

/** What a misread of a word says, with the units that a person named where they overruled the engine. */
export function tellMisread(answer: GivenAnswer, units: readonly Unit[], wanted: TellWanted): Told {
  const heard = heardIn(answer);
  const overruled = answer.outcome === "wrong" || answer.outcome === "blend" ? answer.units : null;
  const nothing = { ...nothingTold, units };
  if (overruled) {
    const failed = overruled.filter((at) => units[at]);
    const names = failed.map((at) => `${showGrapheme(units[at]?.grapheme ?? "")} ${ipa(units[at]?.sound ?? "")}`);
    const said = heard ? ` (said “${showSaid(heard)}”)` : "";
    return {
      ...nothing,
      failed,
      says: [`${names.join(" and ") || "No part"} failed, as the adult heard it${said}.`],
    };
  }
  if (answer.outcome === "none") return { ...nothing, says: ["No answer."] };
  if (!heard)
    return answer.outcome === "blend" ? { ...nothing, says: ["The sounds were right, the word was not."] } : nothing;
  const told = explain(spellOut(units), heard, wanted);
  if (told.units.length !== units.length) return { ...nothing, says: misreadInWords(told) };
  const mixed = told.units.flatMap((one): Mixed[] =>
    one.outcome === "other" && one.heard.length === 1
      ? [{ asked: one.unit.sound, given: one.heard[0] ?? "", of: "sound" }]
      : [],
  );
  const says = misreadInWords(told);
  return {
    units,
    failed: told.units.flatMap((one, at) => (one.outcome === "right" ? [] : [at])),
    says: answer.outcome === "blend" ? ["The sounds were right, the word was not.", ...says] : says,
    mixed,
  };
}

/** Reading words in blocks of growing shape. An item is a word in its units. */
export const words: Kind<"words", WordsSection> = {
  id: "words",
  name: kindNames.words,
  about: "The child reads words, real and made up, that have only taught spellings.",
  begins: {
    scope: "all",
    most: 4,
    strategy: "inOrder",
    stopAfter: 4,
    blocks: ["three", "fourEnd", "fourStart"],
    madeUp: true,
  },
  picks: null,
  effort: "sounded out or slow",
  piles: { title: "By shape of word", of: (item) => blockNameOf(readWordItem(item)) },
  way: "cards",
  seconds: 6,
  order: "inOrder",
  fits: isWordItem,
  draw: (ask) => {
    if (ask.section.scope === "picked") return { items: [...new Set(ask.section.picked)].filter(isWordItem) };
    const items = ask.section.blocks.flatMap((id) => {
      const { real, madeUp } = wordsOfBlock(id, ask);
      return [...real.map((word) => wordItem(word)), ...madeUp.map((word) => wordItem(word, true))];
    });
    return { items: [...new Set(items)] };
  },
  face: (item) => ({ show: "text", text: readWordItem(item).text, size: "word" }),
  prompt: (item) => {
    const { units, madeUp } = readWordItem(item);
    const sounds = units.map((unit) => ipa(unit.sound).replaceAll("/", "")).join(" ");
    return { say: "", expects: `/${sounds}/${madeUp ? ", made up" : ""}`, units };
  },
  pad: () => pad,
  likely: (item) => likelyMisreads(readWordItem(item).units),
  tags: () => [],
  show: (item) => readWordItem(item).text,
  showHeard: showSaid,
  tell: (answer, wanted) => tellMisread(answer, readWordItem(answer.item).units, wanted),
};
