import { readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { readLexicon } from "#core/words";
import { planSession } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const known = new Set(taughtUpTo(order, "s20"));

describe("one session over the whole word list", () => {
  bench("baseline: one pass over the list that asks what is decodable", () => {
    for (const word of lexicon.words) word.units.every((unit) => known.has(unit.gpc));
  });
  bench("planSession", () => {
    planSession({
      known,
      target: "oo=oo",
      revisit: ["ai=ai", "ee=ee"],
      lexicon,
      sentences,
      exceptionWords: exceptionWordsUpTo(order, "s20"),
      seed: 1,
    });
  });
});
