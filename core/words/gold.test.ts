import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { explain, explainSpelling, readLexicon, spellOut, split } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const lines = (file: string) =>
  readFileSync(`core/words/gold/${file}`, "utf8")
    .split("\n")
    .filter((line) => line.trim() !== "" && !line.startsWith("#"));

interface GoldWord {
  readonly word: string;
  readonly graphemes: readonly string[];
  readonly asked: readonly (string | undefined)[];
}

function goldWords(file: string): readonly GoldWord[] {
  return lines(file)
    .flatMap((line) => line.split(","))
    .map((notation) => {
      const pieces = notation.trim().split(/\s+/);
      const graphemes = pieces.map((piece) => piece.split("=")[0] ?? "");
      const word = spellOut(graphemes.map((grapheme) => ({ gpc: grapheme, grapheme, sound: "" })));
      return { word, graphemes, asked: pieces.map((piece) => (piece.includes("=") ? piece : undefined)) };
    });
}

function scoreWords(gold: readonly GoldWord[]) {
  const wrongSplits: string[] = [];
  const wrongSounds: string[] = [];
  let asked = 0;
  for (const { word, graphemes, asked: gpcs } of gold) {
    const units = split(word, { lexicon })[0]?.units ?? [];
    const have = units.map((unit) => unit.grapheme).join(" ");
    if (have !== graphemes.join(" ")) wrongSplits.push(`${word}: ${have}`);
    else
      gpcs.forEach((gpc, at) => {
        if (gpc === undefined) return;
        asked++;
        if (units[at]?.gpc !== gpc) wrongSounds.push(`${word}: ${units[at]?.gpc}, not ${gpc}`);
      });
  }
  return {
    wrongSplits,
    wrongSounds,
    asked,
    splits: 1 - wrongSplits.length / gold.length,
    sounds: 1 - wrongSounds.length / Math.max(1, asked),
  };
}

/** What the engine says of a misread, in the notation of the gold file. */
function misread(target: string, said: string): string {
  const told = explain(target, said, { lexicon });
  if (told.right) return "ok";
  const pair = told.swapped?.map((at) => told.units[at]?.unit.gpc).join("~");
  return [
    ...(pair ? [pair] : []),
    ...told.units.flatMap(({ unit, outcome, heard }) =>
      outcome === "left out" ? [`-${unit.gpc}`] : outcome === "other" ? [`${unit.gpc}>${heard.join("+")}`] : [],
    ),
    ...told.putIn.map(({ sound }) => `+${sound}`),
    ...(told.realWord ? ["real"] : []),
    ...(told.firstOfClusterDropped ? ["first"] : []),
    ...told.reversed,
  ].join(" ");
}

function spelling(target: string, written: string): string {
  const told = explainSpelling(target, written, { lexicon });
  if (told.order && !told.heardWell) return "order";
  return [
    ...(told.heardWell ? ["heard"] : []),
    ...told.units.flatMap(({ unit, outcome, written: letters, reversed }) =>
      outcome === "right"
        ? []
        : outcome === "missing"
          ? [`-${unit.gpc}`]
          : [`${unit.gpc}${outcome === "plausible" ? ":" : "!"}${letters}${reversed ? "/" : ""}`],
    ),
    ...told.putIn.map(({ letters }) => `+${letters}`),
  ].join(" ");
}

function wrongLines(file: string, say: (target: string, given: string) => string): { wrong: string[]; of: number } {
  const all = lines(file);
  const sorted = (text: string) => text.split(" ").sort().join(" ");
  const wrong = all.flatMap((line) => {
    const [asked = "", want = ""] = line.split(/:\s(.*)/s);
    const [target = "", given = ""] = asked.split(" ");
    const have = say(target, given);
    return sorted(have) === sorted(want) ? [] : [`${asked}: ${have}, not ${want}`];
  });
  return { wrong, of: all.length };
}

describe("gold files, written by hand before the engine saw them", () => {
  test("at least 99% of child-level words are split exactly, 98% of the asked sounds are right", () => {
    const gold = goldWords("words.txt");
    const score = scoreWords(gold);
    expect(gold.length).toBeGreaterThanOrEqual(300);
    expect(score.asked).toBeGreaterThanOrEqual(300);
    expect(score.splits, score.wrongSplits.join("\n")).toBeGreaterThanOrEqual(0.99);
    expect(score.sounds, score.wrongSounds.join("\n")).toBeGreaterThanOrEqual(0.98);
  });
  test("at least 92% of invented words are split as the rules would have it", () => {
    const gold = goldWords("invented.txt");
    const score = scoreWords(gold);
    expect(gold.length).toBeGreaterThanOrEqual(50);
    expect(score.splits, score.wrongSplits.join("\n")).toBeGreaterThanOrEqual(0.92);
    expect(score.sounds, score.wrongSounds.join("\n")).toBeGreaterThanOrEqual(0.92);
  });
  test("at least 92% of misreads are explained exactly", () => {
    const { wrong, of } = wrongLines("misreads.txt", misread);
    expect(of).toBeGreaterThanOrEqual(100);
    expect(1 - wrong.length / of, wrong.join("\n")).toBeGreaterThanOrEqual(0.92);
  });
  test("at least 92% of spellings are explained exactly", () => {
    const { wrong, of } = wrongLines("spellings.txt", spelling);
    expect(of).toBeGreaterThanOrEqual(100);
    expect(1 - wrong.length / of, wrong.join("\n")).toBeGreaterThanOrEqual(0.92);
  });
});
