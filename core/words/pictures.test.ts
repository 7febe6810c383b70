import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { readLexicon, readPictures } from "./index.ts";

const pictures = readPictures(readFileSync("data/lexicon/pictures.txt", "utf8"));

test("hundreds of words have a picture; each is a word of the list that a child of nine knows", () => {
  const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
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
