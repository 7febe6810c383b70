import { englishDataset, englishRecommendedTransformers, RegExpMatcher } from "obscenity";
import { findCorrespondence, type Gpc, splitGpc, usualGpc, withImplied } from "#core/phonics";

/** What is wrong with a word that a child is given. */
type FaultKind =
  | "not in the word list"
  | "cannot be read"
  | "beyond their age"
  | "not for children"
  | "faulty split"
  | "a real word"
  | "sounds like a real word";

export interface Fault {
  readonly word: string;
  readonly fault: FaultKind;
}

/** For whom something is written. */
export interface ProofFor {
  /** Spellings that they can read. */
  readonly known: Iterable<Gpc>;
  /** Exception words that they were taught, in small letters. */
  readonly wholes?: ReadonlySet<string>;
  /** The age up to which words are known; every age when left out. */
  readonly age?: number;
}

/** A reading of a word in the list: its units as correspondences, and the age by which it is known. */
interface Reading {
  readonly gpcs: readonly Gpc[];
  readonly age: number;
}

/** Words in which a list of rude words sees what is not there; each was looked at. */
const HARMLESS: ReadonlySet<string> = new Set(["cockpit", "titter", "rapped", "trafficking"]);
const WORD = /[A-Za-z]+(?:['’-][A-Za-z]+)*/g;
/** Sounds after which an added s is not voiced. */
const VOICELESS: ReadonlySet<string> = new Set(["p", "t", "k", "f", "th", "ks"]);
const UNKNOWN_AGE = 12;

/**
 * Reads over what children are given, by the data files alone: it shares no line with the word engine that makes it, so that a fault
 * of the one is not a fault of the other.
 */
export class Proofreader {
  private readonly readings = new Map<string, Reading[]>();
  private readonly sounds = new Set<string>();
  private readonly rude = new RegExpMatcher({ ...englishDataset.build(), ...englishRecommendedTransformers });

  /** @param lexicon the text of `data/lexicon/lexicon.txt` */
  constructor(lexicon: string) {
    for (const line of lexicon.split("\n")) {
      if (line === "" || line.startsWith("#")) continue;
      const [notation = "", , flags = "", shown = ""] = line.split("|");
      const gpcs = unitsOf(notation);
      const word = (shown || lettersOf(gpcs)).toLowerCase();
      const age = Number(/[579]/.exec(flags)?.[0] ?? UNKNOWN_AGE);
      this.readings.set(word, [...(this.readings.get(word) ?? []), { gpcs, age }]);
      this.sounds.add(soundsOf(gpcs));
    }
  }

  get size(): number {
    return this.readings.size;
  }

  /** A text, a sentence or a list of words: everything in it that these children cannot read or should not be given. */
  text(text: string, { known, wholes = new Set(), age = UNKNOWN_AGE }: ProofFor): readonly Fault[] {
    const readable = withImplied(known);
    return this.wordsIn(text).flatMap((word): Fault[] => {
      if (this.isRude(word)) return [{ word, fault: "not for children" }];
      const readings = this.readingsOf(word);
      if (wholes.has(word)) return [];
      if (!readings) return [{ word, fault: "not in the word list" }];
      const fitting = readings.filter(({ gpcs }) => gpcs.every((gpc) => readable.has(gpc)));
      if (fitting.length === 0) return [{ word, fault: "cannot be read" }];
      return readings.every((one) => one.age > age) ? [{ word, fault: "beyond their age" }] : [];
    });
  }

  /** Words with the split that is shown under them. */
  splits(words: readonly { readonly text: string; readonly gpcs: readonly Gpc[] }[]): readonly Fault[] {
    return words.flatMap(({ text, gpcs }): Fault[] => {
      const sound =
        gpcs.every((gpc) => findCorrespondence(gpc) !== undefined) &&
        lettersOf(gpcs) === text.toLowerCase().replaceAll(/[^a-z]/g, "");
      const known = this.readings.get(text.toLowerCase());
      const listed = known === undefined || known.some((one) => one.gpcs.join(" ") === gpcs.join(" "));
      return sound && listed ? [] : [{ word: text, fault: "faulty split" }];
    });
  }

  /** Words that are to be none: what is one, sounds like one, cannot be sounded out, or should not be read aloud. */
  madeUp(
    words: readonly { readonly text: string; readonly gpcs: readonly Gpc[] }[],
    { known }: Pick<ProofFor, "known">,
  ): readonly Fault[] {
    const readable = withImplied(known);
    return words.flatMap(({ text, gpcs }): Fault[] => {
      const word = text.toLowerCase();
      if (this.isRude(word)) return [{ word, fault: "not for children" }];
      if (this.readings.has(word)) return [{ word, fault: "a real word" }];
      if (this.sounds.has(soundsOf(gpcs))) return [{ word, fault: "sounds like a real word" }];
      if (lettersOf(gpcs) !== word) return [{ word, fault: "faulty split" }];
      return gpcs.every((gpc) => readable.has(gpc)) ? [] : [{ word, fault: "cannot be read" }];
    });
  }

  /** The words of a text in small letters; those of a joined word one by one, unless it stands in the list. */
  private wordsIn(text: string): readonly string[] {
    return [...text.matchAll(WORD)].flatMap(([found]) => {
      const word = found.toLowerCase().replaceAll("’", "'");
      return this.readings.has(word) ? [word] : word.split("-");
    });
  }

  /** The readings in the list; those of a word with an s added are its readings with that s. */
  private readingsOf(word: string): readonly Reading[] | undefined {
    const listed = this.readings.get(word);
    if (listed) return listed;
    return this.readings.get(/^(.+?)'?s$/.exec(word)?.[1] ?? "")?.map(({ gpcs, age }) => {
      const last = splitGpc(gpcs.at(-1) ?? "").sound;
      return { gpcs: [...gpcs, VOICELESS.has(last) ? "s=s" : "s=z"], age };
    });
  }

  private isRude(word: string): boolean {
    return !HARMLESS.has(word) && this.rude.hasMatch(word);
  }
}

/** The units of an entry: `'a=ai b le` is `a=ai b=b le=l`. */
function unitsOf(notation: string): readonly Gpc[] {
  return notation.split(" ").map((piece) => {
    const body = piece.replace(/^[+'~]+/, "");
    return body.includes("=") ? body : (usualGpc(body) ?? `${body}=?`);
  });
}

/** The letters that units spell, the second letter of a split digraph behind the unit that it closes over. */
function lettersOf(gpcs: readonly Gpc[]): string {
  let [word, closing] = ["", ""];
  for (const gpc of gpcs) {
    const { grapheme } = splitGpc(gpc);
    if (/^._.$/.test(grapheme)) [word, closing] = [word + grapheme.charAt(0), grapheme.charAt(2)];
    else [word, closing] = [word + grapheme + closing, ""];
  }
  return word + closing;
}

function soundsOf(gpcs: readonly Gpc[]): string {
  return gpcs
    .map((gpc) => splitGpc(gpc).sound)
    .filter(Boolean)
    .join(" ");
}
