import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { listed } from "#core/saying";
import { findWords, readLexicon } from "#core/words";
import { planSession, whatWouldHelp, wordsForMost } from "./index.ts";

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

test("words that most can read are offered with who cannot, never what all or only half of them can", () => {
  const reader = (name: string, more: readonly string[]) => ({ name, reads: new Set([...letters, ...more]) });
  const readers = [
    reader("Ada M.", ["k=k", "l=l", "b=b"]),
    reader("Ben T.", ["k=k", "l=l"]),
    reader("Cy W.", ["l=l"]),
    reader("Di P.", ["k=k"]),
  ];
  const { words, without } = wordsForMost(lexicon, { readers, targets: ["oi=oi"] });
  expect(words.length).toBeGreaterThan(0);
  expect(words.length).toBeLessThanOrEqual(6);
  for (const word of words) {
    const gpcs = lexicon.find(word)[0]?.units.map(({ gpc }) => gpc) ?? [];
    const can = readers.filter(({ reads }) => gpcs.every((gpc) => gpc === "oi=oi" || reads.has(gpc)));
    expect([can.length > 2, can.length < 4], word).toEqual([true, true]);
    for (const { name } of readers.filter((one) => !can.includes(one))) expect(without).toContain(name);
  }
  expect(
    wordsForMost(lexicon, { readers: [reader("Ada M.", []), reader("Ben T.", [])], targets: ["oi=oi"] }),
  ).toEqual({
    ...{ words: [], without: [] },
  });
  const { remarks } = planSession({
    ...{ known: new Set(letters), readers, target: "oi=oi", revisit: [], lexicon, sentences: [], exceptionWords: [] },
    seed: 1,
  });
  expect(remarks).toContain(`Most can read ${listed(words)} (not yet: ${listed(without)}).`);
});
