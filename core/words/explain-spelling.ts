import type { Accent } from "#core/phonics";
import { accentOf, findCorrespondence, isVowel, saidAlike, soundsOfGrapheme } from "#core/phonics";
import { keyOf, type Lexicon } from "./lexicon.ts";
import { split } from "./split.ts";
import type { Unit } from "./units.ts";

/**
 * How a child spelled one sound. `right`: the spelling of this word. `plausible`: spells that sound in some word.
 * `implausible`: does not. `missing`: nothing stands for it.
 */
export type SpellingOutcome = "right" | "plausible" | "implausible" | "missing";

export interface UnitSpelled {
  readonly unit: Unit;
  readonly outcome: SpellingOutcome;
  /** The letters that stand for the sound, a split digraph as `a_e`; empty when missing. */
  readonly written: string;
  /** Written as its mirror image: `b/d`, `p/q`. */
  readonly reversed?: string | undefined;
}

export interface SpellingExplanation {
  readonly target: string;
  readonly written: string;
  readonly right: boolean;
  /** Every sound has a spelling that can stand for it: heard well, whatever the letters. */
  readonly heardWell: boolean;
  readonly units: readonly UnitSpelled[];
  /** Letters that stand for nothing in the word, and the unit they came before. */
  readonly putIn: readonly { readonly letters: string; readonly before: number }[];
  /** Indexes of two units whose letters changed places (*gril* for *girl* has the letters of one unit turned: the same index twice). */
  readonly order: readonly [number, number] | undefined;
  /** Share of the sounds that are right or plausible, 0 to 1. */
  readonly share: number;
}

export interface SpellingWanted {
  readonly lexicon: Lexicon;
  readonly accent?: Accent | undefined;
}

const mirrors: Record<string, string> = { b: "d", d: "b", p: "q", q: "p" };
const COSTS: Record<SpellingOutcome, number> = { right: 0, plausible: 0.5, implausible: 1.25, missing: 1 };
const PUT_IN = 1;
const TURNED = 0.9;
const MOST_TOGETHER = 4;

/** Consonants before which one vowel letter is long in common words: *kind*, *cold*, *most*, *child*. */
const lengthening = /^(nd|ld|lt|st|ll|th|gn|mb)/;

interface Step {
  readonly i: number;
  readonly j: number;
  readonly cost: number;
  readonly unit?: UnitSpelled;
  readonly putIn?: string;
  readonly from?: Step;
}

/**
 * Says of each sound of `target` how the child spelled it in `written`. A split digraph that the child wrote is seen
 * as one (`trane` for *train*); a single vowel letter for a long vowel counts only where words do so (*paper*, *kind*).
 * Any text is taken: marks and spaces fall away, an empty answer leaves every sound missing.
 */
export function explainSpelling(target: string, written: string, wanted: SpellingWanted): SpellingExplanation {
  const accent = wanted.accent ?? accentOf(undefined);
  const letters = keyOf(written)
    .normalize("NFD")
    .replace(/[^a-z]/g, "");
  const readings = split(target, { lexicon: wanted.lexicon, accent });
  let best: { step: Step; units: readonly Unit[] } | undefined;
  for (const { units } of readings) {
    for (const form of formsOf(letters)) {
      const step = lay(units, form, accent);
      if (step && (!best || step.cost < best.step.cost - 1e-9)) best = { step, units };
    }
  }
  const units: UnitSpelled[] = [];
  const putIn: { letters: string; before: number }[] = [];
  for (let step = best?.step; step; step = step.from) {
    if (step.unit) units.unshift(step.unit);
    if (step.putIn) putIn.unshift({ letters: step.putIn, before: step.i });
  }
  const order = turned(best?.units ?? [], letters);
  if (order && units.some((unit) => unit.outcome === "implausible" || unit.outcome === "missing")) {
    putIn.length = 0;
    units.splice(0, units.length, ...inOtherOrder(best?.units ?? [], letters, order));
  }
  const well = units.filter((unit) => unit.outcome === "right" || unit.outcome === "plausible").length;
  const right = letters === keyOf(target).replace(/[^a-z]/g, "");
  return {
    target,
    written,
    right,
    heardWell: putIn.length === 0 && well === units.length,
    units: right ? units.map((one) => ({ unit: one.unit, outcome: "right", written: one.unit.grapheme })) : units,
    putIn: right ? [] : putIn,
    order: right ? undefined : order,
    share: units.length === 0 ? 1 : well / units.length,
  };
}

/** The letters as they stand, and with each pattern of vowel, consonants, e taken as a split digraph. */
interface Form {
  readonly letters: string;
  /** Position of the vowel whose e has been taken out of the letters; -1 when there is none. */
  readonly split: number;
}

function formsOf(letters: string): readonly Form[] {
  const forms: Form[] = [{ letters, split: -1 }];
  for (const match of letters.matchAll(/(?=([aeiouy])([^aeiouy]{1,2})e)/g)) {
    const at = match.index;
    const e = at + 1 + (match[2]?.length ?? 1);
    forms.push({ letters: letters.slice(0, e) + letters.slice(e + 1), split: at });
  }
  return forms;
}

function lay(units: readonly Unit[], form: Form, accent: Accent): Step | undefined {
  const { letters } = form;
  const grid: (Step | undefined)[][] = Array.from({ length: units.length + 1 }, () => []);
  const put = (step: Step) => {
    const row = grid[step.i];
    const there = row?.[step.j];
    if (row && (!there || step.cost < there.cost - 1e-9)) row[step.j] = step;
  };
  put({ i: 0, j: 0, cost: 0 });
  for (let i = 0; i <= units.length; i++) {
    for (let j = 0; j <= letters.length; j++) {
      const here = grid[i]?.[j];
      if (!here) continue;
      if (j < letters.length)
        put({
          i,
          j: j + 1,
          cost: here.cost + PUT_IN + 0.01,
          putIn: form.split === j ? `${letters[j]}_e` : letters.charAt(j),
          from: here,
        });
      const unit = units[i];
      if (!unit) continue;
      put({
        i: i + 1,
        j,
        cost: here.cost + COSTS.missing,
        unit: { unit, outcome: "missing", written: "" },
        from: here,
      });
      for (let size = 1; size <= MOST_TOGETHER && j + size <= letters.length; size++) {
        const judged = judge({ unit, after: units[i + 1] }, form, { j, size, accent });
        if (!judged) continue;
        const extra = judged.reversed ? TURNED : COSTS[judged.outcome];
        const spelling = soundsOfGrapheme(letters.slice(j, j + size)).length > 0;
        const long = judged.outcome === "implausible" && !spelling ? (size - 1) * 0.9 : 0;
        put({ i: i + 1, j: j + size, cost: here.cost + extra + long, unit: judged, from: here });
      }
    }
  }
  const end = grid[units.length]?.[letters.length];
  return end && { ...end, cost: end.cost + (form.split >= 0 ? 0.02 : 0) };
}

interface Piece {
  readonly j: number;
  readonly size: number;
  readonly accent: Accent;
}

function judge(
  { unit, after }: { unit: Unit; after: Unit | undefined },
  form: Form,
  { j, size, accent }: Piece,
): UnitSpelled | undefined {
  const { letters, split: splitAt } = form;
  const text = letters.slice(j, j + size);
  const inside = splitAt >= j && splitAt < j + size;
  if (inside && size > 1) return undefined;
  const written = inside ? `${text}_e` : text;
  if (written === unit.grapheme) return { unit, outcome: "right", written };
  if (spells(written, unit, accent) && fits(written, unit, letters.slice(j + size), after))
    return { unit, outcome: "plausible", written };
  if (size > 2 || inside) return inside ? { unit, outcome: "implausible", written } : undefined;
  if (mirrors[written] === unit.grapheme)
    return {
      unit,
      outcome: "implausible",
      written,
      reversed: unit.grapheme === "b" || unit.grapheme === "d" ? "b/d" : "p/q",
    };
  const vowels = isVowel(unit.sound) === /^[aeiouy]+$/.test(written);
  return vowels
    ? { unit, outcome: "implausible", written }
    : size === 1
      ? { unit, outcome: "implausible", written }
      : undefined;
}

/**
 * Correspondences of so few words that a child who writes them was not thinking of one: *sugar* does not make *sip* a
 * spelling of *ship*.
 */
const curious = new Set(
  "s=sh e=i a=ar u=i o=i a=e u=e ie=e ai=e ay=e eo=e o=wu oe=u oo=u ai=a ch=sh t=ch a=i ea=ai ei=i s=zh u=w i=y o=uu".split(
    " ",
  ),
);

/** True when the letters spell the unit's sound in some word, or a sound that is the same in this accent. */
function spells(written: string, unit: Unit, accent: Accent): boolean {
  const grapheme = written;
  if (curious.has(`${grapheme}=${unit.sound}`)) return false;
  if (findCorrespondence(`${grapheme}=${unit.sound}`)) return true;
  if (unit.sound === "schwa" && /^[aeiou]$/.test(grapheme)) return true;
  if (unit.sound === "id" && /^(id|ed)$/.test(grapheme)) return true;
  if (unit.sound === "iz" && /^(iz|es|is)$/.test(grapheme)) return true;
  if (unit.sound === "ks" && /^(x|cks|ks|cs)$/.test(grapheme)) return true;
  if (unit.sound === "kw" && /^(kw|cw|qu|q)$/.test(grapheme)) return true;
  if (unit.sound === "yoo" && soundsOfGrapheme(grapheme).some((entry) => entry.sound === "oo")) return true;
  if (unit.gpc === "le=l" && /^(el|il|al|ol|ul)$/.test(grapheme)) return true;
  return soundsOfGrapheme(grapheme).some(
    (entry) =>
      !curious.has(entry.gpc) &&
      saidAlike(
        accent,
        { sound: entry.sound, grapheme },
        { sound: unit.sound, grapheme: unit.grapheme, bath: unit.bath },
      ),
  );
}

const long = new Set(["ai", "ee", "igh", "oa", "oo", "yoo"]);
const onlyLate = new Set(["ck", "ll", "ff", "ss", "zz", "tch", "dge", "ng", "x", "nk", "le"]);

/** Whether the spelling can stand at this place: one vowel letter is long only in an open part or before certain consonants. */
function fits(written: string, unit: Unit, rest: string, after: Unit | undefined): boolean {
  if (long.has(unit.sound) && /^[aeiou]$/.test(written)) {
    if (rest === "" || after === undefined) return true;
    return /^[^aeiouy][aeiouy]/.test(rest) || lengthening.test(rest);
  }
  if (onlyLate.has(written) && rest.length > 0 && unit.grapheme !== written) return /^[aeiouy]?/.test(rest);
  return true;
}

/** Every unit with the letters that stand at its place; those that changed places do not spell their sounds. */
function inOtherOrder(
  units: readonly Unit[],
  letters: string,
  order: readonly [number, number],
): readonly UnitSpelled[] {
  let at = 0;
  return units.map((unit, i) => {
    const written = letters.slice(at, at + unit.grapheme.length);
    at += unit.grapheme.length;
    return { unit, outcome: order.includes(i) ? "implausible" : "right", written };
  });
}

/** Letters in another order: two neighbouring letters of the word changed places. */
function turned(units: readonly Unit[], letters: string): readonly [number, number] | undefined {
  if (units.some((unit) => unit.grapheme.includes("_"))) return undefined;
  const homes = units.flatMap((unit, at) => [...unit.grapheme].map(() => at));
  const right = units.map((unit) => unit.grapheme).join("");
  if (right.length !== letters.length || right === letters) return undefined;
  for (let at = 0; at + 1 < right.length; at++) {
    const other = right.slice(0, at) + right.charAt(at + 1) + right.charAt(at) + right.slice(at + 2);
    if (other === letters) return [homes[at] ?? 0, homes[at + 1] ?? 0];
  }
  return undefined;
}
