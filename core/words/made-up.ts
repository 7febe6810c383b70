import { type Gpc, withImplied } from "#core/phonics";
import { dice, shuffled } from "./chance.ts";
import { readEntry } from "./lexicon.ts";
import { holds, unread } from "./own-units.ts";
import { shapeOf, syllableStarts } from "./shape.ts";
import { spellOut, type Unit, unitOf } from "./units.ts";

/** A word that is none: to be sounded out, never known by sight. */
export interface MadeUp {
  readonly text: string;
  readonly units: readonly Unit[];
  readonly shape: string;
}

/** The letters of English words keep habits: ck, ll, ff, ss, zz, tch, dge end short words, j and v end none. */
const onsets =
  "b d f h j l m n p r s t v w z y=y sh ch th c g k qu b+l b+r c+l c+r d+r f+l f+r g+l g+r p+l p+r s+c s+k s+l s+m s+n s+p s+t s+w t+r t+w s+p+l s+p+r s+t+r s+c+r th+r sh+r";
const shortVowels = "a e i o u";
const shortCodas =
  "b d g m n p t x ck ll ff ss zz sh th tch dge ng n=ng+k n+t n+d m+p s+t s+k s+p l+t l+p l+k f+t p+t l+d l+f l+m l+b n+ch p+s c+t";
/** Vowels of several letters with what may follow them; an empty place is the end of the word. */
const longRows = `
ai: n l d m t n+t
ay: -
ee: b d k l m n p t ch
ea: b d k l m n p t ch
igh: t -
oa: b d f k l m n p t ch
oo: b d f l m n p t th
ar: b d f k l m n p t ch sh
or: b d k m n p t ch
ir: b d k l m n p t
ur: b d f k l m n p t
ou: d n+d n+t t ch
ow=ow: n l -
oi: b d k l m n t
oy: -
aw: b d k l n p -
air: -
ear: -
ew=yoo: -
a_e: b d f k l m n p t z v
i_e: b d f k l m n p t z v
o_e: b d k l m n p t z
e_e: n p
`;

const soft = /^[eiy]/;

function fits(onset: string, vowel: string, coda: string): boolean {
  const first = onset.split("+").at(-1) ?? "";
  const letter = vowel.charAt(0);
  if (first === "c" && soft.test(letter)) return false;
  if (first === "k" && !soft.test(letter)) return false;
  if (first === "g" && soft.test(letter)) return false;
  if ((first === "w" || first === "qu") && /^(a|o|ar|or|u)$/.test(vowel)) return false;
  if (first === "qu" && /^[uo]/.test(vowel)) return false;
  if (/^(ew)/.test(vowel) && /[lrj]$|ch$|sh$/.test(first)) return false;
  if (vowel === "a" && /^l/.test(coda) && !/^l\+[pmbf]/.test(coda)) return false;
  if (vowel === "i" && /^(l\+d|n\+d)/.test(coda)) return false;
  if (vowel === "o" && /^(l|s\+t|th|ss|ng)/.test(coda)) return false;
  if (vowel === "u" && /^(ll|sh|l\+)/.test(coda)) return false;
  return !(onset.includes("+") && coda.split("+").length > 1 && onset.split("+").length > 2);
}

function unitsOf(...parts: readonly string[]): readonly Unit[] {
  return parts
    .filter((part) => part !== "" && part !== "-")
    .flatMap((part) => part.split("+"))
    .map((piece) => readEntry(piece).units[0] ?? unitOf(`${piece}=`));
}

/**
 * Every made-up word of one syllable that the table above allows, and a share of those with two. They are candidates:
 * whether one is a real word, sounds like one or is unfit is checked against the open dictionary when data is built.
 */
export function candidates(seed: number): readonly (readonly Unit[])[] {
  const found: (readonly Unit[])[] = [];
  const begin = ["", ...onsets.split(" ")];
  const codas = shortCodas.split(" ");
  for (const onset of begin) {
    for (const vowel of shortVowels.split(" "))
      for (const coda of codas) if (fits(onset, vowel, coda)) found.push(unitsOf(onset, vowel, coda));
    for (const row of longRows.trim().split("\n")) {
      const [vowel = "", ends = ""] = row.split(": ");
      for (const coda of ends.split(" ")) if (fits(onset, vowel, coda)) found.push(unitsOf(onset, vowel, coda));
    }
  }
  return [...found, ...longer(seed)];
}

/** Two closed syllables (*dabnip*), a doubled consonant with a weak ending (*bopper*), and *le* (*miffle*). */
function longer(seed: number): readonly (readonly Unit[])[] {
  const random = dice(seed);
  const single = "b d f l m n p r s t v".split(" ");
  const vowels = shortVowels.split(" ");
  const pick = (list: readonly string[]) => list[random.pick(list.length)] ?? "";
  const double = ["bb", "dd", "ff", "gg", "mm", "nn", "pp", "tt", "zz"];
  const made: (readonly Unit[])[] = [];
  for (let i = 0; i < 6000; i++) {
    const [onset, vowel, second] = [pick(single), pick(vowels), pick(vowels)];
    const ends = pick(["b", "d", "g", "m", "n", "p", "t", "ck", "sh"]);
    if (i % 3 === 0)
      made.push(
        unitsOf(onset, vowel, pick(["b", "d", "g", "m", "n", "p", "t", "l", "x"]), pick(single), second, ends),
      );
    else if (i % 3 === 1) made.push(unitsOf(onset, vowel, pick(double), "er=schwa"));
    else
      made.push(
        unitsOf(
          pick([...single, "s+n", "g+r", "b+l", "t+r", "f+l"]),
          vowel,
          pick([...double, "m+b", "m+p", "n+d", "ck"]),
          "le",
        ),
      );
  }
  return made;
}

/** Reads the file of made-up words that ships: one a line, in the lexicon's notation. */
export function readMadeUp(text: string): readonly MadeUp[] {
  return text
    .split("\n")
    .filter((line) => line !== "" && line[0] !== "#")
    .map((line) => {
      const { units } = readEntry(line);
      return { text: spellOut(units), units, shape: shapeOf(units, syllableStarts(units)) };
    });
}

export interface MadeUpWanted {
  readonly madeUp: readonly MadeUp[];
  readonly known: ReadonlySet<Gpc>;
  /** A spelling that every word must have. */
  readonly target?: Gpc | undefined;
  readonly shape?: string | readonly string[] | undefined;
  readonly avoid?: readonly string[] | undefined;
  readonly count: number;
  readonly seed: number;
}

/** Made-up words that these children can sound out, short ones first; fewer than asked when there are no more. */
export function findMadeUp({
  madeUp,
  known,
  target,
  shape,
  avoid = [],
  count,
  seed,
}: MadeUpWanted): readonly MadeUp[] {
  const readable = withImplied(target === undefined ? known : [...known, target]);
  const not = new Set(avoid.map((text) => text.toLowerCase()));
  const fitting = madeUp.filter(
    (word) =>
      !not.has(word.text) &&
      (shape === undefined || (typeof shape === "string" ? shape === word.shape : shape.includes(word.shape))) &&
      (target === undefined || holds(word.units, target)) &&
      unread(
        word.units.map((unit) => unit.gpc),
        readable,
      ).length === 0,
  );
  return shuffled(fitting, dice(seed))
    .sort((one, other) => Math.max(3, one.units.length) - Math.max(3, other.units.length))
    .slice(0, count);
}
