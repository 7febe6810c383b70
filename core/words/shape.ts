import { isVowel } from "#core/phonics";
import { positionsOf, type Unit } from "./units.ts";

/** True for a unit that a syllable is built on: a vowel, *le* after a consonant, the *ed* of *landed*, the *es* of *boxes*. */
export function isNucleus(units: readonly Unit[], at: number): boolean {
  const unit = units[at];
  if (!unit) return false;
  if (isVowel(unit.sound) || unit.sound === "id" || unit.sound === "iz" || unit.sound === "wu") return true;
  return unit.gpc === "le=l" && at > 0 && !isVowel(units[at - 1]?.sound ?? "");
}

/** How many vowels are heard in a word's units, which is how many syllables it has. */
export function countSyllables(units: readonly Unit[]): number {
  let count = 0;
  for (let at = 0; at < units.length; at++) if (isNucleus(units, at)) count++;
  return count;
}

/**
 * Consonants and vowels of a word by its sounds, one letter a unit: *ship* CVC, *strap* CCCVC, *rabbit* CV.CVC with
 * a dot between syllables. A joint pair such as x or qu is one C.
 */
export function shapeOf(units: readonly Unit[], starts: readonly number[] = syllableStarts(units)): string {
  const breaks = new Set(starts.slice(1));
  return units.map((unit, at) => `${breaks.has(at) ? "." : ""}${letterOf(units, unit, at)}`).join("");
}

function letterOf(units: readonly Unit[], unit: Unit, at: number): string {
  if (unit.sound === "id" || unit.sound === "iz") return "VC";
  return isNucleus(units, at) ? "V" : "C";
}

/** Consonants that may open a syllable together, by their sounds. */
const onsets = new Set(
  (
    "b l|b r|k l|k r|k w|d r|d w|f l|f r|g l|g r|p l|p r|s k|s l|s m|s n|s p|s t|s w|sh r|t r|t w|th r|s p l|s p r|" +
    "s t r|s k r|s kw|s k l|b y|k y|f y|m y"
  ).split("|"),
);
const short = new Set(["a", "e", "i", "o", "u", "uu"]);

/**
 * The unit at which each syllable begins; the first is 0. Joints of the word (base and ending, two words in one) and
 * the usual rules decide: a stressed short vowel keeps one consonant (*riv-er*), a long one lets it go (*ti-ger*).
 */
export function syllableStarts(
  units: readonly Unit[],
  stressed = -1,
  joints: readonly number[] = [],
): readonly number[] {
  const nuclei = units.flatMap((_, at) => (isNucleus(units, at) ? [at] : []));
  const starts = [0];
  for (let i = 1; i < nuclei.length; i++) {
    const [from, to] = [nuclei[i - 1] ?? 0, nuclei[i] ?? 0];
    starts.push(breakBetween(units, { from, to, stressed, joints }));
  }
  return nuclei.length === 0 ? [0] : starts;
}

interface Gap {
  readonly from: number;
  readonly to: number;
  readonly stressed: number;
  readonly joints: readonly number[];
}

function breakBetween(units: readonly Unit[], gap: Gap): number {
  const cut = wishedBreak(units, gap);
  // The consonant that a split digraph closes over stays with it.
  return units[gap.from]?.grapheme.includes("_") ? Math.min(gap.to, Math.max(cut, gap.from + 2)) : cut;
}

function wishedBreak(units: readonly Unit[], { from, to, stressed, joints }: Gap): number {
  const between = units.slice(from + 1, to);
  const joint = joints.find((at) => at > from && at <= to);
  if (joint !== undefined) return joint;
  if (between.length === 0) return to;
  if (units[to]?.gpc === "le=l") return doubledLetter(between[between.length - 1]) ? to : to - 1;
  if (between.length === 1) {
    const only = between[0];
    if (doubledLetter(only) || only?.grapheme === "ck" || only?.grapheme === "x" || only?.grapheme === "ng")
      return to;
    const before = units[from];
    return before !== undefined && short.has(before.sound) && (stressed === from || stressed < 0) ? to : from + 1;
  }
  for (let cut = from + 1; cut < to; cut++) {
    const onset = units.slice(cut, to).map((unit) => unit.sound);
    const keeps = cut > from + 1 || !short.has(units[from]?.sound ?? "");
    if (keeps && (onset.length === 1 || onsets.has(onset.join(" ")))) return cut;
  }
  return to - 1;
}

function doubledLetter(unit: Unit | undefined): boolean {
  return unit !== undefined && /^([b-df-hj-np-tv-z])\1$/.test(unit.grapheme);
}

/**
 * The letters of each syllable. A doubled letter is shared between its two (*rab-bit*); the e of a split digraph
 * stays with its own syllable.
 */
export function syllablesOf(text: string, units: readonly Unit[], starts: readonly number[]): readonly string[] {
  const letters = [...text];
  const places = positionsOf(units);
  const home = new Array<number>(letters.length).fill(0);
  units.forEach((unit, at) => {
    let syllable = 0;
    for (let i = 1; i < starts.length; i++) if ((starts[i] ?? 0) <= at) syllable = i;
    const here = places[at] ?? [];
    for (const place of here) home[place] = syllable;
    const next = starts.indexOf(at + 1);
    if (next > 0 && doubledLetter(unit) && here.length === 2) home[here[1] ?? 0] = next;
  });
  const found: string[] = starts.map(() => "");
  letters.forEach((letter, at) => {
    const syllable = home[at] ?? 0;
    found[syllable] = (found[syllable] ?? "") + letter;
  });
  return found.filter((part) => part !== "");
}
