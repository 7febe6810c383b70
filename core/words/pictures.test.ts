import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { readAnswers, readLexicon, readPictures } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const plurals: Readonly<Record<string, string>> = { men: "man", mice: "mouse" };
const pictures = readPictures(readFileSync("data/lexicon/pictures.txt", "utf8"));

test("hundreds of words have a picture; each is a word of the list that a child of nine knows", () => {
  expect(pictures.size).toBeGreaterThan(400);
  const odd = [...pictures.keys()].filter((word) => (lexicon.find(word)[0]?.knownBy ?? 12) > 9);
  expect(odd).toEqual([]);
});

test("every picture is one that the font has", () => {
  const ranges = Object.values(
    JSON.parse(readFileSync("node_modules/@fontsource/noto-emoji/unicode.json", "utf8")) as Record<string, string>,
  ).flatMap((all) =>
    all.split(",").map((part) => {
      const [from = "", to = from] = part.trim().replace("U+", "").split("-");
      return [Number.parseInt(from, 16), Number.parseInt(to, 16)] as const;
    }),
  );
  const has = (point: number) => ranges.some(([from, to]) => point >= from && point <= to);
  for (const [word, sign] of pictures)
    for (const one of sign) expect(one === "\uFE0F" || has(one.codePointAt(0) ?? 0), word).toBe(true);
});

test("a line gives its words one picture", () => {
  expect([...readPictures("# remark\n🐈 cat kitten\n")]).toEqual([
    ["cat", "🐈"],
    ["kitten", "🐈"],
  ]);
});

test("each phrase has a picture that shows a word of it, and is a few words that children know when they hear them", () => {
  const phrases = [...readAnswers(readFileSync("data/phrases.txt", "utf8"))];
  expect(phrases.length).toBeGreaterThan(250);
  expect(new Set(phrases.map(([phrase]) => phrase)).size).toBe(phrases.length);
  const shown = new Map(phrases);
  for (const [phrase, word] of shown) {
    const words = phrase.split(" ");
    expect(pictures.has(word), phrase).toBe(true);
    expect(words.length, phrase).toBeGreaterThan(1);
    expect(words.length, phrase).toBeLessThan(7);
    const isIt = (one: string) => one === word || one === `${word}s` || plurals[one] === word;
    expect(words.some(isIt), phrase).toBe(true);
    for (const one of words) expect(lexicon.find(one)[0]?.knownBy ?? 12, `${phrase}: ${one}`).toBeLessThan(9);
  }
});
