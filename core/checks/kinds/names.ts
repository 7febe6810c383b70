import { heardIn, kindNames } from "#core/ledger";
import type { Cases } from "../section.ts";
import { type Kind, type Likely, nothingTold } from "./kind.ts";
import { saidPad } from "./pads.ts";

interface NamesSection {
  readonly cases: Cases;
}

const alphabet = [..."abcdefghijklmnopqrstuvwxyz"];

/** Letters whose forms or names are taken for one another, a row a set. */
const rows = [
  "b d p q",
  "m n w",
  "n u h",
  "i l j",
  "f t",
  "v w y",
  "c o e",
  "g j q",
  "a e i",
  "k c q",
  "s x z",
  "u y",
];

function likelyNames(item: string): readonly Likely[] {
  const capital = item !== item.toLowerCase();
  const letter = item.toLowerCase();
  const near = rows.map((row) => row.split(" ")).filter((row) => row.includes(letter));
  const others = [...new Set(near.flat())].filter((other) => other !== letter).slice(0, 6);
  return others.map((other) => ({
    heard: capital ? other.toUpperCase() : other,
    shows: capital ? other.toUpperCase() : other,
    hint: "letter",
    outcome: "wrong",
  }));
}

/** Names of small and capital letters. An item is one letter, `b` or `B`. */
export const names: Kind<"names", NamesSection> = {
  id: "names",
  name: kindNames.names,
  about: "The child sees a letter and says its name.",
  begins: { scope: "all", most: 52, cases: "small" },
  picks: "letters",
  way: "cards",
  seconds: 3.5,
  order: "shuffled",
  fits: (item) => /^[a-zA-Z]$/.test(item),
  draw: ({ section, last }) => {
    const capitals = alphabet.map((letter) => letter.toUpperCase());
    const { cases, scope, picked, most } = section;
    if (scope === "picked") return { items: [...new Set(picked)] };
    const all = cases === "small" ? alphabet : cases === "capital" ? capitals : [...alphabet, ...capitals];
    const open = (letter: string) => last.get(letter) !== "right" && last.get(letter) !== "ownWay";
    return { items: (scope === "due" ? all.filter(open) : all).slice(0, most) };
  },
  face: (item) => ({ show: "text", text: item, size: "letters" }),
  prompt: (item) => ({
    say: "",
    expects: `the name of ${item === item.toLowerCase() ? "small" : "capital"} ${item}`,
  }),
  pad: () => saidPad,
  likely: likelyNames,
  tags: () => [],
  show: (item) => item,
  showHeard: (heard) => heard,
  tell: (answer) => {
    const heard = heardIn(answer);
    if (!heard) return nothingTold;
    return {
      says: [`${answer.item} was named “${heard}”.`],
      units: [],
      failed: [],
      mixed: /^[a-z]$/i.test(heard) ? [{ asked: answer.item, given: heard, of: "spelling" }] : [],
    };
  },
};
