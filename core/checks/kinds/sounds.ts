import { findCorrespondence, type Gpc, splitGpc, usualGpc, WEAK } from "#core/phonics";
import { type Lexicon, readWordItem, wordItem } from "#core/words";
import type { SeveralSounds } from "../settings.ts";
import { type AskedLetters, type Faces, noFaces } from "./faces.ts";

interface FacesWanted {
  readonly way: SeveralSounds;
  readonly taught: readonly Gpc[];
  readonly lexicon: Lexicon;
}

/**
 * The items as cards with one face each: where any taught sound will do, or all of them are asked for, a spelling stands once,
 * with its usual sound, and its others beside it; else each stands for itself, in a word that shows which is meant.
 */
export function withFaces(
  items: readonly Gpc[],
  { way, taught, lexicon }: FacesWanted,
): { readonly items: readonly Gpc[]; readonly faces: Faces } {
  const byFace = new Map<string, Set<Gpc>>();
  for (const gpc of [...taught, ...items]) {
    const { grapheme, sound } = splitGpc(gpc);
    if (sound !== WEAK) byFace.set(grapheme, (byFace.get(grapheme) ?? new Set()).add(gpc));
  }
  const of = (gpc: Gpc) => [...(byFace.get(splitGpc(gpc).grapheme) ?? [gpc])];
  const several = (gpc: Gpc) => of(gpc).length > 1;
  const isWeak = (gpc: Gpc) => splitGpc(gpc).sound === WEAK;
  const wordsFor = (gpcs: readonly Gpc[]) =>
    Object.fromEntries(
      gpcs.flatMap((gpc) => {
        const word = wordFor(gpc, lexicon);
        return word === undefined ? [] : [[gpc, word] as const];
      }),
    );
  if (way === "word")
    return { items, faces: { ...noFaces, inWord: wordsFor(items.filter((gpc) => several(gpc) || isWeak(gpc))) } };
  const seen = new Set<string>();
  const cards = items.flatMap((gpc) => {
    const { grapheme } = splitGpc(gpc);
    if (isWeak(gpc)) return [gpc];
    if (seen.has(grapheme)) return [];
    seen.add(grapheme);
    const all = of(gpc);
    const usual = usualGpc(grapheme);
    return [usual !== undefined && all.includes(usual) ? usual : gpc];
  });
  const also = cards
    .filter((gpc) => several(gpc) && !isWeak(gpc))
    .map((gpc) => [gpc, of(gpc).filter((other) => other !== gpc)] as const);
  return { items: cards, faces: { way, also: Object.fromEntries(also), inWord: wordsFor(cards.filter(isWeak)) } };
}

/** The items with one for each sound, its first spelling in teaching order, and the other taught ones beside it. */
export function withWays(
  items: readonly Gpc[],
  taught: readonly Gpc[],
): { readonly items: readonly Gpc[]; readonly faces: Faces } {
  const bySound = new Map<string, Set<Gpc>>();
  for (const gpc of [...taught, ...items]) {
    const { sound } = splitGpc(gpc);
    bySound.set(sound, (bySound.get(sound) ?? new Set()).add(gpc));
  }
  const ways = [...new Set(items.map((gpc) => splitGpc(gpc).sound))].map((sound) => [...(bySound.get(sound) ?? [])]);
  const also = ways.flatMap(([first, ...others]) => (first && others.length > 0 ? [[first, others] as const] : []));
  return {
    items: ways.flatMap(([first]) => first ?? []),
    faces: { way: "all", also: Object.fromEntries(also), inWord: {} },
  };
}

/** A word by its letters, with those that spell this correspondence marked out. */
export function lettersAsked(word: string, gpc: Gpc): readonly AskedLetters[] {
  const { units } = readWordItem(word);
  const asked = units.findIndex((unit) => unit.gpc === gpc);
  const letters: AskedLetters[] = [];
  let closing: AskedLetters | undefined;
  for (const [at, { grapheme }] of units.entries()) {
    const [opening = "", late] = grapheme.split("_");
    const isAsked = at === asked;
    const isUnder = closing?.as === "close";
    letters.push({ text: opening, as: isAsked ? (late ? "open" : "asked") : isUnder ? "under" : "other" });
    if (closing) letters.push(closing);
    closing = late ? { text: late, as: isAsked ? "close" : "other" } : undefined;
  }
  return closing ? [...letters, closing] : letters;
}

/** The keyword of a spelling, as a word in its units; undefined where the words do not split it so. */
function wordFor(gpc: Gpc, lexicon: Lexicon): string | undefined {
  const found = lexicon.find(findCorrespondence(gpc)?.keyword ?? "");
  const word = found.find(({ units }) => units.some((unit) => unit.gpc === gpc));
  return word && wordItem(word);
}
