import { kindNames } from "#core/ledger";
import { showSaid, split } from "#core/words";
import { drawListed } from "./draw.ts";
import type { Kind, Pad } from "./kind.ts";
import { saidPad } from "./pads.ts";
import { tellMisread } from "./words.ts";

const asWholes: Pad = [{ ...saidPad[0], name: "Right at sight" }, saidPad[1], saidPad[2], saidPad[3], saidPad[4]];
const sounded: Pad = [
  { ...saidPad[0], name: "Right at sight", held: { outcome: "ownWay", name: "In their own way" } },
  { outcome: "slow", name: "Right, slow" },
  { outcome: "sounded", name: "Sounded out", hint: "and got it" },
  saidPad[3],
  saidPad[4],
];

/** Exception words. An item is the word as it is written. */
export const exception: Kind<"exception"> = {
  id: "exception",
  name: kindNames.exception,
  about: "The child reads taught words with an unexpected part.",
  begins: { most: 20 },
  picks: "words",
  effort: "slow or sounded out",
  way: "cards",
  seconds: 5,
  order: "shuffled",
  fits: (item) => /^[A-Za-z][a-z']{0,20}$/.test(item),
  draw: (ask) => ({ items: drawListed(ask.exceptionWords, ask.recentExceptionWords, ask) }),
  face: (item) => ({ show: "text", text: item, size: "word" }),
  prompt: (_item, { exceptionWay }) => ({
    say: "",
    expects: exceptionWay === "wholes" ? "reads it, then spells it" : "reads it at sight",
  }),
  pad: ({ exceptionWay }) => (exceptionWay === "wholes" ? asWholes : sounded),
  likely: () => [],
  tags: ({ exceptionWay }) => (exceptionWay === "wholes" ? [{ tag: "noSpelling", name: "Spelled it wrong" }] : []),
  show: (item) => item,
  showHeard: showSaid,
  tell: (answer, wanted) => {
    const units = split(answer.item, wanted)[0]?.units ?? [];
    const told = tellMisread(answer, units, wanted);
    return answer.tags.includes("noSpelling") ? { ...told, says: [...told.says, "Spelled it wrong."] } : told;
  },
};
