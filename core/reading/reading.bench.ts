import { readdirSync, readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { readOrder, taughtUpTo } from "#core/order";
import { dice, readLexicon, wordsOf } from "#core/words";
import {
  fitOf,
  type MarkKind,
  prepareText,
  type Reading,
  readLibraryText,
  scoreReading,
  textWords,
} from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const shipped = readdirSync("data/texts").map((file) => readLibraryText(readFileSync(`data/texts/${file}`, "utf8")));
const texts = Array.from({ length: 200 }, (_, at) => shipped[at % shipped.length] as (typeof shipped)[number]);
const prepared = texts.map((text) => prepareText(text, { lexicon }));
const from = dice(3);
const kinds: MarkKind[] = ["misread", "leftOut", "told", "putRight", "sounded", "again"];
const readings = Array.from({ length: 1000 }, (_, at): Reading => {
  const text = texts[at % texts.length]?.body ?? "";
  const words = wordsOf(text).length;
  return {
    text,
    ms: 60_000,
    stoppedAt: from.pick(words),
    marks: Array.from({ length: 8 }, () => ({
      at: from.pick(words),
      kind: kinds[from.pick(6)] as MarkKind,
      heard: null,
    })),
  };
});
/** Children of 30 different states of knowledge, ten of each. */
const children = Array.from({ length: 300 }, (_, at) => new Set(taughtUpTo(order, `s${2 + (at % 30)}`)));

describe("scoring 1,000 readings", () => {
  bench("baseline: the words of their texts", () => {
    for (const { text } of readings) textWords(text);
  });
  bench("scoreReading", () => {
    for (const reading of readings) scoreReading(reading);
  });
});

describe("fit of 200 texts", () => {
  bench("baseline: one pass of the words of all texts", () => {
    for (const { body } of texts) wordsOf(body);
  });
  bench("prepareText, once for all readers", () => {
    for (const text of texts) prepareText(text, { lexicon });
  });
  bench("for one child", () => {
    for (const text of prepared) fitOf(text, { known: children[15] as ReadonlySet<string> });
  });
  bench(
    "for 300 children",
    () => {
      for (const known of children) for (const text of prepared) fitOf(text, { known });
    },
    { iterations: 3, time: 0, warmupIterations: 0, warmupTime: 0 },
  );
});
