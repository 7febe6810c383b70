import { findCorrespondence, type Gpc } from "#core/phonics";
import { type Unit, unitOf } from "./units.ts";

/** A word made of a known word and an ending or a beginning. */
export interface Derivation {
  readonly base: string;
  /** What was added: `s`, `ed`, `ing`, `un` ... */
  readonly affix: string;
  readonly place: "before" | "after";
  readonly units: readonly Unit[];
  /** Index of the unit at which the added part begins (`after`), or the base (`before`). */
  readonly joint: number;
}

type FindUnits = (text: string) => readonly Unit[] | undefined;

const voiceless = new Set(["p", "t", "k", "f", "th", "ks", "s", "sh", "ch"]);
const hissing = new Set(["s", "z", "sh", "zh", "ch", "j", "ks", "gz"]);
const spelled = (...gpcs: Gpc[]): Unit[] => gpcs.map(unitOf);

function last(units: readonly Unit[]): Unit {
  return units[units.length - 1] ?? unitOf("=");
}

function swapLast(units: readonly Unit[], gpc: Gpc): readonly Unit[] | undefined {
  return findCorrespondence(gpc) ? [...units.slice(0, -1), unitOf(gpc)] : undefined;
}

/** *make* → `m a k`: the final e is gone, the sounds are kept. Undefined when the word has no final e to drop. */
function withoutE(units: readonly Unit[]): readonly Unit[] | undefined {
  const split = units.length >= 2 ? units[units.length - 2] : undefined;
  if (split?.grapheme.endsWith("_e")) {
    const gpc = `${split.grapheme.charAt(0)}=${split.sound}`;
    return [...units.slice(0, -2), unitOf(gpc), last(units)];
  }
  const end = last(units);
  if (!end.grapheme.endsWith("e") || end.grapheme.length < 2) return undefined;
  const kept = end.grapheme.slice(0, -1);
  const gpc = `${kept}=${end.sound}`;
  if (end.gpc === "ere=ear" || end.gpc === "ere=air") return swapLast(units, `er=${end.sound}`);
  return findCorrespondence(gpc) || /r$/.test(kept) ? [...units.slice(0, -1), unitOf(gpc)] : undefined;
}

/** *run* → `r u nn`; *star* → `s t ar r`; undefined when the last letter is not doubled there. */
function doubled(units: readonly Unit[], letter: string): readonly Unit[] | undefined {
  const end = last(units);
  if (end.grapheme === letter) {
    if (letter === "c") return undefined;
    const gpc = `${letter}${letter}=${end.sound}`;
    return findCorrespondence(gpc) ? [...units.slice(0, -1), unitOf(gpc)] : undefined;
  }
  return letter === "r" && end.grapheme.endsWith("r") ? [...units, unitOf("r=r")] : undefined;
}

/** *happy* → `h a pp i`. */
function withI(units: readonly Unit[], grapheme = "i"): readonly Unit[] | undefined {
  const end = last(units);
  if (end.grapheme !== "y") return undefined;
  return [...units.slice(0, -1), unitOf(`${grapheme}=${end.sound}`)];
}

function pluralOf(units: readonly Unit[], afterE: boolean): Unit[] {
  const { sound } = last(units);
  if (hissing.has(sound)) return afterE ? spelled("s=iz") : [];
  return spelled(voiceless.has(sound) ? "s=s" : "s=z");
}

function pastOf(units: readonly Unit[], grapheme: "ed" | "d"): Unit[] {
  const { sound } = last(units);
  if (sound === "t" || sound === "d") return spelled(`${grapheme}=id`);
  return spelled(`${grapheme}=${voiceless.has(sound) ? "t" : "d"}`);
}

/** Endings that begin with a vowel: a final e before them is dropped, a last consonant may be doubled. */
const vowelEndings: Record<string, readonly Gpc[]> = {
  ing: ["i=i", "ng=ng"],
  ings: ["i=i", "ng=ng", "s=z"],
  er: ["er=schwa"],
  ers: ["er=schwa", "s=z"],
  est: ["e=e", "s=s", "t=t"],
  y: ["y=ee"],
  ish: ["i=i", "sh=sh"],
  able: ["a=schwa", "b=b", "le=l"],
};

/** Endings that begin with a consonant: the base stays as it is; only y turns to i. */
const consonantEndings: Record<string, readonly Gpc[]> = {
  ly: ["l=l", "y=ee"],
  ful: ["f=f", "u=schwa", "l=l"],
  less: ["l=l", "e=e", "ss=s"],
  ness: ["n=n", "e=e", "ss=s"],
  ment: ["m=m", "e=schwa", "n=n", "t=t"],
  some: ["s=s", "o_e=u", "m=m"],
};

const beginnings: Record<string, readonly Gpc[]> = {
  un: ["u=u", "n=n"],
  re: ["r=r", "e=ee"],
  dis: ["d=d", "i=i", "s=s"],
  mis: ["m=m", "i=i", "s=s"],
};

const apostrophes: Record<string, readonly Gpc[]> = {
  nt: ["n=n", "t=t"],
  ll: ["ll=l"],
  ve: ["ve=v"],
  d: ["d=d"],
  m: ["m=m"],
  re: ["re=schwa"],
};

/** Every way in which the small-letter text is a known word with an ending or a beginning, likeliest first. */
export function derivations(text: string, find: FindUnits): readonly Derivation[] {
  const found: Derivation[] = [];
  const after = (base: string, affix: string, stem: readonly Unit[] | undefined, added: readonly Unit[]) => {
    if (stem && added.length > 0)
      found.push({ base, affix, place: "after", units: [...stem, ...added], joint: stem.length });
  };
  const known = (base: string) => (base.length >= 2 && base !== text ? find(base) : undefined);
  plurals(text, known, after);
  pasts(text, known, after);
  for (const [ending, gpcs] of Object.entries(consonantEndings)) {
    if (!text.endsWith(ending)) continue;
    const stem = text.slice(0, -ending.length);
    const whole = known(stem);
    // The two l of *really* are one sound and so one unit, which belongs to the base.
    if (whole && ending === "ly" && stem.endsWith("l") && last(whole).gpc === "l=l")
      after(stem, ending, doubled(whole, "l"), spelled("y=ee"));
    else if (whole) after(stem, ending, whole, spelled(...gpcs));
    if (stem.endsWith("i")) {
      const base = known(`${stem.slice(0, -1)}y`);
      if (base) after(`${stem.slice(0, -1)}y`, ending, withI(base), spelled(...gpcs));
    }
    if (ending === "ly" && /[^aeiou]$/.test(stem)) {
      const base = known(`${stem}le`);
      if (base && last(base).gpc === "le=l") after(`${stem}le`, ending, base.slice(0, -1), spelled(...gpcs));
    }
  }
  for (const [ending, gpcs] of Object.entries(vowelEndings)) {
    if (!text.endsWith(ending)) continue;
    const stem = text.slice(0, -ending.length);
    const added = spelled(...gpcs);
    const whole = known(stem);
    if (whole && !/e$/.test(stem)) after(stem, ending, whole, added);
    const dropped = known(`${stem}e`);
    if (dropped) after(`${stem}e`, ending, withoutE(dropped), added);
    const single = stem.slice(0, -1);
    const letter = stem.slice(-1);
    if (letter !== "" && single.endsWith(letter)) {
      const base = known(single);
      if (base) after(single, ending, doubled(base, letter), added);
    }
    if (stem.endsWith("i")) {
      const base = known(`${stem.slice(0, -1)}y`);
      if (base) after(`${stem.slice(0, -1)}y`, ending, withI(base), added);
    }
    if (whole && /(ee|oe|ye|nge)$/.test(stem) && ending.startsWith("ing")) after(stem, ending, whole, added);
    if (stem.endsWith("ck")) {
      const base = known(stem.slice(0, -1));
      if (base && last(base).gpc === "c=k") after(stem.slice(0, -1), ending, swapLast(base, "ck=k"), added);
    }
  }
  for (const [beginning, gpcs] of Object.entries(beginnings)) {
    const rest = text.slice(beginning.length);
    const base = text.startsWith(beginning) && rest.length >= 3 ? find(rest) : undefined;
    if (base) {
      const added = spelled(...gpcs);
      found.push({ base: rest, affix: beginning, place: "before", units: [...added, ...base], joint: added.length });
    }
  }
  return found;
}

type Known = (base: string) => readonly Unit[] | undefined;
type After = (base: string, affix: string, stem: readonly Unit[] | undefined, added: readonly Unit[]) => void;

function plurals(text: string, known: Known, after: After): void {
  if (!text.endsWith("s") || text.endsWith("ss")) return;
  const stem = text.slice(0, -1);
  const whole = known(stem);
  if (whole) after(stem, "s", whole, pluralOf(whole, stem.endsWith("e")));
  if (!text.endsWith("es")) return;
  const short = text.slice(0, -2);
  const base = known(short);
  if (base) {
    if (hissing.has(last(base).sound)) after(short, "es", base, spelled("es=iz"));
    if (last(base).gpc === "o=oa") after(short, "es", swapLast(base, "oe=oa"), spelled("s=z"));
  }
  if (/zz|ss$/.test(short)) {
    const single = known(short.slice(0, -1));
    if (single) after(short.slice(0, -1), "es", doubled(single, short.slice(-1)), spelled("es=iz"));
  }
  if (short.endsWith("i")) {
    const y = known(`${short.slice(0, -1)}y`);
    if (y) after(`${short.slice(0, -1)}y`, "es", withI(y, "ie"), spelled("s=z"));
  }
  if (short.endsWith("v")) {
    const f = known(`${short.slice(0, -1)}f`);
    if (f) after(`${short.slice(0, -1)}f`, "es", swapLast(f, "ve=v"), spelled("s=z"));
    const fe = known(`${short.slice(0, -1)}fe`);
    if (fe && last(fe).gpc === "f=f") after(`${short.slice(0, -1)}fe`, "es", swapLast(fe, "v=v"), spelled("s=z"));
  }
}

function pasts(text: string, known: Known, after: After): void {
  if (!text.endsWith("ed")) return;
  const e = text.slice(0, -1);
  const withE = known(e);
  if (withE) after(e, "d", withE, pastOf(withE, "d"));
  const stem = text.slice(0, -2);
  const whole = known(stem);
  if (whole && !stem.endsWith("e")) after(stem, "ed", whole, pastOf(whole, "ed"));
  const letter = stem.slice(-1);
  if (stem.length > 2 && stem.slice(-2, -1) === letter) {
    const base = known(stem.slice(0, -1));
    if (base) after(stem.slice(0, -1), "ed", doubled(base, letter), pastOf(base, "ed"));
  }
  if (stem.endsWith("i")) {
    const y = known(`${stem.slice(0, -1)}y`);
    if (y) after(`${stem.slice(0, -1)}y`, "ed", withI(y), spelled("ed=d"));
  }
  if (stem.endsWith("ck")) {
    const base = known(stem.slice(0, -1));
    if (base && last(base).gpc === "c=k") after(stem.slice(0, -1), "ed", swapLast(base, "ck=k"), spelled("ed=t"));
  }
}

/** The part after an apostrophe (`nt` of *isn't*, `s` of *Sam's*) as units, given what stands before it. */
export function apostropheUnits(before: readonly Unit[], part: string): readonly Unit[] | undefined {
  if (part === "s") return hissing.has(last(before).sound) ? spelled("s=iz") : pluralOf(before, false);
  const gpcs = apostrophes[part];
  return gpcs ? spelled(...gpcs) : undefined;
}
