import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { readOrder } from "#core/order";
import { kindOfSentence, readAnswers, readLexicon, toLexicon, wordsOf } from "#core/words";
import {
  ENOUGH_SENTENCES,
  phrasesEarly,
  readableFrom,
  sentencesFor,
  shelfOf,
  shippedPhrases,
  shippedSentences,
  shippedTexts,
  TEXTS_A_THIRD,
} from "./shortage.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = shippedSentences();

test.each(readdirSync("data/orders"))(
  "%s: a first text as soon as forty words can be read, three and more in each third",
  (file) => {
    const order = readOrder(readFileSync(`data/orders/${file}`, "utf8"));
    const { wordsFrom, firstFrom, thirds } = shelfOf(shippedTexts(), order, lexicon);
    expect(firstFrom).toBeLessThanOrEqual(wordsFrom);
    expect(Math.min(...thirds)).toBeGreaterThanOrEqual(TEXTS_A_THIRD);
  },
);

test.each(readdirSync("data/orders"))(
  "%s: phrases from the step on at which five words can be read, ten of them from forty words on",
  (file) => {
    const order = readOrder(readFileSync(`data/orders/${file}`, "utf8"));
    const early = phrasesEarly(shippedPhrases(), order, lexicon);
    expect(early.length).toBeGreaterThanOrEqual(3);
    for (const { step, words, phrases } of early)
      expect(phrases, `step ${step}`).toBeGreaterThanOrEqual(words >= 40 ? 10 : 2);
  },
);

describe("the sentences that ship", () => {
  test.each(readdirSync("data/orders"))("%s: every point has a dozen once it is taught", (file) => {
    const order = readOrder(readFileSync(`data/orders/${file}`, "utf8"));
    const all = sentencesFor(sentences, order, lexicon);
    expect(all.length).toBeGreaterThan(50);
    expect(all.filter(({ have }) => have < ENOUGH_SENTENCES)).toEqual([]);
  });

  test("are nine hundred and more; six in ten have only words that are known by five", () => {
    expect(sentences.length).toBeGreaterThanOrEqual(900);
    const early = sentences.filter((text) =>
      wordsOf(text).every(({ text: word }) => (lexicon.find(word)[0]?.knownBy ?? 12) <= 5),
    );
    expect(early.length / sentences.length).toBeGreaterThan(0.6);
  });

  test("answers stand behind questions alone, and begin with a yes, a no or who can tell", () => {
    const answers = readAnswers(readFileSync("data/sentences.txt", "utf8"));
    expect(answers.size).toBeGreaterThanOrEqual(60);
    for (const question of answers.keys()) expect(kindOfSentence(question), question).toBe("question");
    for (const question of answers.keys()) expect(sentences).toContain(question);
  });
});

test("a sentence is readable from the step on that teaches its last spelling, and short ones are missed", () => {
  const small = toLexicon(
    ["c a t", "s a t", "sh o p"].map((units) => ({ ...lexicon.find(units.replaceAll(" ", ""))[0] }) as never),
  );
  const order = readOrder("name: N\nkind: k\nwhy: w\none: s a t c | the\ntwo: sh o p");
  const judged = readableFrom(["The cat sat.", "The shop sat.", "The dog sat."], order, small);
  expect(judged.map(({ step }) => step)).toEqual([0, 1, undefined]);
});
