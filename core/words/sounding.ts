import { type Accent, findSound, isVowel, saidAlike, soundAlikes, spellingsOfSound, usualGpc } from "#core/phonics";
import type { Lexicon } from "./lexicon.ts";
import { readByRule } from "./rules.ts";
import { split } from "./split.ts";
import { type Unit, unitOf } from "./units.ts";

/** One phoneme of a word and the unit it belongs to. */
export interface Phoneme {
  readonly sound: string;
  readonly grapheme: string;
  readonly unit: number;
  readonly bath: boolean;
}

/** What the joint sounds are made of. */
const joints: Record<string, readonly string[]> = {
  ks: ["k", "s"],
  gz: ["g", "z"],
  kw: ["k", "w"],
  wu: ["w", "u"],
  id: ["i", "d"],
  iz: ["i", "z"],
  ts: ["t", "s"],
  yoo: ["y", "oo"],
};

/** The phonemes of units in order; a joint pair gives two, *le* and other weak endings one. */
export function phonemesOf(units: readonly Unit[]): readonly Phoneme[] {
  return units.flatMap(({ sound, grapheme, bath }, unit) =>
    (joints[sound] ?? (sound === "" ? [] : [sound])).map((one) => ({
      sound: one,
      grapheme,
      unit,
      bath: bath === true,
    })),
  );
}

/** A way in which plain letters may have been meant. */
export interface Hearing {
  readonly phonemes: readonly Phoneme[];
  /** Surprise: 0 for the commonest reading, more for others. */
  readonly cost: number;
  readonly word: boolean;
}

const SURPRISE = 0.35;
/** A reading this much rarer than the likeliest is not what anyone meant. */
const UNLIKELY = 0.15;

/** What was said in sounds, `/s t u p/`: no letters that could be meant otherwise. Undefined for anything else. */
function soundsIn(text: string): readonly Unit[] | undefined {
  const keys = /^\/([a-z ]+)\/$/.exec(text)?.[1]?.trim().split(/ +/);
  if (!keys?.every((key) => findSound(key))) return undefined;
  return keys.map((key) => unitOf(`${spellingsOfSound(key)[0]?.grapheme ?? key}=${key}`));
}

/** Sounds as `explain` takes them for what was said. @example inSounds(["s", "t", "u", "p"]) // "/s t u p/" */
export function inSounds(sounds: readonly string[]): string {
  return `/${sounds.filter(Boolean).join(" ")}/`;
}

/** What was said as it is shown: sounds in their plainest spelling, anything else as it was typed. */
export function showSaid(said: string): string {
  const exact = soundsIn(said);
  return exact ? exact.map((unit) => unit.grapheme.replace("_", "")).join("") : said;
}

/** The readings of what was said or written in plain letters: those of the word if it is one, else by the habits of spelling. */
export function hearings(letters: string, lexicon: Lexicon): readonly Hearing[] {
  const text = letters.trim();
  const exact = soundsIn(text);
  if (exact) return [{ phonemes: phonemesOf(exact), cost: 0, word: false }];
  const readings = split(text, { lexicon });
  const sure = readings.filter((reading) => reading.source !== "rules" && reading.source !== "compound");
  if (sure.length > 0) return sure.map((reading) => ({ phonemes: phonemesOf(reading.units), cost: 0, word: true }));
  const read = readByRule(jotted(text), lexicon, 8);
  const likely = read.filter(({ confidence }) => confidence >= UNLIKELY * (read[0]?.confidence ?? 0));
  const found = likely.map(({ units, confidence }) => ({
    phonemes: phonemesOf(units),
    cost: Math.min(1.2, -Math.log(Math.max(confidence, 1e-3)) * SURPRISE) + (onlyWeak(units) ? 0.3 : 0),
    word: false,
  }));
  const plainly = likely.map(({ units }) => ({
    phonemes: phonemesOf(units.map(atItsPlainest)),
    cost: PLAINLY,
    word: false,
  }));
  return /ah(?![aeiouy])/i.test(text) ? [...found, ...plainly].map(withoutR) : [...found, ...plainly];
}

/** *cah* was jotted down to say that no r was heard. */
function withoutR(hearing: Hearing): Hearing {
  const phonemes = hearing.phonemes.map((one) => (one.sound === "ar" ? { ...one, grapheme: "ah" } : one));
  return { ...hearing, phonemes };
}

/** A word of one syllable has a full vowel. */
function onlyWeak(units: readonly Unit[]): boolean {
  return !units.some((unit) => isVowel(unit.sound) && unit.sound !== "schwa");
}

/** What an adult jots down is often meant letter by letter: each spelling with its usual sound, *cu* for *cut* with a short vowel. */
const PLAINLY = 0.1;

function atItsPlainest(unit: Unit): Unit {
  if (/^[aeiou]$/.test(unit.grapheme)) return unitOf(`${unit.grapheme}=${unit.grapheme}`);
  const gpc = unit.sound === "schwa" ? undefined : usualGpc(unit.grapheme);
  return gpc === undefined ? unit : unitOf(gpc);
}

/** What adults jot down for a sound, in spellings that words have: *cah* for *car*, *duh*, *bood* with oo. */
function jotted(text: string): string {
  return text
    .toLowerCase()
    .replace(/[^a-z]/g, "")
    .replace(/ah(?![aeiouy])/g, "ar")
    .replace(/(?<=[^aeiou])uh$/g, "er")
    .replace(/eh(?=[^aeiouy])/g, "e")
    .replace(/oh(?=[^aeiouy])/g, "oa");
}

export interface Match {
  /** Index of the phoneme in the target, or undefined when it was put in. */
  readonly target?: number | undefined;
  /** Index of the phoneme in what was said, or undefined when it was left out. */
  readonly said?: number | undefined;
  readonly kind: "same" | "other" | "left out" | "put in" | "swapped";
}

const near = new Set(soundAlikes.flatMap((row) => pairs(row.split(" "))));

function pairs(keys: readonly string[]): string[] {
  return keys.flatMap((one) => keys.map((other) => `${one}/${other}`));
}

function alike(accent: Accent, one: Phoneme, other: Phoneme): boolean {
  return saidAlike(accent, one, other);
}

/** Weak vowels are said in many ways: saying a full vowel for one costs little and is no error. */
function weakened(one: Phoneme, other: Phoneme): boolean {
  return one.sound === "schwa" && ["e", "i", "u", "a", "o", "uu", "er"].includes(other.sound);
}

function exchange(accent: Accent, one: Phoneme, other: Phoneme): number {
  if (alike(accent, one, other)) return 0;
  if (weakened(one, other)) return 0.1;
  const vowels = [isVowel(one.sound), isVowel(other.sound)];
  if (vowels[0] !== vowels[1]) return 1.9;
  return near.has(`${one.sound}/${other.sound}`) ? 0.85 : 1;
}

const GAP = 1;
const SWAP = 1.3;

/**
 * Lays what was said against what should have been said, phoneme by phoneme, at the least cost: exchanged, left out,
 * put in, or two neighbours (or the two around a vowel) swapped.
 */
export function lay(
  target: readonly Phoneme[],
  said: readonly Phoneme[],
  accent: Accent,
): { matches: readonly Match[]; cost: number } {
  const [n, m] = [target.length, said.length];
  type Cell = { cost: number; from: [number, number]; steps: readonly Match[] };
  const cells: Cell[][] = Array.from({ length: n + 1 }, () => []);
  for (let i = 0; i <= n; i++) {
    for (let j = 0; j <= m; j++) {
      const options: Cell[] = [];
      const from = (a: number, b: number, cost: number, steps: readonly Match[]) => {
        const before = cells[a]?.[b];
        if (before) options.push({ cost: before.cost + cost, from: [a, b], steps });
      };
      if (i === 0 && j === 0) options.push({ cost: 0, from: [0, 0], steps: [] });
      const [t, s] = [target[i - 1], said[j - 1]];
      if (t && s) {
        const cost = exchange(accent, t, s);
        from(i - 1, j - 1, cost, [{ target: i - 1, said: j - 1, kind: cost <= 0.1 ? "same" : "other" }]);
        swaps(target, said, { i, j, accent }, from);
      }
      if (t)
        from(i - 1, j, t.sound === "y" && target[i]?.sound === "oo" ? GAP - 0.3 : GAP, [
          { target: i - 1, kind: "left out" },
        ]);
      if (s) from(i, j - 1, GAP, [{ said: j - 1, kind: "put in" }]);
      options.sort((one, other) => one.cost - other.cost);
      if (options[0]) cells[i]?.push(options[0]);
    }
  }
  const matches: Match[] = [];
  let [i, j] = [n, m];
  while (i > 0 || j > 0) {
    const cell: Cell | undefined = cells[i]?.[j];
    if (!cell) break;
    matches.unshift(...cell.steps);
    [i, j] = cell.from;
  }
  return { matches, cost: cells[n]?.[m]?.cost ?? 0 };
}

interface Spot {
  readonly i: number;
  readonly j: number;
  readonly accent: Accent;
}

type From = (a: number, b: number, cost: number, steps: readonly Match[]) => void;

function swaps(target: readonly Phoneme[], said: readonly Phoneme[], { i, j, accent }: Spot, from: From): void {
  for (const apart of [1, 2]) {
    const [t0, t1] = [target[i - 1 - apart], target[i - 1]];
    const [s0, s1] = [said[j - 1 - apart], said[j - 1]];
    if (!t0 || !t1 || !s0 || !s1 || alike(accent, t0, t1)) continue;
    if (!alike(accent, t0, s1) || !alike(accent, t1, s0)) continue;
    const steps: Match[] = [{ target: i - 1 - apart, said: j - 1, kind: "swapped" }];
    let between = 0;
    if (apart === 2) {
      const [t, s] = [target[i - 2], said[j - 2]];
      if (!t || !s) continue;
      between = exchange(accent, t, s);
      steps.push({ target: i - 2, said: j - 2, kind: between <= 0.1 ? "same" : "other" });
    }
    steps.push({ target: i - 1, said: j - 1 - apart, kind: "swapped" });
    from(i - 1 - apart, j - 1 - apart, SWAP + between, steps);
  }
}
