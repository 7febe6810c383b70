import { type Gpc, isVowel } from "#core/phonics";
import type { Lexicon } from "./lexicon.ts";
import { type Unit, unitOf } from "./units.ts";

/** A reading of letters that no lexicon has. */
export interface RuleReading {
  readonly units: readonly Unit[];
  /** 0 to 1: how sure the habits of the lexicon are of this reading against the others. */
  readonly confidence: number;
}

/** How often each unit follows each surrounding of letters, from the widest surrounding to the narrowest. */
interface Habits {
  readonly counts: ReadonlyMap<string, ReadonlyMap<Gpc, number>>;
}

const EDGE = "_";
/** Marks before the first letter, as many as the widest surrounding looks back. */
const EDGES = 2;
/** Letters before and after that a surrounding sees, widest first. */
const windows = [
  [2, 4],
  [1, 3],
  [0, 3],
  [1, 2],
  [0, 2],
  [0, 1],
] as const;
/** The windows after which only the kinds of the next letters are looked at, so that *bok* is read like *dot*. */
const KINDS_AFTER = 3;
const BEAM = 10;
/** Weight of a narrower surrounding against the counts of a wider one. */
const TRUST = 1.5;

const learned = new WeakMap<Lexicon, Habits>();

function surrounding(padded: string, at: number, [before, after]: readonly [number, number]): string {
  // The first letter of a word keeps its own habits: s is never z there, whatever follows.
  const first = at === EDGES ? "^" : "";
  return `${before}${first}${padded.slice(at - before, at)}|${padded.slice(at, at + after)}`;
}

const kinds: Record<string, string> = {
  a: "V",
  i: "V",
  o: "V",
  u: "V",
  e: "e",
  y: "y",
  w: "w",
  r: "r",
  h: "h",
  l: "l",
  _: "_",
};

function kindsAfter(padded: string, at: number): string {
  const kind = (i: number) => kinds[padded.charAt(i)] ?? "C";
  return `k${at === EDGES ? "^" : ""}${padded.charAt(at)}${kind(at + 1)}${kind(at + 2)}${kind(at + 3)}`;
}

/** The keys of a place among the letters, widest first. */
function surroundings(padded: string, at: number): readonly string[] {
  const keys = windows.map((window) => surrounding(padded, at, window));
  keys.splice(KINDS_AFTER, 0, kindsAfter(padded, at));
  return keys;
}

/**
 * Learns from a lexicon which unit its words have at which letters. Done once a lexicon, when the first unknown word
 * is asked for; every other entry serves, endings being handled elsewhere.
 */
function habitsOf(lexicon: Lexicon): Habits {
  const known = learned.get(lexicon);
  if (known) return known;
  const work = learning.get(lexicon) ?? learn(lexicon);
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

/** Learning that was begun in slices and is not done. */
const learning = new WeakMap<Lexicon, Generator<void, Habits>>();

/**
 * Learns a slice of what the first unknown word of a lexicon needs, so that a page can do it while nothing else is to do:
 * `go` says after every few words whether there is time for more. @returns whether all of it is learned
 */
export function learnWhile(lexicon: Lexicon, go: () => boolean): boolean {
  if (learned.has(lexicon)) return true;
  const work = learning.get(lexicon) ?? learn(lexicon);
  learning.set(lexicon, work);
  while (go()) if (work.next().done) return true;
  return false;
}

/** Words between two looks at the clock. */
const SLICE = 40;

function* learn(lexicon: Lexicon): Generator<void, Habits> {
  const counts = new Map<string, Map<Gpc, number>>();
  let read = 0;
  for (const word of lexicon.each()) {
    if (++read % SLICE === 0) yield;
    if (word.units.length > 12 || /[^a-z]/.test(word.text)) continue;
    const padded = `${EDGE}${EDGE}${word.text}${EDGE}${EDGE}${EDGE}`;
    const weight = word.joints.length > 0 ? 0.34 : 1;
    let at = 2;
    let late = "";
    for (const unit of word.units) {
      for (const key of surroundings(padded, at)) {
        const here = counts.get(key);
        if (here) here.set(unit.gpc, (here.get(unit.gpc) ?? 0) + weight);
        else counts.set(key, new Map([[unit.gpc, weight]]));
      }
      const [opening = "", closing = ""] = unit.grapheme.split("_");
      at += opening.length + late.length;
      late = closing;
    }
  }
  const habits = { counts };
  learned.set(lexicon, habits);
  return habits;
}

/** Chances of the units that may begin at a letter, narrower surroundings filling in for wider ones. */
function chances(habits: Habits, padded: string, at: number): ReadonlyMap<Gpc, number> {
  let found = new Map<Gpc, number>();
  for (const key of [...surroundings(padded, at)].reverse()) {
    const here = habits.counts.get(key);
    if (!here) continue;
    let total = 0;
    for (const count of here.values()) total += count;
    const next = new Map<Gpc, number>();
    for (const [gpc, chance] of found) next.set(gpc, (chance * TRUST) / (total + TRUST));
    for (const [gpc, count] of here) next.set(gpc, (next.get(gpc) ?? 0) + count / (total + TRUST));
    found = next;
  }
  return found;
}

interface Path {
  readonly at: number;
  readonly units: readonly Unit[];
  readonly score: number;
  /** Letter of an open split digraph's e: none, waiting for its consonant, waiting for the e. */
  readonly open: "no" | "consonant" | "e";
}

/**
 * Reads small letters a to z by the habits of the lexicon, likeliest reading first, at most `most`. Every letter is in
 * exactly one unit; a letter that fits nowhere is a unit without a sound.
 */
export function readByRule(letters: string, lexicon: Lexicon, most = 4): readonly RuleReading[] {
  const habits = habitsOf(lexicon);
  const padded = `${EDGE}${EDGE}${letters}${EDGE}${EDGE}${EDGE}`;
  let paths: Path[] = [{ at: 0, units: [], score: 0, open: "no" }];
  const done: Path[] = [];
  while (paths.length > 0) {
    const grown: Path[] = [];
    for (const path of paths) {
      if (path.open === "e") {
        if (letters[path.at] === "e") grown.push({ ...path, at: path.at + 1, open: "no" });
        continue;
      }
      if (path.at >= letters.length) {
        if (path.open === "no") done.push(path);
        continue;
      }
      grow(path, { letters, padded, habits }, grown);
    }
    const furthest = grown.sort((one, other) => other.score / other.at - one.score / one.at);
    paths = furthest.slice(0, BEAM);
  }
  const best = new Map<string, Path>();
  for (const path of done.sort((one, other) => other.score - one.score)) {
    const key = path.units.map((unit) => unit.gpc).join(" ");
    if (!best.has(key)) best.set(key, path);
  }
  const top = [...best.values()].slice(0, most);
  const total = top.reduce((sum, path) => sum + Math.exp(path.score), 0) || 1;
  return top.map((path) => ({ units: path.units, confidence: Math.exp(path.score) / total }));
}

/** A consonant with an e that is not heard stands at the end; an ending needs a vowel before it. */
const ENDS_ONLY = /^[^aeiouy]{1,3}e$/;
const AFTER_VOWEL = /^(ed|es|d|s)=(id|iz|t|d)$/;
/** One vowel letter, one consonant, e: the e makes the vowel long in a word that nobody has met. */
const SPLIT_WORD = /^(?:[^aeiouy]|qu)*[aeiou](?:[^aeiouyrvwx]|th|ch|sh)e$/;
const SPLIT_BONUS = 1.5;
/** A last e after a consonant is rarely heard (*recipe*). */
const LATE_E = -1.5;

interface RuleGround {
  readonly letters: string;
  readonly padded: string;
  readonly habits: Habits;
}

function grow(path: Path, { letters, padded, habits }: RuleGround, grown: Path[]): void {
  let any = false;
  for (const [gpc, chance] of chances(habits, padded, path.at + 2)) {
    const unit = unitOf(gpc);
    const [opening = "", closing = ""] = unit.grapheme.split("_");
    if (!letters.startsWith(opening, path.at)) continue;
    const vowel = isVowel(unit.sound);
    if (path.open === "consonant" && (vowel || closing !== "")) continue;
    const at = path.at + opening.length;
    if (closing !== "" && letters.indexOf("e", at) < 0) continue;
    if (path.open === "consonant" && letters[at] !== "e") continue;
    if (at < letters.length && ENDS_ONLY.test(unit.grapheme)) continue;
    if (AFTER_VOWEL.test(unit.gpc) && !path.units.some((before) => isVowel(before.sound))) continue;
    any = true;
    const open = path.open === "consonant" ? "e" : closing !== "" ? "consonant" : "no";
    const habit =
      closing !== "" && SPLIT_WORD.test(letters)
        ? SPLIT_BONUS
        : unit.grapheme === "e" && at === letters.length
          ? LATE_E
          : 0;
    grown.push({ at, units: [...path.units, unit], score: path.score + Math.log(chance) + habit, open });
  }
  if (!any && path.open === "no") {
    const letter = letters.charAt(path.at);
    grown.push({ ...path, at: path.at + 1, units: [...path.units, unitOf(`${letter}=`)], score: path.score - 8 });
  }
}
