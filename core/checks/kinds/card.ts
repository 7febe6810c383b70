import { heardIn, kindNames } from "#core/ledger";
import {
  asIn,
  findCorrespondence,
  ipa,
  isOwnUnit,
  plainLetters,
  plainSound,
  showGrapheme,
  soundsOfGrapheme,
  splitGpc,
  WEAK,
} from "#core/phonics";
import { readWordItem } from "#core/words";
import { drawSpellings } from "./draw.ts";
import { type Faces, noFaces } from "./faces.ts";
import { type Kind, type Likely, nothingTold, type TagChoice } from "./kind.ts";
import { likelySounds, saidPad } from "./pads.ts";
import { lettersAsked, withFaces } from "./sounds.ts";

const said = (sound: string) => ({ heard: sound, shows: plainSound(sound) });

const nameMissed: TagChoice = { tag: "noName", name: "Letter name missed" };
const keywordMissed: TagChoice = { tag: "noKeyword", name: "Keyword missed" };

/** How its cards ask a spelling that has several taught sounds. */
interface CardSetup {
  readonly faces: Faces;
}

/** Spelling to sound. An item is a correspondence, `ea=ee`. */
export const card: Kind<"card", unknown, CardSetup> = {
  id: "card",
  name: kindNames.card,
  about: "The child sees a spelling and says its sound.",
  begins: {},
  keeps: (drawn) => ({ faces: drawn?.faces ?? noFaces }),
  picks: "spellings",
  way: "cards",
  seconds: 4,
  order: "shuffled",
  fits: (item) => findCorrespondence(item) !== undefined,
  draw: (ask) => {
    const { taught, lexicon, section, settings } = ask;
    // What was picked by hand is that very sound; and against the clock no one ticks.
    const ticks = settings.severalSounds === "all" && section.form === "minute";
    const way = section.scope === "picked" ? "word" : ticks ? "any" : settings.severalSounds;
    return withFaces(drawSpellings(ask).items, { way, taught, lexicon });
  },
  face: (item, { faces }) => {
    const { grapheme } = splitGpc(item);
    const word = faces.inWord[item];
    if (word === undefined) return { show: "text", text: showGrapheme(grapheme), size: "letters" };
    return { show: "within", text: readWordItem(word).text, letters: lettersAsked(word, item) };
  },
  prompt: (item, { answerForm }) => {
    const sound = `${ipa(splitGpc(item).sound)}${asIn(item)}`;
    if (answerForm === "sound") return { say: "", expects: sound };
    const names = [...plainLetters(splitGpc(item).grapheme)].map((letter) => letter.toUpperCase()).join(" ");
    const keyword = findCorrespondence(item)?.keyword;
    const all = answerForm === "nameSound" || !keyword ? [names, sound] : [names, keyword, sound];
    return { say: "", expects: all.join(", ") };
  },
  pad: () => saidPad,
  likely: (item, { faces }) => {
    const { grapheme, sound } = splitGpc(item);
    const taught = new Set((faces.also[item] ?? []).map((gpc) => splitGpc(gpc).sound));
    const others = soundsOfGrapheme(grapheme)
      .map((one) => one.sound)
      .filter((one) => one !== sound && one !== WEAK);
    const right = faces.way === "any" ? others.filter((one) => taught.has(one)) : [];
    // What a spelling also stands for is no mistake where no word says which is meant.
    const early = faces.inWord[item] ? [] : others.filter((one) => !taught.has(one));
    return [
      ...right.map(
        (one): Likely => ({ ...said(one), hint: "taught too", outcome: "right", item: `${grapheme}=${one}` }),
      ),
      ...likelySounds(item).flatMap((one): Likely[] =>
        taught.has(one.heard)
          ? []
          : [early.includes(one.heard) ? { ...one, hint: "not taught yet", outcome: "other" } : one],
      ),
    ];
  },
  all: (item, { faces }) =>
    faces.way === "all" && faces.also[item]
      ? [item, ...faces.also[item]].map((gpc) => {
          const one = splitGpc(gpc).sound;
          return { item: gpc, shows: plainSound(one), hint: asIn(gpc).trim() };
        })
      : [],
  tags: ({ answerForm }) =>
    answerForm === "sound" ? [] : answerForm === "nameSound" ? [nameMissed] : [nameMissed, keywordMissed],
  show: (item) => showGrapheme(splitGpc(item).grapheme),
  showHeard: plainSound,
  tell: (answer) => {
    const heard = heardIn(answer);
    const { grapheme, sound } = splitGpc(answer.item);
    if (answer.outcome === "other" && heard)
      return {
        ...nothingTold,
        says: [
          `${showGrapheme(grapheme)}: said “${card.showHeard(heard)}”, which it can be and which was not taught yet.`,
        ],
      };
    if (answer.outcome !== "wrong" || !heard) return nothingTold;
    return {
      says: [`${showGrapheme(grapheme)}: said “${card.showHeard(heard)}” for “${plainSound(sound)}”.`],
      units: [],
      failed: [],
      mixed: isOwnUnit(answer.item) ? [] : [{ asked: sound, given: heard, of: "sound" }],
    };
  },
};
