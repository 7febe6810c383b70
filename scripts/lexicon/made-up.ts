import { readFileSync, writeFileSync } from "node:fs";
import { dictionary } from "cmu-pronouncing-dictionary";
import { cuss } from "cuss";
import {
  candidates,
  dice,
  readByRule,
  readLexicon,
  shapeOf,
  shuffled,
  spellOut,
  syllableStarts,
  type Unit,
  writeEntry,
} from "#core/words";
import { counts } from "./frequency.ts";
import { codeOfUnits, codesOfRealWords } from "./sound-alike.ts";
import { isUnfit, looksRude } from "./unfit.ts";

/** Words to ship of one shape; shapes with fewer give what they have. */
const MOST_A_SHAPE = 420;
const SEED = 20261124;

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const real = new Set([
  ...Object.keys(dictionary),
  ...counts.keys(),
  ...lexicon.words.map((word) => word.text.toLowerCase()),
]);
const sounding = codesOfRealWords();
for (const word of lexicon.words) (sounding as Set<string>).add(codeOfUnits(word.units));
const rude = Object.keys(cuss).filter(
  (word) => /^[a-z]{3,}$/.test(word) && (cuss[word as keyof typeof cuss] ?? 0) >= 1,
);

function good(units: readonly Unit[]): boolean {
  const text = spellOut(units);
  if (real.has(text) || real.has(`${text}s`) || isUnfit(text, false) || sounding.has(codeOfUnits(units)))
    return false;
  if (looksRude(text)) return false;
  if (rude.some((word) => text.includes(word) && (word.length > 3 || text.startsWith(word)))) return false;
  const read = readByRule(text, lexicon, 1)[0];
  return read?.units.map((unit) => unit.gpc).join(" ") === units.map((unit) => unit.gpc).join(" ");
}

const byShape = new Map<string, string[]>();
const seen = new Set<string>();
for (const units of shuffled(candidates(SEED), dice(SEED))) {
  const text = spellOut(units);
  const shape = shapeOf(units, syllableStarts(units));
  const here = byShape.get(shape) ?? [];
  if (seen.has(text) || here.length >= MOST_A_SHAPE || !good(units)) continue;
  seen.add(text);
  here.push(
    writeEntry({ text, units, band: 5, stressed: -1, joints: [], corrected: false, knownBy: 12, drawn: false }).split(
      "|",
    )[0] ?? "",
  );
  byShape.set(shape, here);
}
const lines = [...byShape.values()].flat().sort();
writeFileSync(
  "data/lexicon/made-up.txt",
  `# Built by npm run data:words; do not edit. Words that are none, as units. See docs/word-engine.md.\n${lines.join("\n")}\n`,
);
console.log(
  `${lines.length} made-up words:`,
  Object.fromEntries([...byShape].map(([shape, list]) => [shape, list.length])),
);
