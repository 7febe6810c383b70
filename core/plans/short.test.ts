import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { findWords, readLexicon } from "#core/words";
import { planSession, whatWouldHelp } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const letters = [..."satpinm"].map((letter) => `${letter}=${letter}`);

test("where few words fit, the one spelling for which most wait is named, and that many more fit once it is known", () => {
  const known = new Set(letters);
  const told = whatWouldHelp(lexicon, { known, targets: ["oi=oi"] });
  if (!told) throw new Error("nothing would help");
  const count = (gpcs: Iterable<string>) => findWords({ lexicon, known: new Set(gpcs), target: "oi=oi" }).length;
  const before = count(known);
  expect(count([...known, told.gpc]) - before).toBeGreaterThanOrEqual(told.words);
  // No other spelling brings more.
  for (const gpc of ["c=k", "k=k", "b=b", "f=f", "r=r", "l=l", "d=d", "h=h", "s=z"])
    expect(count([...known, gpc]) - before).toBeLessThanOrEqual(count([...known, told.gpc]) - before);
  const { remarks } = planSession({
    ...{ known, target: "oi=oi", revisit: [], lexicon, sentences: [], exceptionWords: [], seed: 1 },
  });
  expect(remarks[0]).toMatch(/^Only \d+ words? with oi .* \d+ more words would fit with \S+ known\.$/);
});

test("nothing is named where hardly a word waits for one spelling alone", () => {
  expect(whatWouldHelp(lexicon, { known: new Set(), targets: ["oi=oi"] })).toBeUndefined();
});
