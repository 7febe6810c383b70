import { dictionary } from "cmu-pronouncing-dictionary";
import { phonemesOf, type Unit } from "#core/words";

/**
 * Sounds thrown together wherever any accent throws them together, so that two words which might sound alike to
 * someone have the same code. Coarser than any one accent, and meant to be.
 */
const ours: Record<string, string> = {
  o: "O",
  or: "O",
  ar: "O",
  ure: "O",
  u: "U",
  uu: "U",
  schwa: "U",
  oo: "W",
  yoo: "W",
  er: "R",
  ear: "H",
  air: "H",
  dh: "D",
  th: "F",
  f: "F",
  v: "V",
  y: "",
  ng: "N",
  n: "N",
};
const theirs: Record<string, string> = {
  AA: "o",
  AE: "a",
  AH: "u",
  AO: "or",
  AW: "ow",
  AY: "igh",
  B: "b",
  CH: "ch",
  D: "d",
  DH: "dh",
  EH: "e",
  ER: "er",
  EY: "ai",
  F: "f",
  G: "g",
  HH: "h",
  IH: "i",
  IY: "ee",
  JH: "j",
  K: "k",
  L: "l",
  M: "m",
  N: "n",
  NG: "ng",
  OW: "oa",
  OY: "oi",
  P: "p",
  R: "r",
  S: "s",
  SH: "sh",
  T: "t",
  TH: "th",
  UH: "uu",
  UW: "oo",
  V: "v",
  W: "w",
  Y: "y",
  Z: "z",
  ZH: "zh",
};
const vowels = new Set(["AA", "AE", "AH", "AO", "AW", "AY", "EH", "ER", "EY", "IH", "IY", "OW", "OY", "UH", "UW"]);

const code = (sounds: readonly string[]) =>
  sounds
    .map((sound) => ours[sound] ?? sound)
    .join(" ")
    .replace(/\s+/g, " ")
    .trim();

/** The code of units in our notation. */
export function codeOfUnits(units: readonly Unit[]): string {
  return code(phonemesOf(units).map((phoneme) => phoneme.sound));
}

function codesOfPhones(phones: readonly string[]): string[] {
  const bare = phones.map((phone) => phone.replace(/\d/, ""));
  const sounds: string[] = [];
  bare.forEach((phone, at) => {
    const before = bare[at - 1] ?? "";
    const after = bare[at + 1] ?? "";
    if (phone === "R" && vowels.has(before) && !vowels.has(after)) {
      const vowel = sounds.pop() ?? "";
      sounds.push(before === "IH" || before === "IY" ? "ear" : before === "EH" ? "air" : vowel);
    } else sounds.push(theirs[phone] ?? phone);
  });
  return [code(sounds)];
}

/** The codes of every word of the open dictionary. */
export function codesOfRealWords(): ReadonlySet<string> {
  const found = new Set<string>();
  for (const phones of Object.values(dictionary))
    for (const one of codesOfPhones(phones.replace(/ #.*/, "").split(" "))) found.add(one);
  return found;
}
