import { findCorrespondence, type Gpc, soundsOfGrapheme, splitGpc } from "./correspondences.ts";
import { isOwnUnit, partsOf } from "./own-units.ts";
import { isVowel } from "./sounds.ts";

export type ConfusionKind =
  | "looks alike"
  | "sounds alike"
  | "another sound of the spelling"
  | "first letter only"
  | "a part left out";

export interface Confusion {
  /** The sound the child may say instead, a key of `sounds`; several, joined, for a unit of the school's own. */
  readonly sound: string;
  readonly kind: ConfusionKind;
}

/** Letters that children take for one another because of their form. */
const lookAlikes = [
  "b d p q",
  "m n h",
  "n u r",
  "i l j",
  "f t",
  "v w y",
  "c o e",
  "g q y",
  "u v",
  "k h",
  "s z",
  "a o",
];

/** Sounds that are made or heard nearly alike, a row a set. */
export const soundAlikes = [
  "f th v",
  "th dh s",
  "e i",
  "a e u",
  "o u a",
  "j g",
  "j ch sh",
  "k g",
  "t d",
  "p b",
  "s z",
  "sh s ch",
  "m n ng",
  "l r w",
  "y w",
  "ai e a",
  "ee i e",
  "igh i ai",
  "oa o ow",
  "oo uu yoo u",
  "ar a air",
  "or o ar",
  "er ar or",
  "ow oa or",
  "oi igh or",
  "ear air ee",
  "air ear ai",
  "ks k s",
  "kw k w",
  "ch t sh",
  "ng n g",
  "v b w",
  "h k",
];

const letterSound: Record<string, string> = {
  a: "a",
  b: "b",
  c: "k",
  d: "d",
  e: "e",
  f: "f",
  g: "g",
  h: "h",
  i: "i",
  j: "j",
  k: "k",
  l: "l",
  m: "m",
  n: "n",
  o: "o",
  p: "p",
  q: "k",
  r: "r",
  s: "s",
  t: "t",
  u: "u",
  v: "v",
  w: "w",
  x: "ks",
  y: "y",
  z: "z",
};

function neighbours(rows: readonly string[], key: string): string[] {
  return rows
    .map((row) => row.split(" "))
    .filter((row) => row.includes(key))
    .flatMap((row) => row.filter((other) => other !== key));
}

/** Of letters taught as one a child leaves out a part, or says another for one of them. */
function unitConfusions(gpc: Gpc): readonly Confusion[] {
  const sounds = partsOf(gpc).map((part) => splitGpc(part).sound);
  const left = sounds.map((_, at) => sounds.toSpliced(at, 1)).toReversed();
  const changed = sounds.flatMap((sound, at) =>
    neighbours(soundAlikes, sound)
      .slice(0, 2)
      .map((other) => sounds.with(at, other)),
  );
  const all = [
    ...left.map((one): Confusion => ({ sound: one.join("+"), kind: "a part left out" })),
    ...changed.map((one): Confusion => ({ sound: one.join("+"), kind: "sounds alike" })),
  ];
  return all.filter(({ sound }, at) => all.findIndex((other) => other.sound === sound) === at);
}

/**
 * The sounds a child is likely to say in place of the right one, likeliest kinds first and no sound
 * twice. At most `most` (default 6). Single consonant letters: look-alikes first; vowel letters: the vowels
 * that sound nearest first; spellings of several letters:
 * the first letter alone and the spelling's other sounds first.
 */
export function likelyConfusions(gpc: Gpc, most = 6): readonly Confusion[] {
  const entry = findCorrespondence(gpc);
  if (!entry) return [];
  if (isOwnUnit(gpc)) return unitConfusions(gpc).slice(0, most);
  const letters = entry.grapheme.replace("_", "");
  const found: Confusion[] = [];
  const add = (kind: ConfusionKind, keys: readonly string[]) => {
    for (const sound of keys) {
      if (sound !== entry.sound && !found.some((other) => other.sound === sound)) found.push({ sound, kind });
    }
  };
  const others = soundsOfGrapheme(entry.grapheme).map((other) => other.sound);
  if (isVowel(entry.sound) && letters.length === 1)
    add("sounds alike", neighbours(soundAlikes, entry.sound).slice(0, 2));
  if (letters.length === 1) {
    add(
      "looks alike",
      neighbours(lookAlikes, letters)
        .slice(0, 3)
        .map((letter) => letterSound[letter] ?? letter),
    );
    add("another sound of the spelling", others.filter((sound) => sound !== "schwa").slice(0, 2));
  } else {
    add("first letter only", [letterSound[letters[0] ?? ""] ?? ""].filter(Boolean));
    add("another sound of the spelling", others.slice(0, 3));
  }
  add("sounds alike", neighbours(soundAlikes, entry.sound));
  return found.slice(0, most);
}

/** A confusion as an unordered pair, so that b read as d and d read as b count together: `b/d`. */
export function confusionPair(right: string, heard: string): string {
  return [right, heard].sort().join("/");
}
