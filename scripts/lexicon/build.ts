import { readFileSync, writeFileSync } from "node:fs";
import { cuss } from "cuss";
import { findCorrespondence } from "#core/phonics";
import {
  ageOfForm,
  bathUnit,
  derivations,
  isNucleus,
  RARE_BAND,
  spellOut,
  type Unit,
  unitOf,
  writeEntry,
} from "#core/words";
import { type AgeMark, readAges } from "./ages.ts";
import { align } from "./align.ts";
import { type Correction, readCorrections } from "./corrections.ts";
import { capitalised, counts } from "./frequency.ts";
import { neutralised } from "./neutral.ts";
import { pronunciations, soundsCompound, soundsDerived } from "./pron.ts";
import { isUnfit } from "./unfit.ts";

const folder = "data/lexicon";
const text = (file: string) => readFileSync(`${folder}/${file}`, "utf8");
const listed = (file: string) =>
  new Set(
    text(file)
      .split("\n")
      .filter((line) => !line.startsWith("#"))
      .flatMap((line) => line.split(/\s+/).filter(Boolean)),
  );

/** One reading of a word as it is written to the lexicon. */
interface Entry {
  readonly word: string;
  readonly units: readonly Unit[];
  readonly stressed: number;
  readonly joints: readonly number[];
  readonly how: "hand" | "derived" | "compound" | "aligned";
  readonly from?: string;
  /** The ending or beginning that makes it of its base. */
  readonly affix?: string;
}

/** A word written `tow+path` in the list is two words joined, whether the open data has it or not. */
const forced = new Map(
  [...listed("children.txt")].flatMap((word) => (word.includes("+") ? [[word.replace("+", ""), word] as const] : [])),
);
const children = new Set([...listed("children.txt")].map((word) => word.toLowerCase().replace(/[^a-z]/g, "")));
const baths = listed("bath.txt");
const wholes = listed("wholes.txt");
const corrections: ReadonlyMap<string, readonly Correction[]> = readCorrections(text("corrections.txt"));
const entries = new Map<string, readonly Entry[]>();
const problems: string[] = [];
const reported = new Set<string>();

function stressOf(word: string, units: readonly Unit[]): number {
  const vowels = units.flatMap((_, at) => (isNucleus(units, at) ? [at] : []));
  if (vowels.length < 2) return -1;
  for (const phones of pronunciations(word)) {
    const nuclei = phones.filter((phone) => /\d$/.test(phone));
    if (nuclei.length === vowels.length) return vowels[nuclei.findIndex((phone) => phone.endsWith("1"))] ?? -1;
  }
  return -1;
}

function withBath(word: string, units: readonly Unit[], stressed: number): readonly Unit[] {
  if (!baths.has(word)) return units;
  let done = false;
  return units.map((unit, at) => {
    if (done || unit.sound !== "a" || (stressed >= 0 && at !== stressed)) return unit;
    done = true;
    return bathUnit(unit.gpc);
  });
}

function unitsOf(word: string): readonly Unit[] | undefined {
  return entriesOf(word)?.[0]?.units;
}

const open = new Set<string>();

function entriesOf(word: string): readonly Entry[] | undefined {
  const known = entries.get(word);
  if (known) return known;
  if (open.has(word)) return undefined;
  open.add(word);
  const found = make(word);
  open.delete(word);
  if (found.length > 0) entries.set(word, found);
  return found.length > 0 ? found : undefined;
}

function make(word: string): readonly Entry[] {
  const hand = corrections.get(word);
  if (hand)
    return hand.map((correction) => {
      const stressed = correction.stressed >= 0 ? correction.stressed : stressOf(word, correction.units);
      return {
        word,
        units: withBath(word, correction.units, stressed),
        stressed,
        joints: correction.joints,
        how: "hand",
      };
    });
  if (isUnfit(word, children.has(word))) return [];
  const forcedJoin = forced.has(word) ? joinIt(word) : undefined;
  if (forcedJoin) return [forcedJoin];
  const derived = wholes.has(word) ? undefined : deriveIt(word);
  if (derived) return [derived];
  if (!children.has(word)) return [];
  const compound = wholes.has(word) ? undefined : joinIt(word);
  if (compound) return [compound];
  const prons = pronunciations(word);
  const best = prons
    .map((phones) => align(word, phones))
    .filter((one) => one !== undefined)
    .sort((one, other) => one.cost - other.cost)[0];
  if (!best) {
    if (!reported.has(word))
      problems.push(`${word}: ${prons.length === 0 ? "no pronunciation" : "cannot be aligned"}`);
    reported.add(word);
    return [];
  }
  const gpcs = neutralised(word, best);
  const strange = gpcs.filter((gpc) => !findCorrespondence(gpc));
  if (strange.length > 0) problems.push(`${word}: ${gpcs.join(" ")} has ${strange.join(" ")}`);
  const units = gpcs.map(unitOf);
  const stressed = stressOf(word, units);
  return [{ word, units: withBath(word, units, stressed), stressed, joints: [], how: "aligned" }];
}

function deriveIt(word: string): Entry | undefined {
  const found = derivations(word, unitsOf).find(
    (one) =>
      (children.has(one.base) || entries.has(one.base)) &&
      (soundsDerived(word, one.base, one.affix, one.place) || (regular.has(one.affix) && unheard(word, one.base))),
  );
  if (!found) return undefined;
  const base = entriesOf(found.base)?.[0];
  const shift = found.place === "before" ? found.joint : 0;
  const baseStress = base && base.stressed >= 0 ? base.stressed + shift : -1;
  const own = stressOf(word, found.units);
  const joints = [...(base?.joints ?? []).map((at) => at + shift), found.joint];
  return {
    word,
    units: found.units,
    stressed: own >= 0 ? own : baseStress,
    joints,
    how: "derived",
    from: found.base,
    affix: found.affix,
  };
}

/** Where the open data lacks the word or its base, only these endings are taken on trust. */
const regular = new Set([
  "s",
  "es",
  "ed",
  "d",
  "ing",
  "ful",
  "less",
  "ness",
  "un",
  "re",
  "dis",
  "mis",
  "ly",
  "y",
  "er",
]);
const unheard = (word: string, base: string) =>
  (children.has(word) || pronunciations(base).length === 0) &&
  (pronunciations(word).length === 0 || pronunciations(base).length === 0);

function joinIt(word: string): Entry | undefined {
  const must = forced.get(word)?.indexOf("+");
  for (let cut = word.length - 2; cut >= 2; cut--) {
    const [one, other] = [word.slice(0, cut), word.slice(cut)];
    if (must === undefined && (!fitsAsPart(one) || !fitsAsPart(other) || !soundsCompound(word, one, other))) continue;
    if (must !== undefined && cut !== must) continue;
    const [a, b] = [entriesOf(one)?.[0], entriesOf(other)?.[0]];
    if (!a || !b) continue;
    const units = [...a.units, ...b.units];
    if (spellOut(units) !== word) continue;
    return {
      word,
      units,
      stressed: stressOf(word, units),
      joints: [...a.joints, a.units.length, ...b.joints.map((at) => at + a.units.length)],
      how: "compound",
      from: `${one}+${other}`,
    };
  }
  return undefined;
}

const shortParts = new Set(["up", "in", "on", "be", "to", "by", "ox", "my", "no", "so"]);
const fitsAsPart = (part: string) =>
  (part.length >= 3 || shortParts.has(part)) &&
  (children.has(part) || corrections.has(part) || /(s|er|ing|ed)$/.test(part));

for (const word of children) entriesOf(word);
/** Forms of listed words are added when they are used often enough: plain inflections sooner than made words. */
const LEAST_INFLECTED = 8;
const LEAST_MADE = 30;
const plain = /(s|ed|ing|est|ly)$/;
const forms = [...counts].filter(
  ([word, count]) =>
    /^[a-z]{3,}$/.test(word) && count >= (plain.test(word) ? LEAST_INFLECTED : LEAST_MADE) && !capitalised.has(word),
);
for (const [word] of forms) entriesOf(word);
for (const word of corrections.keys()) entriesOf(word);

const meant = new Set([...children, ...corrections.keys(), ...forms.map(([word]) => word)]);
for (const word of entries.keys()) if (!meant.has(word)) entries.delete(word);

const ranked = [...entries.keys()].sort((one, other) => (counts.get(other) ?? 0) - (counts.get(one) ?? 0));
const bandEnds = [600, 1800, 4000, 8000, Number.POSITIVE_INFINITY];
const bands = new Map(ranked.map((word, rank) => [word, bandEnds.findIndex((end) => rank < end) + 1]));

/** The children's list first, then by how often a word is used. */
const byRank = [...ranked].sort((one, other) => Number(children.has(other)) - Number(children.has(one)));
const MOST_RANKED = 4000;
const ranks = new Map(byRank.slice(0, MOST_RANKED).map((word, at) => [word, at + 1]));

const marked = new Map([...readAges(text("ages.txt"))].map(([word, mark]) => [word.toLowerCase(), mark]));
const unmarked = { knownBy: 12, drawn: false } as const;

/** What is said of a word, or follows from what is said of those that it is made of. */
function ageOf(word: string): AgeMark {
  const own = marked.get(word);
  if (own) return own;
  // A name is known as soon as someone is called by it.
  if (/^[A-Z]/.test(corrections.get(word)?.[0]?.written ?? "")) return { knownBy: 5, drawn: false };
  const { from, affix } = entries.get(word)?.[0] ?? {};
  if (!from) return unmarked;
  const parts = from.split("+").map((part) => ageOf(part).knownBy);
  return { knownBy: ageOfForm({ word, band: bands.get(word) ?? RARE_BAND, parts, affix }), drawn: false };
}

function written({ word, units, stressed, joints, how }: Entry): string {
  const shown = corrections.get(word)?.[0]?.written ?? word;
  return writeEntry({
    text: shown,
    units,
    band: bands.get(word) ?? 5,
    stressed,
    joints,
    corrected: how === "hand",
    ...ageOf(word),
    rank: ranks.get(word),
  });
}

const lines = [...entries.keys()].sort().flatMap((word) => (entries.get(word) ?? []).map(written));
writeFileSync(
  `${folder}/lexicon.txt`,
  `# Built by npm run data:words; do not edit. units|band|h: split by hand, 5 7 9: known by that age, d: can be drawn|as written|rank. See docs/word-engine.md.\n${lines.join("\n")}\n`,
);
const kinds = [...entries.values()].flat().reduce<Record<string, number>>((sum, { how }) => {
  sum[how] = (sum[how] ?? 0) + 1;
  return sum;
}, {});
const profane = [...entries.keys()].filter((word) => (cuss[word as keyof typeof cuss] ?? 0) >= 1);
console.log(`${entries.size} words, ${lines.length} readings:`, kinds);
console.log(`worth a look, because a list of swear words has them: ${profane.join(" ")}`);
console.log(problems.join("\n"));
