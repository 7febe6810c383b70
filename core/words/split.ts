import { type Accent, accentOf } from "#core/phonics";
import { apostropheUnits, derivations } from "./derive.ts";
import { Kept } from "./kept.ts";
import { keyOf, type Lexicon, type Word } from "./lexicon.ts";
import { readByRule } from "./rules.ts";
import { shapeOf, syllableStarts, syllablesOf } from "./shape.ts";
import { positionsOf, spellOut, type Unit, unitOf } from "./units.ts";

/** Where a reading comes from, surest first. */
export type Source = "corrected" | "lexicon" | "derived" | "compound" | "rules";

export interface PlacedUnit extends Unit {
  /** Positions of its letters in the word as it was given, counted from 0; a split digraph has two apart. */
  readonly at: readonly number[];
}

export interface Morphemes {
  /** The word without its beginnings and endings: *make* for *making*. */
  readonly base: string;
  readonly beginnings: readonly string[];
  readonly endings: readonly string[];
  /** The parts of a compound: *rain*, *bow*; a word that is none is its own only part. */
  readonly parts: readonly string[];
}

export interface WordSplit {
  readonly units: readonly PlacedUnit[];
  /** Index of the unit with the main stress; -1 where it is not known or there is one syllable only. */
  readonly stressed: number;
  /** The letters of each syllable. */
  readonly syllables: readonly string[];
  readonly morphemes: Morphemes;
  /** Consonants and vowels by syllable: `CVC`, `CCVCC`, `CVC.CVC`. */
  readonly shape: string;
  readonly source: Source;
  /** 0 to 1. Lexicon 1, derived 0.95, compound 0.9, rules less. */
  readonly confidence: number;
}

export interface SplitWanted {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
}

interface Found {
  readonly units: readonly Unit[];
  readonly stressed: number;
  readonly joints: readonly number[];
  readonly source: Source;
  readonly confidence: number;
}

/** Longer strings are no words: they are taken letter by letter, so that no paste can hold the machine. */
const MOST_LETTERS = 60;

/**
 * The readings of a word, commonest first, never fewer than one. Any text is taken: capitals, accented letters,
 * apostrophes and hyphens are read through; digits and signs are units without a sound. Never throws.
 * @example split("smiled", { lexicon })[0].units.map((unit) => unit.gpc) // s=s m=m i_e=igh l=l d=d
 */
export function split(word: string, { lexicon, accent = accentOf(undefined) }: SplitWanted): readonly WordSplit[] {
  return keptOf(lexicon).of(`${accent.bath}${word}`, () => splitAnew(word, lexicon, accent));
}

/** Words come again and again in a text and while it is typed: their readings are kept a lexicon, up to a limit. */
const MOST_KEPT = 20_000;
const keptReadings = new WeakMap<Lexicon, Kept<string, readonly WordSplit[]>>();

function keptOf(lexicon: Lexicon): Kept<string, readonly WordSplit[]> {
  const known = keptReadings.get(lexicon);
  if (known) return known;
  const made = new Kept<string, readonly WordSplit[]>(MOST_KEPT);
  keptReadings.set(lexicon, made);
  return made;
}

function splitAnew(word: string, lexicon: Lexicon, accent: Accent): readonly WordSplit[] {
  const { letters, places } = lettersOf(word);
  const found = readingsOf(letters, lexicon);
  return found.map((one) => new LateReading(one, { letters, places, accent, lexicon }));
}

/** The word in small plain letters, and where each of them stood. */
function lettersOf(word: string): { letters: string; places: readonly number[] | undefined } {
  if (/^[A-Za-z'-]*$/.test(word)) return { letters: word.toLowerCase(), places: undefined };
  const places: number[] = [];
  let letters = "";
  let at = 0;
  for (const character of word) {
    const plain = keyOf(character.normalize("NFD").replace(/\p{M}+/gu, ""));
    for (const letter of plain) {
      letters += letter;
      places.push(at);
    }
    at += character.length;
  }
  return { letters, places };
}

function readingsOf(letters: string, lexicon: Lexicon): readonly Found[] {
  const listed = lexicon.find(letters).map(fromWord);
  if (listed.length > 0) return listed;
  if (/^[a-z]+$/.test(letters)) return readPlain(letters, lexicon);
  return [readPieces(letters, lexicon)];
}

function fromWord(word: Word): Found {
  const { units, stressed, joints, corrected } = word;
  return { units, stressed, joints, source: corrected ? "corrected" : "lexicon", confidence: 1 };
}

/** A word of letters only that the lexicon does not have: an ending on a known word, two words in one, or by rule. */
function readPlain(letters: string, lexicon: Lexicon): readonly Found[] {
  const derived = deriveKnown(letters, lexicon, 2);
  if (derived) return [derived];
  const compound = joinKnown(letters, lexicon);
  if (compound) return [compound];
  if (letters.length > MOST_LETTERS) return [letterByLetter(letters)];
  const byRule = readByRule(letters, lexicon);
  if (byRule.length === 0) return [letterByLetter(letters)];
  return byRule.map(({ units, confidence }) => ({
    units,
    stressed: -1,
    joints: [],
    source: "rules" as const,
    confidence: Math.min(0.85, confidence),
  }));
}

function letterByLetter(letters: string): Found {
  const units = [...letters].map((letter) => unitOf(`${letter}=`));
  return { units, stressed: -1, joints: [], source: "rules", confidence: 0 };
}

function deriveKnown(letters: string, lexicon: Lexicon, depth: number): Found | undefined {
  const bases = new Map<string, Found>();
  const find = (base: string): readonly Unit[] | undefined => {
    const word = lexicon.find(base)[0];
    const found = word ? fromWord(word) : depth > 1 ? deriveKnown(base, lexicon, depth - 1) : undefined;
    if (found) bases.set(base, found);
    return found?.units;
  };
  const best = derivations(letters, find).find(({ base }) => base.length >= 3);
  if (!best) return undefined;
  const base = bases.get(best.base);
  const shift = best.place === "before" ? best.joint : 0;
  return {
    units: best.units,
    stressed: base && base.stressed >= 0 ? base.stressed + shift : -1,
    joints: [...(base?.joints ?? []).map((at) => at + shift), best.joint],
    source: "derived",
    confidence: 0.95,
  };
}

/** Both parts must be common or long enough that their meeting is no accident. */
function joinKnown(letters: string, lexicon: Lexicon): Found | undefined {
  let best: { found: Found; score: number } | undefined;
  for (let cut = 3; cut <= letters.length - 3; cut++) {
    const one = lexicon.find(letters.slice(0, cut))[0];
    const other = lexicon.find(letters.slice(cut))[0] ?? undefined;
    if (!one || !other) continue;
    const score = Math.min(one.text.length, other.text.length) * 2 - one.band - other.band;
    if (score < 0 || (best && best.score >= score)) continue;
    const shift = one.units.length;
    best = {
      score,
      found: {
        units: [...one.units, ...other.units],
        stressed: one.stressed >= 0 ? one.stressed : -1,
        joints: [...one.joints, shift, ...other.joints.map((at) => at + shift)],
        source: "compound",
        confidence: 0.9,
      },
    };
  }
  return best?.found;
}

/** A word with apostrophes, hyphens, digits or other signs: read piece by piece. */
function readPieces(letters: string, lexicon: Lexicon): Found {
  const units: Unit[] = [];
  const joints: number[] = [];
  let source: Source = "lexicon";
  let confidence = 1;
  const pieces = letters.match(/[a-z]+|'|[^a-z']/gu) ?? [];
  pieces.forEach((piece, i) => {
    if (!/^[a-z]+$/.test(piece)) {
      if (piece !== "'" && piece !== "-") units.push(unitOf(`${piece}=`));
      return;
    }
    const after = pieces[i - 1] === "'" && i > 1 ? apostropheUnits(units, piece) : undefined;
    if (after) {
      joints.push(units.length);
      units.push(...after);
      source = "derived";
      return;
    }
    const found = readingsOf(piece, lexicon)[0];
    if (!found) return;
    if (units.length > 0) joints.push(units.length);
    joints.push(...found.joints.map((at) => at + units.length));
    units.push(...found.units);
    confidence = Math.min(confidence, found.confidence);
    if (found.source === "rules" || found.source === "compound" || found.source === "derived") source = found.source;
  });
  return { units, stressed: -1, joints, source, confidence };
}

interface Context {
  readonly letters: string;
  /** Where each letter stood in the word as it was given; missing when that is where it stands. */
  readonly places: readonly number[] | undefined;
  readonly accent: Accent;
  readonly lexicon: Lexicon;
}

/** A reading whose parts are worked out when they are asked for: a page of text needs the units of all words, the rest of a few. */
class LateReading implements WordSplit {
  readonly stressed: number;
  readonly source: Source;
  readonly confidence: number;
  readonly #found: Found;
  readonly #context: Context;
  #units: readonly PlacedUnit[] | undefined;

  constructor(found: Found, context: Context) {
    this.stressed = found.stressed;
    this.source = found.source;
    this.confidence = found.confidence;
    this.#found = found;
    this.#context = context;
  }
  get units(): readonly PlacedUnit[] {
    this.#units ??= placed(this.#found.units, this.#context);
    return this.#units;
  }
  get syllables(): readonly string[] {
    const { units } = this.#found;
    return syllablesOf(spellOut(units), units, this.#starts());
  }
  get morphemes(): Morphemes {
    return morphemesOf(this.#context.letters, this.#found, this.#context.lexicon);
  }
  get shape(): string {
    return shapeOf(this.#found.units, this.#starts());
  }
  #starts(): readonly number[] {
    return syllableStarts(this.#found.units, this.#found.stressed, this.#found.joints);
  }
}

function placed(units: readonly Unit[], { letters, places, accent }: Context): readonly PlacedUnit[] {
  const spoken = /['-]/.test(letters)
    ? [...letters].flatMap((letter, at) => (/['-]/.test(letter) ? [] : [at]))
    : undefined;
  const positions = positionsOf(units);
  return units.map((unit, i) => {
    const here = positions[i] ?? [];
    const at = spoken || places ? here.map((one) => placeAt(spoken ? (spoken[one] ?? 0) : one, places)) : here;
    const ar = unit.bath && accent.bath === "ar";
    const { grapheme } = unit;
    return { gpc: ar ? `${grapheme}=ar` : unit.gpc, grapheme, sound: ar ? "ar" : unit.sound, bath: unit.bath, at };
  });
}

function placeAt(letter: number, places: readonly number[] | undefined): number {
  return places ? (places[letter] ?? 0) : letter;
}

/** Takes beginnings and endings off, as long as what is left is a word and the joints agree. */
function morphemesOf(text: string, found: Found, lexicon: Lexicon): Morphemes {
  const beginnings: string[] = [];
  const endings: string[] = [];
  const apostrophe = /^([a-z-]+)'([a-z]{1,2})$/.exec(text);
  if (apostrophe?.[1] && apostrophe[2] !== "t") {
    endings.push(`'${apostrophe[2]}`);
    return { base: apostrophe[1], beginnings, endings, parts: [apostrophe[1]] };
  }
  const whole = text.replace(/['-]/g, "");
  let base = whole;
  let now: Found | undefined = found;
  for (let taken = 0; now && now.joints.length > 0 && taken < 4; taken++) {
    const { joints }: Found = now;
    const step = derivations(base, (part) => knownAs(part, lexicon)?.units).find(
      (one) => one.base.length >= 2 && joints.includes(one.joint),
    );
    if (!step) break;
    if (step.place === "before") beginnings.push(step.affix);
    else endings.unshift(step.affix);
    base = step.base;
    now = knownAs(base, lexicon);
  }
  return { base, beginnings, endings, parts: partsOf(base, now ?? found, lexicon) };
}

function knownAs(text: string, lexicon: Lexicon): Found | undefined {
  const word = lexicon.find(text)[0];
  return word ? fromWord(word) : deriveKnown(text, lexicon, 2);
}

function partsOf(base: string, { units, joints }: Found, lexicon: Lexicon): readonly string[] {
  for (const joint of joints) {
    const one = spellOut(units.slice(0, joint));
    const other = spellOut(units.slice(joint));
    const words = lexicon.find(one).length > 0 && lexicon.find(other).length > 0;
    if (one + other === base && words && one.length > 1 && other.length > 2) return [one, other];
  }
  return [base];
}
