import { type Accent, accentOf, isVowel } from "#core/phonics";
import { keyOf, type Lexicon } from "./lexicon.ts";
import { hearings, lay, type Match, type Phoneme, phonemesOf, showSaid } from "./sounding.ts";
import { split } from "./split.ts";
import type { Unit } from "./units.ts";

/** What became of one unit of the target word. */
export interface UnitHeard {
  readonly unit: Unit;
  readonly outcome: "right" | "other" | "left out" | "swapped";
  /** The sounds that were said in its place, keys of `sounds`; empty when it was left out. */
  readonly heard: readonly string[];
}

export interface Explanation {
  readonly target: string;
  readonly said: string;
  /** Nothing is wrong in this accent. */
  readonly right: boolean;
  readonly units: readonly UnitHeard[];
  /** Sounds that the word does not have, and the unit they came before (the number of units for the end). */
  readonly putIn: readonly { readonly sound: string; readonly before: number }[];
  /** Indexes of two units that changed places. */
  readonly swapped: readonly [number, number] | undefined;
  /** The first sound of a cluster at the beginning was dropped (*stop* read as *top*). */
  readonly firstOfClusterDropped: boolean;
  /** A sound was dropped from any cluster. */
  readonly clusterReduced: boolean;
  /** What went wrong is in vowels, in consonants, in both, or in neither. */
  readonly where: "nothing" | "vowel" | "consonant" | "both";
  /** What was said is another real word. */
  readonly realWord: boolean;
  /** Letters taken for their mirror image: `b/d`, `p/q`. */
  readonly reversed: readonly string[];
  /** The whole word was read from its end (*was* as *saw*). */
  readonly backwards: boolean;
  /** How much differs, in exchanged sounds; 0 when right. */
  readonly cost: number;
}

export interface ExplainWanted {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
}

const mirrors: Record<string, readonly string[]> = { b: ["d"], d: ["b"], p: ["kw", "k"], q: ["p"], qu: ["p"] };

/**
 * Says what went wrong when a child read `target` and said `said`, in plain letters (`shunk` for *chunk*, `kween` for
 * *queen*) or exactly in sounds (`/sh u ng k/`). Of all readings of both the pair that differs least is taken, so that a sound spelled as it was heard is no
 * error. Any text is taken; an empty answer leaves every unit out.
 */
export function explain(
  target: string,
  said: string,
  { lexicon, accent = accentOf(undefined) }: ExplainWanted,
): Explanation {
  const readings = split(target, { lexicon, accent });
  const first = readings[0]?.units ?? [];
  const same = keyOf(target.trim()) === keyOf(said.trim());
  let best: Laid | undefined;
  for (const [rank, reading] of (same ? readings.slice(0, 1) : readings).entries()) {
    if (rank > 0 && reading.source === "rules") break;
    const wanted = phonemesOf(reading.units);
    const heard = same ? [{ phonemes: wanted, cost: 0 }] : hearings(said, lexicon);
    for (const hearing of heard.length > 0 ? heard : [{ phonemes: [], cost: 0 }]) {
      const { matches, cost } = lay(wanted, hearing.phonemes, accent);
      const total = cost + hearing.cost + rank * 0.05;
      if (!best || total < best.total - 1e-9)
        best = { units: reading.units, wanted, heard: hearing.phonemes, matches, total };
    }
  }
  const turned = readings.map(({ units }) => ({ units, pair: changedPlaces(units, said) })).find(({ pair }) => pair);
  if (turned?.pair && best && best.total > 0.3) best = inOtherOrder(turned.units, turned.pair);
  return told(
    target,
    showSaid(said),
    best ?? { units: first, wanted: [], heard: [], matches: [], total: 0 },
    lexicon,
  );
}

/**
 * The indexes of the units that failed, for a word whose units are known: what `explain` says of them when they are laid
 * under what was said in their own order. It takes no word apart, so that a long log is read fast.
 */
export function failedUnits(
  units: readonly Unit[],
  said: string,
  { lexicon, accent = accentOf(undefined) }: ExplainWanted,
): readonly number[] {
  const wanted = phonemesOf(units);
  let best: Laid | undefined;
  for (const hearing of hearings(said, lexicon)) {
    const { matches, cost } = lay(wanted, hearing.phonemes, accent);
    const total = cost + hearing.cost;
    if (!best || total < best.total - 1e-9) best = { units, wanted, heard: hearing.phonemes, matches, total };
  }
  if (!best) return [];
  return told("", "", best, lexicon).units.flatMap((one, at) => (one.outcome === "right" ? [] : [at]));
}

/** Two units, next to each other or around one other, whose letters are the other way round in what was said. */
function changedPlaces(units: readonly Unit[], said: string): [number, number] | undefined {
  if (units.some((unit) => unit.grapheme.includes("_"))) return undefined;
  const letters = keyOf(said).replace(/[^a-z]/g, "");
  for (const apart of [1, 2]) {
    for (let at = 0; at + apart < units.length; at++) {
      const order = units.map((unit) => unit.grapheme);
      [order[at], order[at + apart]] = [order[at + apart] ?? "", order[at] ?? ""];
      if (order[at] !== order[at + apart] && order.join("") === letters) return [at, at + apart];
    }
  }
  return undefined;
}

function inOtherOrder(units: readonly Unit[], [one, other]: readonly [number, number]): Laid {
  const wanted = phonemesOf(units);
  const matches = wanted.map(({ unit }, at): Match => {
    const to = unit === one ? other : unit === other ? one : unit;
    const said = wanted.findIndex((phoneme) => phoneme.unit === to);
    return { target: at, said, kind: unit === one || unit === other ? "swapped" : "same" };
  });
  return { units, wanted, heard: wanted, matches, total: 1.3 };
}

interface Laid {
  readonly units: readonly Unit[];
  readonly wanted: readonly Phoneme[];
  readonly heard: readonly Phoneme[];
  readonly matches: readonly Match[];
  readonly total: number;
}

function told(target: string, said: string, laid: Laid, lexicon: Lexicon): Explanation {
  const { units, wanted, heard, matches } = laid;
  const outcome = units.map((): Match["kind"][] => []);
  const instead = units.map((): string[] => []);
  const putIn: { sound: string; before: number }[] = [];
  const swappedUnits: number[] = [];
  let lastUnit = -1;
  for (const match of matches) {
    const unit = match.target === undefined ? undefined : wanted[match.target]?.unit;
    const sound = match.said === undefined ? undefined : heard[match.said]?.sound;
    if (unit === undefined) {
      const split = matches.find(
        (one) => one.target !== undefined && wanted[one.target]?.unit === lastUnit && one.kind !== "same",
      );
      if (split && sound && joinsUnit(matches, match, { wanted, unit: lastUnit })) instead[lastUnit]?.push(sound);
      else if (sound) putIn.push({ sound, before: lastUnit + 1 });
      continue;
    }
    lastUnit = Math.max(lastUnit, unit);
    outcome[unit]?.push(match.kind);
    if (sound && match.kind !== "left out") instead[unit]?.push(sound);
    if (match.kind === "swapped" && !swappedUnits.includes(unit)) swappedUnits.push(unit);
  }
  const found = units.map((unit, at): UnitHeard => {
    const kinds = outcome[at] ?? [];
    const all = (kind: Match["kind"]) => kinds.length > 0 && kinds.every((one) => one === kind);
    if (kinds.length === 0 || all("same")) return { unit, outcome: "right", heard: [unit.sound] };
    if (all("left out")) return { unit, outcome: "left out", heard: [] };
    if (kinds.includes("swapped")) return { unit, outcome: "swapped", heard: instead[at] ?? [] };
    return { unit, outcome: "other", heard: instead[at] ?? [] };
  });
  const wrong = found.flatMap((one, at) => (one.outcome === "right" ? [] : [at]));
  const right = wrong.length === 0 && putIn.length === 0;
  const touched = [...wrong.map((at) => units[at]?.sound ?? ""), ...putIn.map((one) => one.sound)];
  const vowels = touched.some((sound) => isVowel(sound));
  const consonants = touched.some((sound) => !isVowel(sound));
  const plain = (text: string) => keyOf(text).replace(/[^a-z]/g, "");
  return {
    target,
    said,
    right,
    units: found,
    putIn,
    swapped: swappedUnits.length >= 2 ? [swappedUnits[0] ?? 0, swappedUnits[1] ?? 0] : undefined,
    firstOfClusterDropped: found[0]?.outcome === "left out" && isConsonant(units[0]) && isConsonant(units[1]),
    clusterReduced: found.some((one, at) => one.outcome === "left out" && inCluster(units, at)),
    where: right ? "nothing" : vowels && consonants ? "both" : vowels ? "vowel" : "consonant",
    realWord: !right && isWord(said.trim(), lexicon),
    reversed: [
      ...new Set(
        found.flatMap(({ unit, outcome: kind, heard: sounds }) => (kind === "other" ? mirrorOf(unit, sounds) : [])),
      ),
    ],
    backwards: !right && plain(said).length > 1 && [...plain(said)].reverse().join("") === plain(target),
    cost: right ? 0 : laid.total,
  };
}

/** A sound put in right after a unit that was exchanged belongs to what was said in its place (*ks* for *s*). */
function joinsUnit(
  matches: readonly Match[],
  put: Match,
  { wanted, unit }: { wanted: readonly Phoneme[]; unit: number },
): boolean {
  const at = matches.indexOf(put);
  const before = matches[at - 1];
  if (before?.kind !== "other" || before.target === undefined || wanted[before.target]?.unit !== unit) return false;
  return isVowel(wanted[before.target]?.sound ?? "") === false;
}

/** A name is no word that a child could have meant. */
function isWord(text: string, lexicon: Lexicon): boolean {
  return lexicon.find(text).some((word) => word.text === word.text.toLowerCase());
}

function isConsonant(unit: Unit | undefined): boolean {
  return unit !== undefined && unit.sound !== "" && !isVowel(unit.sound);
}

function inCluster(units: readonly Unit[], at: number): boolean {
  return isConsonant(units[at]) && (isConsonant(units[at - 1]) || isConsonant(units[at + 1]));
}

function mirrorOf({ grapheme }: Unit, heard: readonly string[]): readonly string[] {
  const mirror = mirrors[grapheme]?.find((sound) => heard.includes(sound));
  if (mirror === undefined) return [];
  return [grapheme === "b" || grapheme === "d" ? "b/d" : "p/q"];
}
