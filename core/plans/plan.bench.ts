import { readdirSync, readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { readLibraryText } from "#core/reading";
import { readAnswers, readLexicon, readMadeUp } from "#core/words";
import { planSession, shippedRoutines } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const answers = readAnswers(readFileSync("data/sentences.txt", "utf8"));
const madeUp = readMadeUp(readFileSync("data/lexicon/made-up.txt", "utf8"));
const texts = readdirSync("data/texts").map((file) => readLibraryText(readFileSync(`data/texts/${file}`, "utf8")));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const known = new Set(taughtUpTo(order, "s20"));

describe("one session over the whole word list", () => {
  bench("baseline: one pass over the list that asks what is decodable", () => {
    for (const word of lexicon.words) word.units.every((unit) => known.has(unit.gpc));
  });
  const six = Array.from({ length: 6 }, (_, at) => ({
    id: `c${at}`,
    chances: new Map([...known].map((gpc, place) => [gpc, ((place * 7 + at * 3) % 10) / 10])),
  }));
  bench("30 minutes, eleven kinds of part, six children", () => {
    planSession({
      ...{ known, target: "oo=oo", revisit: ["ai=ai", "ee=ee"], lexicon, sentences, answers, madeUp, texts },
      ...{ exceptionWords: exceptionWordsUpTo(order, "s20"), seed: 1, children: six, age: 9 },
      routine: shippedRoutines.mixed,
    });
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
