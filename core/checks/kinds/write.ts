import { heardIn, kindNames } from "#core/ledger";
import {
  asIn,
  findCorrespondence,
  ipa,
  isOwnUnit,
  likelyConfusions,
  plainSound,
  showGrapheme,
  spellingsOfSound,
  splitGpc,
} from "#core/phonics";
import { drawSpellings } from "./draw.ts";
import { type Faces, noFaces } from "./faces.ts";
import { type Kind, type Likely, nothingTold, type Pad } from "./kind.ts";
import { said } from "./pads.ts";
import { withWays } from "./sounds.ts";

const pad: Pad = [
  { outcome: "right", name: "Right" },
  {
    outcome: "other",
    name: "Another spelling",
    hint: "right for this sound",
    held: { outcome: "other", name: "Which one", typed: true },
  },
  { outcome: "reversed", name: "Turned round", hint: "right letter" },
  {
    outcome: "wrong",
    name: "Something else",
    hint: "type it",
    typed: true,
    held: { outcome: "wrong", name: "Just wrong" },
  },
  { outcome: "none", name: "Nothing written" },
];

/** Other spellings of the sound first, then spellings of the sounds it is taken for. */
function likelySpellings(item: string): readonly Likely[] {
  const { grapheme, sound } = splitGpc(item);
  const others = spellingsOfSound(sound)
    .map((entry) => entry.grapheme)
    .filter((other) => other !== grapheme)
    .slice(0, 3)
    .map((other): Likely => ({ heard: other, shows: showGrapheme(other), hint: "also right", outcome: "other" }));
  const taken = new Set([grapheme, ...spellingsOfSound(sound).map((entry) => entry.grapheme)]);
  const wrong = likelyConfusions(item, 8)
    .flatMap((confusion) => spellingsOfSound(confusion.sound)[0]?.grapheme ?? [])
    .filter((other, at, all) => !taken.has(other) && all.indexOf(other) === at)
    .map((other): Likely => ({ heard: other, shows: showGrapheme(other), hint: "wrote", outcome: "wrong" }));
  return [...others, ...wrong].slice(0, 6);
}

/** Every way that was taught of writing the sound is asked for, not one of them. */
interface WriteSection {
  readonly every: boolean;
}

/** By item, the other taught ways of writing its sound. */
interface WriteSetup {
  readonly faces: Faces;
}

/** Sound to spelling, in writing. An item is a correspondence; what is written is a spelling or free text. */
export const write: Kind<"write", WriteSection, WriteSetup> = {
  id: "write",
  name: kindNames.write,
  about: "You say a sound, the child writes a spelling for it.",
  begins: { most: 12, every: false },
  keeps: (drawn) => ({ faces: drawn?.faces ?? noFaces }),
  picks: "spellings",
  effort: "another spelling, or turned round",
  way: "cards",
  seconds: 12,
  order: "shuffled",
  fits: (item) => findCorrespondence(item) !== undefined,
  draw: (ask) => {
    const drawn = drawSpellings(ask);
    return ask.section.every ? withWays(drawn.items, ask.taught) : drawn;
  },
  face: () => ({ show: "nothing" }),
  prompt: (item, _settings, { faces }) => {
    const { sound, grapheme } = splitGpc(item);
    const ways = [item, ...(faces.also[item] ?? [])];
    if (faces.way === "all")
      return {
        say: `Every way you know of writing ${plainSound(sound)}`,
        expects: `${ways.map((gpc) => showGrapheme(splitGpc(gpc).grapheme)).join(", ")} for ${ipa(sound)}`,
      };
    return {
      say: said(item),
      expects: `${showGrapheme(grapheme)} for ${ipa(sound)}`,
    };
  },
  pad: () => pad,
  likely: (item, { faces }) => {
    const ways = new Set((faces.also[item] ?? []).map((gpc) => splitGpc(gpc).grapheme));
    return likelySpellings(item).filter(({ heard }) => !ways.has(heard));
  },
  all: (item, { faces }) =>
    (faces.also[item] ? [item, ...faces.also[item]] : []).map((gpc) => ({
      item: gpc,
      shows: showGrapheme(splitGpc(gpc).grapheme),
      hint: asIn(gpc).trim(),
    })),
  tags: () => [],
  show: (item) => `${plainSound(splitGpc(item).sound)} → ${showGrapheme(splitGpc(item).grapheme)}`,
  showHeard: showGrapheme,
  tell: (answer) => {
    const heard = heardIn(answer);
    const { grapheme, sound } = splitGpc(answer.item);
    const wanted = showGrapheme(grapheme);
    const told = (says: string, mixed: boolean) => ({
      says: [says],
      units: [],
      failed: [],
      mixed:
        mixed && heard && !isOwnUnit(answer.item) ? [{ asked: grapheme, given: heard, of: "spelling" as const }] : [],
    });
    if (answer.outcome === "reversed") return told(`${wanted} was turned round.`, false);
    if (answer.outcome === "other" && heard)
      return told(
        `Wrote ${showGrapheme(heard)} for “${plainSound(sound)}”: it spells the sound too; asked was ${wanted}.`,
        false,
      );
    if (answer.outcome === "wrong" && heard)
      return told(`Heard “${plainSound(sound)}” and wrote ${showGrapheme(heard)}, not ${wanted}.`, true);
    return nothingTold;
  },
};
