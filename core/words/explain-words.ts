import { ipa, showGrapheme } from "#core/phonics";
import type { Explanation, UnitHeard } from "./explain.ts";
import type { SpellingExplanation, UnitSpelled } from "./explain-spelling.ts";

/**
 * What a misread says, as short sentences for a colleague, the main thing first. One sentence when nothing is wrong.
 * @example misreadInWords(explain("chunk", "shunk", { lexicon })) // ["ch /tʃ/ was read as /ʃ/."]
 */
export function misreadInWords(told: Explanation): readonly string[] {
  if (told.right) return ["Right: nothing is wrong in this accent."];
  const found: string[] = [];
  if (told.backwards) found.push("The word was read from its end.");
  else if (told.swapped) {
    const [one, other] = told.swapped.map((at) => shown(told.units[at]));
    found.push(`${one} and ${other} changed places.`);
  }
  for (const heard of told.units) {
    if (heard.outcome === "other")
      found.push(`${shown(heard)} ${ipa(heard.unit.sound)} was read as ${heard.heard.map(ipa).join("")}.`);
    if (heard.outcome === "left out") found.push(`${shown(heard)} was left out.`);
  }
  for (const { sound } of told.putIn) found.push(`${ipa(sound)} was put in.`);
  if (told.firstOfClusterDropped) found.push("It is the first sound of a cluster that fell away.");
  else if (told.clusterReduced) found.push("A sound of a cluster fell away.");
  for (const pair of told.reversed) found.push(`Letters that mirror each other: ${pair}.`);
  if (told.realWord) found.push(`“${told.said.trim()}” is another real word.`);
  return found;
}

function shown(one: UnitHeard | UnitSpelled | undefined): string {
  return showGrapheme(one?.unit.grapheme ?? "");
}

/** What a spelling says, as short sentences for a colleague. */
export function spellingInWords(told: SpellingExplanation): readonly string[] {
  if (told.right) return ["Right, every letter."];
  const found: string[] = [];
  if (told.heardWell) found.push("Heard well: every sound has a spelling that can stand for it.");
  if (told.order) found.push("Letters are in another order.");
  for (const one of told.units) {
    const written = showGrapheme(one.written);
    if (one.reversed) found.push(`${written} is the mirror of ${shown(one)}.`);
    else if (one.outcome === "plausible")
      found.push(`${written} spells ${ipa(one.unit.sound)} too; here it is ${shown(one)}.`);
    else if (one.outcome === "implausible" && !told.order)
      found.push(`${written} does not spell ${ipa(one.unit.sound)}; here it is ${shown(one)}.`);
    else if (one.outcome === "missing") found.push(`Nothing stands for ${ipa(one.unit.sound)}, ${shown(one)}.`);
  }
  for (const { letters } of told.putIn) found.push(`${showGrapheme(letters)} stands for nothing in this word.`);
  return found;
}
