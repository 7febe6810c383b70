import { readdirSync, readFileSync } from "node:fs";
import { readOrder } from "#core/order";
import { readLexicon } from "#core/words";
import {
  ENOUGH_SENTENCES,
  phrasesEarly,
  readableAfter,
  readableFrom,
  sentencesFor,
  shelfOf,
  shippedPhrases,
  shippedSentences,
  shippedTexts,
} from "./shortage.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = shippedSentences();
const texts = shippedTexts();
const phrases = shippedPhrases();
for (const file of readdirSync("data/orders").sort()) {
  const order = readOrder(readFileSync(`data/orders/${file}`, "utf8"));
  const words = readableAfter(order, lexicon);
  const judged = readableFrom(sentences, order, lexicon);
  console.log(`\n${order.name}: ${sentences.length} sentences`);
  console.log("step: words readable, sentences readable");
  console.log(
    order.steps
      .map(
        (_, at) => `${at + 1}: ${words[at]}, ${judged.filter(({ step }) => step !== undefined && step <= at).length}`,
      )
      .join(" · "),
  );
  console.log(
    `never: ${judged
      .filter(({ step }) => step === undefined)
      .map(({ text }) => text)
      .slice(0, 20)
      .join(" | ")}`,
  );
  console.log(
    `phrases before that, step: words, phrases: ${phrasesEarly(phrases, order, lexicon)
      .map((one) => `${one.step}: ${one.words}, ${one.phrases}`)
      .join(" · ")}`,
  );
  const all = sentencesFor(sentences, order, lexicon);
  const short = all.filter(({ have }) => have < ENOUGH_SENTENCES);
  console.log(`points: ${all.length}, short: ${short.length}`);
  for (const { step, point, have } of short) console.log(`  step ${step}, ${point}: ${have} of ${ENOUGH_SENTENCES}`);
  const { wordsFrom, firstFrom, thirds, never } = shelfOf(texts, order, lexicon);
  console.log(
    `texts: 40 words from step ${wordsFrom}, first text from step ${firstFrom}; in each third ${thirds.join(", ")}; never ${never}`,
  );
}
