/**
 * Units of a school's own: letters of several correspondences that are taught as one (nk, str, ing, ake). Written as the
 * graphemes and the sounds of its parts, joined: `n+k=ng+k`, `s+t+r=s+t+r`, `a_e+k=ai+k`. They lie over the splits of words,
 * which stay as they are.
 */

const MOST_PARTS = 4;

/** True for a unit of a school's own, by how it is written; its parts need not be known. */
export function isOwnUnit(gpc: string): boolean {
  return gpc.includes("+");
}

/** The correspondences that a unit of a school's own is made of, left to right; of any other the one itself. */
export function partsOf(gpc: string): readonly string[] {
  if (!isOwnUnit(gpc)) return [gpc];
  const [graphemes = "", sounds = ""] = gpc.split("=");
  const its = sounds.split("+");
  return graphemes.split("+").map((grapheme, at) => `${grapheme}=${its[at] ?? ""}`);
}

/** The unit of these correspondences, left to right. @example ownUnitOf(["n=ng", "k=k"]) // "n+k=ng+k" */
export function ownUnitOf(parts: readonly string[]): string {
  const [graphemes, sounds] = [0, 1].map((half) => parts.map((part) => part.split("=")[half] ?? "").join("+"));
  return `${graphemes}=${sounds}`;
}

/** Letters of graphemes in writing order: a split digraph's e comes after the one that it closes over. */
export function joinLetters(graphemes: readonly string[]): string {
  let text = "";
  let closing = "";
  for (const grapheme of graphemes) {
    const split = grapheme.length > 2 && grapheme.charAt(1) === "_";
    text += (split ? grapheme.charAt(0) : grapheme) + closing;
    closing = split ? grapheme.slice(2) : "";
  }
  return text + closing;
}

/** The letters of a spelling without what marks its parts: `n+k` → `nk`, `a_e+k` → `ake`, `a_e` → `ae`. */
export function plainLetters(grapheme: string): string {
  return joinLetters(grapheme.split("+"));
}

/** What keeps these correspondences from being one unit, as a sentence; undefined when they can be. */
export function whyNoUnit(parts: readonly string[]): string | undefined {
  if (parts.length < 2) return "A unit of your own has two parts or more, for example n+k.";
  if (parts.length > MOST_PARTS) return `A unit of your own has at most ${MOST_PARTS} parts.`;
  if (/^._/.test(parts.at(-1) ?? "")) return "A final e needs the letter before it in the unit, for example a_e+k.";
  return undefined;
}

/** Beginnings, endings and rimes that schools teach as one, each with a word that has it. Written by hand for this tool. */
const offered = `
b+l blanket, b+r bring, c+l clock, c+r crown, d+r drift, f+l flute, f+r frost, g+l glove, g+r grape, p+l plate, p+r press
s+c scarf, s+k skip, s+l slope, s+m smile, s+n snail, s+p spade, s+t storm, s+w sweep, t+r track, t+w twist
s+c+r scratch, s+p+l splash, s+p+r sprout, s+t+r stripe, sh+r shrink, th+r throat, s+qu squeeze
n=ng+k tank, n+d sand, n+t mint, n+ch lunch, m+p stamp, l+k silk, l+t melt, l+p gulp, l+d shield, l+f elf, f+t lift
c+t insect, p+t slept, x+t text
i+ng swing, a+ng fang, o+ng strong, u+ng lung, i+n=ng+k pink, a+n=ng+k bank, u+n=ng+k trunk, o+n=ng+k honk
i+ll chill, e+ll shell, u+ll gull, a=or+ll small, a+ck stack, e+ck peck, i+ck stick, o+ck sock, u+ck truck
o=oa+l+d gold, i=igh+n+d blind, i=igh+l+d child, o=oa+s+t post, igh+t night
a_e+k snake, a_e+t skate, a_e+m flame, i_e+d slide, i_e+n shine, o_e+n bone, o_e+k smoke
`;

/** An entry of the list: its parts as they are typed, and its word. */
export interface OfferedUnit {
  readonly typed: string;
  readonly keyword: string;
}

/** The units that are understood from their letters alone. */
export const offeredUnits: readonly OfferedUnit[] = offered
  .trim()
  .split(/,\s*|\n/)
  .map((row) => {
    const [typed = "", keyword = ""] = row.split(" ");
    return { typed, keyword };
  });
