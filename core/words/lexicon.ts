import { findCorrespondence, type Gpc, usualGpc } from "#core/phonics";
import { bathUnit, spellOut, type Unit, unitOf } from "./units.ts";

/** The age by which most children know a word when it is said to them; 12 where no one says so. */
export type KnownBy = 5 | 7 | 9 | 12;
export const knownBys: readonly KnownBy[] = [5, 7, 9, 12];

/** One reading of a word. */
export interface Word {
  /** As it is written: small letters, but *Monday*, *I*, *isn't*. */
  readonly text: string;
  readonly units: readonly Unit[];
  /** 1 (among the commonest 600) to 5 (rare). Source: the open frequency data. */
  readonly band: number;
  /** Index of the unit with the main stress; -1 for words of one syllable and where it is not known. */
  readonly stressed: number;
  /** Units at which a part of the word begins: an ending, the second word of a compound. */
  readonly joints: readonly number[];
  /** A person decided on this split. */
  readonly corrected: boolean;
  readonly knownBy: KnownBy;
  /** It can be drawn. */
  readonly drawn: boolean;
  /** Its place among the commonest words, those of the children's list first, from 1; only the first 4,000 have one. */
  readonly rank?: number | undefined;
}

/** All words that the tool knows, ready to be asked. */
export interface Lexicon {
  /** The commonest reading of each word, in alphabetical order. */
  readonly words: readonly Word[];
  /** All readings of a word, commonest first; empty when it is not known. Capitals and curly apostrophes do not matter. */
  readonly find: (text: string) => readonly Word[];
  /** The words one after the other, read as they are asked for. */
  readonly each: () => Iterable<Word>;
  /** Units of the school's own that lie over the splits of its words, `n+k=ng+k`. */
  readonly ownUnits: readonly Gpc[];
}

const CURLY = /[’‘ʼ]/;

/** The form under which a word is kept: small letters, straight apostrophe. */
export function keyOf(text: string): string {
  const small = text.toLowerCase();
  return CURLY.test(small) ? small.replaceAll(/[’‘ʼ]/g, "'") : small;
}

/** What a piece of the lexicon's notation says: `+'~a=ar`. */
interface Piece {
  readonly unit: Unit;
  readonly joint: boolean;
  readonly stressed: boolean;
}

const pieces = new Map<string, Piece>();

function readPiece(text: string): Piece {
  const known = pieces.get(text);
  if (known) return known;
  const marks = /^[+'~]*/.exec(text)?.[0] ?? "";
  const body = text.slice(marks.length);
  const gpc: Gpc | undefined = body.includes("=") ? body : usualGpc(body);
  if (gpc === undefined || !findCorrespondence(gpc)) throw new Error(`"${text}" is not a known correspondence`);
  const piece = {
    unit: marks.includes("~") ? bathUnit(gpc) : unitOf(gpc),
    joint: marks.includes("+"),
    stressed: marks.includes("'"),
  };
  pieces.set(text, piece);
  return piece;
}

/**
 * Reads one entry: `units|band|flags|as written|rank`, the last four optional. The flags are `h` for a split by hand, the age by which
 * it is known (5, 7 or 9) and `d` for what can be drawn. Throws when a unit is no correspondence.
 * @example readEntry("s m 'i_e l +d=d|2|5")
 */
export function readEntry(line: string): Word {
  const [notation = "", band = "", flags = "", shown = "", rank = ""] = line.split("|");
  const units: Unit[] = [];
  const joints: number[] = [];
  let stressed = -1;
  for (const text of notation.trim().split(" ")) {
    const piece = readPiece(text);
    if (piece.joint) joints.push(units.length);
    if (piece.stressed) stressed = units.length;
    units.push(piece.unit);
  }
  const text = shown || spellOut(units);
  return {
    ...{ text, units, band: Number(band) || 5, stressed, joints, corrected: flags.includes("h") },
    ...{ knownBy: (Number(/[579]/.exec(flags)?.[0]) || 12) as KnownBy, drawn: flags.includes("d") },
    ...(rank && { rank: Number(rank) }),
  };
}

/** The entry of a reading as one line, the inverse of `readEntry`. */
export function writeEntry(word: Word): string {
  const notation = word.units.map((unit, at) => {
    const piece = usualGpc(unit.grapheme) === unit.gpc ? unit.grapheme : unit.gpc;
    return `${word.joints.includes(at) ? "+" : ""}${word.stressed === at ? "'" : ""}${unit.bath ? "~" : ""}${piece}`;
  });
  const shown = word.text === spellOut(word.units) ? "" : word.text;
  const flags = `${word.corrected ? "h" : ""}${word.knownBy < 12 ? word.knownBy : ""}${word.drawn ? "d" : ""}`;
  return [notation.join(" "), word.band, flags, shown, word.rank ?? ""].join("|").replace(/\|+$/, "");
}

/**
 * Reads the lexicon that ships, or any file like it: one reading a line, readings of one word one after the other,
 * commonest first; lines with `#` are remarks. Throws on the first line that cannot be read.
 */
export function readLexicon(text: string): Lexicon {
  const all: Word[] = [];
  for (const line of text.split("\n")) if (line !== "" && line[0] !== "#") all.push(readEntry(line));
  return toLexicon(all);
}

/** A lexicon of the given readings. */
export function toLexicon(all: readonly Word[]): Lexicon {
  const byKey = new Map<string, Word[]>();
  const words: Word[] = [];
  for (const word of all) {
    const key = keyOf(word.text);
    const list = byKey.get(key);
    if (list) list.push(word);
    else {
      byKey.set(key, [word]);
      words.push(word);
    }
  }
  return { words, find: (asked) => byKey.get(keyOf(asked)) ?? [], each: () => words, ownUnits: [] };
}

/**
 * The lexicon of a text that `readLexicon` has read before, on a server: a line is taken apart when its word is first
 * asked for, so that a page need not read fourteen thousand of them to show ten. The same word gives the same objects.
 */
export function openLexicon(text: string): Lexicon {
  const steps = openInSteps(text);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

const LINES_A_STEP = 1000;

/**
 * As `openLexicon`, in some fifteen steps, for a page that must stay free for a tap between them.
 * @returns the lexicon, when it has been asked to go on often enough
 */
export function* openInSteps(text: string): Generator<undefined, Lexicon> {
  const lines = new Map<string, string[]>();
  let count = 0;
  for (const line of text.split("\n")) {
    if (++count % LINES_A_STEP === 0) yield;
    if (line === "" || line[0] === "#") continue;
    const key = keyOf(writtenIn(line));
    const list = lines.get(key);
    if (list) list.push(line);
    else lines.set(key, [line]);
  }
  const read = new Map<string, readonly Word[]>();
  const find = (asked: string): readonly Word[] => {
    const key = keyOf(asked);
    const known = read.get(key);
    if (known) return known;
    const words = (lines.get(key) ?? []).map(readEntry);
    if (words.length > 0) read.set(key, words);
    return words;
  };
  function* each() {
    for (const key of lines.keys()) {
      const [word] = find(key);
      if (word) yield word;
    }
  }
  return lexiconOf(each, find);
}

/** The word of an entry, from its letters alone: `s m 'i_e l +d=d|2` is *smiled*. */
function writtenIn(line: string): string {
  const [notation = "", , , shown = ""] = line.split("|");
  if (shown) return shown;
  // Most entries have neither a sound of their own nor a split spelling.
  if (!/[=_]/.test(notation)) return notation.replaceAll(/[ +'~]/g, "");
  let text = "";
  let closing = "";
  for (const piece of notation.split(" ")) {
    const grapheme = (piece.split("=")[0] ?? "").replace(/^[+'~]+/, "");
    const split = grapheme.length > 2 && grapheme.charAt(1) === "_";
    text += (split ? grapheme.charAt(0) : grapheme) + closing;
    closing = split ? grapheme.slice(2) : "";
  }
  return text + closing;
}

/** A split that people made elsewhere as an entry, taken for a word that their children know: its units as `grapheme=sound`, left to right. */
export function ownEntry(text: string, gpcs: readonly Gpc[]): Word {
  return {
    text,
    units: gpcs.map(unitOf),
    band: 3,
    stressed: -1,
    joints: [],
    corrected: true,
    knownBy: 5,
    drawn: false,
  };
}

/** The lexicon with a school's own splits laid over it: they come first; other readings of the word stay after them. */
export function withOwnSplits(lexicon: Lexicon, own: readonly Word[]): Lexicon {
  if (own.length === 0) return lexicon;
  const mine = new Map<string, Word[]>();
  for (const word of own) mine.set(keyOf(word.text), [...(mine.get(keyOf(word.text)) ?? []), word]);
  const same = (one: Word, other: Word) =>
    one.units.map((unit) => unit.gpc).join(" ") === other.units.map((unit) => unit.gpc).join(" ");
  const over = new Map(
    [...mine].map(([key, words]): [string, readonly Word[]] => [
      key,
      [...words, ...lexicon.find(key).filter((reading) => !words.some((one) => same(one, reading)))],
    ]),
  );
  const find = (asked: string) => over.get(keyOf(asked)) ?? lexicon.find(asked);
  const added = [...mine.keys()].filter((key) => lexicon.find(key).length === 0);
  function* each() {
    for (const word of lexicon.each()) yield find(word.text)[0] ?? word;
    for (const key of added) yield find(key)[0] as Word;
  }
  return lexiconOf(each, find, lexicon.ownUnits);
}

/** A lexicon that reads its words as they are asked for. @param each the commonest reading of each word; `find` all of one */
export function lexiconOf(each: Lexicon["each"], find: Lexicon["find"], ownUnits: Lexicon["ownUnits"] = []): Lexicon {
  let all: readonly Word[] | undefined;
  return {
    get words() {
      all ??= [...each()];
      return all;
    },
    find,
    each,
    ownUnits,
  };
}

/** The lexicon with only some of its words on offer; any word can still be found in it. */
export function sliceOf(lexicon: Lexicon, fits: (word: Word) => boolean): Lexicon {
  function* each() {
    for (const word of lexicon.each()) if (fits(word)) yield word;
  }
  return lexiconOf(each, lexicon.find, lexicon.ownUnits);
}
