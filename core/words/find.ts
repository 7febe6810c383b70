import { type Gpc, isOwnUnit, partsOf, withImplied } from "#core/phonics";
import { knownBys, type Lexicon, type Word } from "./lexicon.ts";
import { ownUnitsIn, placesIn } from "./own-units.ts";
import { countSyllables, shapeOf, syllableStarts } from "./shape.ts";
import type { Unit } from "./units.ts";

export type Place = "start" | "middle" | "end";
export const places: readonly Place[] = ["start", "middle", "end"];

export interface FindWanted {
  readonly lexicon: Lexicon;
  /** What the children can read. */
  readonly known: ReadonlySet<Gpc>;
  /** A spelling that every word must have; it need not be known. */
  readonly target?: Gpc | undefined;
  /** Where the target stands; `balanced` takes start, middle and end in turn as far as words allow. */
  readonly place?: Place | "balanced" | undefined;
  /** Word shapes such as `CVC` or `CCVC`. */
  readonly shape?: string | readonly string[] | undefined;
  /** Number of syllables, or the least and the most. */
  readonly syllables?: number | readonly [number, number] | undefined;
  /** The rarest band that is still wanted, 1 (commonest) to 5. */
  readonly band?: number | undefined;
  /** Spellings to set against the target: words have one of them or the target, never two, taken in turn. */
  readonly contrast?: readonly Gpc[] | undefined;
  /** Words or spellings (`ea=e`) that must not come up. */
  readonly avoid?: readonly string[] | undefined;
  /** At most this many; everything that fits when left out. */
  readonly count?: number | undefined;
  /** A whole number; the same seed gives the same words. */
  readonly seed?: number | undefined;
}

/** Everything about a word that a search asks, worked out once a lexicon. */
interface Facts {
  readonly word: Word;
  readonly syllables: number;
  /** A small number that stands for how easy a word is to take up: short and common first. */
  readonly ease: number;
}

interface Index {
  readonly facts: readonly Facts[];
  /** Units of all words one after the other, as numbers, and where each word begins. */
  readonly codes: Uint16Array;
  readonly begins: Uint32Array;
  readonly codeOf: ReadonlyMap<Gpc, number>;
}

/** *offers* comes after *offer* and its like: a list of many words is better than a list of many forms. */
const FORM_OF_ANOTHER = 2;

const indexes = new WeakMap<Lexicon, Index>();

/** Words with a capital or an apostrophe are taught on their own and are left out of lists. */
const PLAIN = /^[a-z]+$/;

function indexOf(lexicon: Lexicon): Index {
  const known = indexes.get(lexicon);
  if (known) return known;
  const words = lexicon.words.filter((word) => PLAIN.test(word.text) && word.text.length > 1);
  const codeOf = new Map<Gpc, number>();
  const begins = new Uint32Array(words.length + 1);
  const codes: number[] = [];
  const facts = words.map((word, at): Facts => {
    begins[at] = codes.length;
    for (const { gpc } of word.units) {
      let code = codeOf.get(gpc);
      if (code === undefined) {
        code = codeOf.size;
        codeOf.set(gpc, code);
      }
      codes.push(code);
    }
    const syllables = countSyllables(word.units);
    const built = word.joints.length > 0 ? FORM_OF_ANOTHER : 0;
    const late = knownBys.indexOf(word.knownBy);
    return { word, syllables, ease: Math.max(3, word.units.length) + word.band + built + late };
  });
  begins[words.length] = codes.length;
  const index = { facts, codes: Uint16Array.from(codes), begins, codeOf };
  indexes.set(lexicon, index);
  return index;
}

/** Where in the word the correspondence stands first; undefined when the word does not have it. */
export function placeOf(units: readonly Unit[], gpc: Gpc): Place | undefined {
  const [at] = placesIn(
    units.map((unit) => unit.gpc),
    gpc,
  );
  if (at === undefined) return undefined;
  if (at === 0) return "start";
  return at + partsOf(gpc).length === units.length ? "end" : "middle";
}

/**
 * Words of the whole lexicon that obey every wish, easiest and commonest first with chance among equals. Fewer than
 * `count` come back when there are no more. Never throws: wishes that no word fulfils give an empty list.
 */
export function findWords(wanted: FindWanted): readonly Word[] {
  const { lexicon, known, target, contrast = [], avoid = [], seed = 0 } = wanted;
  const index = indexOf(lexicon);
  const wished = target === undefined ? contrast : [target, ...contrast];
  const codes = wished.map((gpc) => index.codeOf.get(gpc) ?? -1);
  const readable = new Uint8Array(index.codeOf.size);
  const reads = withImplied([...known, ...wished]);
  for (const gpc of reads) readable[index.codeOf.get(gpc) ?? -1] = 1;
  const avoidWords = new Set<string>();
  for (const text of avoid) {
    if (text.includes("=")) readable[index.codeOf.get(text) ?? -1] = 0;
    else avoidWords.add(text.toLowerCase());
  }
  const ofOwnUnits = ownUnitSearch(index, { reads, wished, avoid });
  const { codes: all, begins } = index;
  const found: { facts: Facts; has: number; rank: number }[] = [];
  let state = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) >>> 0;
  for (let at = 0; at < index.facts.length; at++) {
    const from = begins[at] ?? 0;
    const to = begins[at + 1] ?? 0;
    let has = -1;
    let fits = true;
    if (ofOwnUnits) {
      has = ofOwnUnits(from, to, readable);
      fits = has !== UNFIT;
    }
    for (let i = from; i < to && fits && !ofOwnUnits; i++) {
      const code = all[i] ?? 0;
      if (readable[code] !== 1) fits = false;
      else if (codes.length > 0) {
        const which = codes.indexOf(code);
        if (which >= 0 && has >= 0 && which !== has) fits = false;
        else if (which >= 0) has = which;
      }
    }
    const facts = index.facts[at];
    if (!fits || !facts || (codes.length > 0 && has < 0) || !obeys(facts, wanted) || avoidWords.has(facts.word.text))
      continue;
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    found.push({ facts, has, rank: facts.ease + state / 2 ** 32 });
  }
  const turns = wished.length > 1 || wanted.place === "balanced";
  const easiest = turns || wanted.count === undefined ? found : lowest(found, wanted.count);
  easiest.sort((one, other) => one.rank - other.rank);
  return inTurn(easiest, wished, wanted).map((one) => one.facts.word);
}

const UNFIT = -2;

/**
 * What a search asks of a word where units of a school's own are known, wished for or to be avoided: which wish it fulfils, -1 for
 * none, `UNFIT` for a word that cannot be read, or has two wishes. Undefined where there are none.
 */
function ownUnitSearch(
  { codes: all, codeOf }: Index,
  of: { readonly reads: ReadonlySet<Gpc>; readonly wished: readonly Gpc[]; readonly avoid: readonly string[] },
): ((from: number, to: number, readable: Uint8Array) => number) | undefined {
  const sequence = (gpc: Gpc) => partsOf(gpc).map((part) => codeOf.get(part) ?? -1);
  const units = ownUnitsIn(of.reads).map(sequence);
  const avoided = of.avoid.filter((text) => text.includes("=")).map(sequence);
  if (units.length === 0 && !of.avoid.some(isOwnUnit)) return undefined;
  const wishes = of.wished.map(sequence);
  const placesOf = (codes: readonly number[], from: number, to: number) => {
    const found: number[] = [];
    for (let at = from; at + codes.length <= to; at++)
      if (codes.every((code, place) => all[at + place] === code)) found.push(at);
    return found;
  };
  return (from, to, readable) => {
    if (avoided.some((codes) => placesOf(codes, from, to).length > 0)) return UNFIT;
    const covered = new Set<number>();
    for (const codes of units)
      for (const at of placesOf(codes, from, to)) for (const place of codes.keys()) covered.add(at + place);
    for (let at = from; at < to; at++) if (readable[all[at] ?? 0] !== 1 && !covered.has(at)) return UNFIT;
    const fulfilled = wishes.flatMap((codes, which) => (placesOf(codes, from, to).length > 0 ? [which] : []));
    return fulfilled.length > 1 ? UNFIT : (fulfilled[0] ?? -1);
  };
}

const shapes = new WeakMap<Word, string>();

/** The shape of a listed word, worked out when it is first asked for. */
function shapeOfWord(word: Word): string {
  const known = shapes.get(word);
  if (known !== undefined) return known;
  const shape = shapeOf(word.units, syllableStarts(word.units, word.stressed, word.joints));
  shapes.set(word, shape);
  return shape;
}

function obeys({ word, syllables }: Facts, wanted: FindWanted): boolean {
  if (wanted.band !== undefined && word.band > wanted.band) return false;
  if (wanted.syllables !== undefined) {
    const [least, most] =
      typeof wanted.syllables === "number" ? [wanted.syllables, wanted.syllables] : wanted.syllables;
    if (syllables < least || syllables > most) return false;
  }
  if (wanted.place !== undefined && wanted.place !== "balanced" && wanted.target !== undefined) {
    const gpcs = [wanted.target, ...(wanted.contrast ?? [])];
    if (!gpcs.some((gpc) => placeOf(word.units, gpc) === wanted.place)) return false;
  }
  if (wanted.shape === undefined) return true;
  const shape = shapeOfWord(word);
  return typeof wanted.shape === "string" ? wanted.shape === shape : wanted.shape.includes(shape);
}

/** The hits of lowest rank, not yet in order: sorting numbers alone is much faster than sorting everything. */
function lowest(found: Hit[], count: number): Hit[] {
  if (found.length <= count * 2) return found;
  const ranks = Float64Array.from(found, (hit) => hit.rank).sort();
  const limit = ranks[Math.max(0, count - 1)] ?? 0;
  return count === 0 ? [] : found.filter((hit) => hit.rank <= limit);
}

type Hit = { facts: Facts; has: number; rank: number };

/** Takes words in turn from each place and each contrasted spelling, so that none of them crowds out the others. */
function inTurn(found: readonly Hit[], wished: readonly Gpc[], wanted: FindWanted): readonly Hit[] {
  const most = wanted.count ?? found.length;
  const byPlace = wanted.place === "balanced" && wished.length > 0;
  if (!byPlace && wished.length < 2) return found.slice(0, most);
  const piles = new Map<string, Hit[]>();
  for (const hit of found) {
    const place = byPlace ? placeOf(hit.facts.word.units, wished[hit.has] ?? "") : "";
    const key = `${place}|${hit.has}`;
    const pile = piles.get(key);
    if (pile) pile.push(hit);
    else piles.set(key, [hit]);
  }
  const order = places.flatMap((place) => wished.map((_, has) => piles.get(`${byPlace ? place : ""}|${has}`) ?? []));
  const distinct = [...new Set(order)];
  const taken: Hit[] = [];
  for (let round = 0; taken.length < most; round++) {
    const row = distinct.flatMap((pile) => pile[round] ?? []);
    if (row.length === 0) break;
    taken.push(...row.slice(0, most - taken.length));
  }
  return taken;
}
