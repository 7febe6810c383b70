import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { cuss } from "cuss";
import { englishDataset, englishRecommendedTransformers, RegExpMatcher } from "obscenity";

/**
 * Words that have no place before children: those that a list of swear words is nearly sure of, and those of our own
 * list, kept as hashes so that nobody has to read them. The rule is told in docs/word-engine.md.
 */
const hashes = new Set(
  readFileSync("data/lexicon/unfit.txt", "utf8")
    .split("\n")
    .filter((line) => line !== "" && !line.startsWith("#")),
);

export function hashOf(word: string): string {
  return createHash("sha256").update(`keen:${word}`).digest("hex").slice(0, 12);
}

const rude = new RegExpMatcher({ ...englishDataset.build(), ...englishRecommendedTransformers });

/** A word that a list of rude words sees something in: good enough a reason to make up another. */
export function looksRude(word: string): boolean {
  return rude.hasMatch(word);
}

/** `chosen`: a person put the word on the list, so that its second meaning in a list of swear words does not count. */
export function isUnfit(word: string, chosen: boolean): boolean {
  return hashes.has(hashOf(word)) || (!chosen && (cuss[word as keyof typeof cuss] ?? 0) === 2);
}
