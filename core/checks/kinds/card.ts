import { heardIn, kindNames } from "#core/ledger";
import { findCorrespondence, findSound, ipa, plainSound, showGrapheme, splitGpc } from "#core/phonics";
import { drawSpellings } from "./draw.ts";
import { type Kind, nothingTold, type TagChoice } from "./kind.ts";
import { likelySounds, saidPad } from "./pads.ts";

const nameMissed: TagChoice = { tag: "noName", name: "Letter name missed" };
const keywordMissed: TagChoice = { tag: "noKeyword", name: "Keyword missed" };

/** Spelling to sound. An item is a correspondence, `ea=ee`. */
export const card: Kind<"card"> = {
  id: "card",
  name: kindNames.card,
  about: "The child sees a spelling and says its sound.",
  begins: {},
  picks: "spellings",
  way: "cards",
  seconds: 4,
  order: "shuffled",
  fits: (item) => findCorrespondence(item) !== undefined,
  draw: drawSpellings,
  face: (item) => ({ show: "text", text: showGrapheme(splitGpc(item).grapheme), size: "letters" }),
  prompt: (item, { answerForm }) => {
    const entry = findCorrespondence(item);
    const sound = `${ipa(splitGpc(item).sound)} as in ${entry?.keyword ?? ""}`;
    if (answerForm === "sound") return { say: "", expects: sound };
    const names = [...splitGpc(item).grapheme.replace("_", "")].map((letter) => letter.toUpperCase()).join(" ");
    return {
      say: "",
      expects: answerForm === "nameSound" ? `${names}, ${sound}` : `${names}, ${entry?.keyword ?? ""}, ${sound}`,
    };
  },
  pad: () => saidPad,
  likely: likelySounds,
  tags: ({ answerForm }) =>
    answerForm === "sound" ? [] : answerForm === "nameSound" ? [nameMissed] : [nameMissed, keywordMissed],
  show: (item) => showGrapheme(splitGpc(item).grapheme),
  showHeard: (heard) => (findSound(heard) ? plainSound(heard) : heard),
  tell: (answer) => {
    const heard = heardIn(answer);
    const { grapheme, sound } = splitGpc(answer.item);
    if (answer.outcome !== "wrong" || !heard) return nothingTold;
    return {
      says: [`${showGrapheme(grapheme)}: said “${card.showHeard(heard)}” for “${plainSound(sound)}”.`],
      units: [],
      failed: [],
      mixed: [{ asked: sound, given: heard, of: "sound" }],
    };
  },
};
