import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { readLexicon } from "#core/words";
import { scoreSentence, sentenceInWords } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const score = (sentence: string, written: string) => scoreSentence(sentence, written, { lexicon });
const asked = "The boat of Hari sank in the fog.";

describe("a dictated sentence", () => {
  test("right to the letter", () => {
    expect(score(asked, asked)).toMatchObject({
      right: 8,
      leftOut: [],
      putIn: [],
      capital: true,
      smallNames: [],
      oddCapitals: [],
      endMark: true,
      runTogether: [],
    });
    expect(sentenceInWords(score(asked, asked))).toEqual(["8 of 8 words are right to the letter."]);
  });
  test("words left out and put in", () => {
    expect(score(asked, "The boat sank in the fog.").leftOut).toEqual(["of", "Hari"]);
    expect(score(asked, "The big boat of Hari sank in the fog.").putIn).toEqual(["big"]);
    expect(score(asked, "").leftOut).toHaveLength(8);
  });
  test("capitals at the start, for names, and where none belongs", () => {
    const found = score(asked, "the boat of hari Sank in the foG.");
    expect(found).toMatchObject({ capital: false, smallNames: ["Hari"], oddCapitals: ["Sank", "foG"] });
    expect(score("Can I go in?", "Can i go in?").smallNames).toEqual(["I"]);
  });
  test("spaces and the end mark", () => {
    const found = score(asked, "The boat ofHari sank inthefog");
    expect(found).toMatchObject({ runTogether: ["ofHari", "inthefog"], endMark: false, leftOut: [], putIn: [] });
    expect(score("Can I go?", "Can I go.").endMark).toBe(false);
  });
  test("each misspelled word is scored by its units", () => {
    const found = score(asked, "The bote of Hari sanc in the fog.");
    expect(found.right).toBe(6);
    const boat = found.words.find((one) => one.word === "boat")?.spelling;
    expect(boat?.heardWell).toBe(true);
    expect(found.words.find((one) => one.word === "sank")?.spelling?.written).toBe("sanc");
  });
  test("a word that is misspelled is no word left out and another put in", () => {
    expect(score("Ben ran to the shed.", "Ben ran to the sed.")).toMatchObject({ leftOut: [], putIn: [] });
  });
  test("any text is taken; left out and right never add up to more than the sentence has", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (written) => {
        const found = score(asked, written);
        expect(found.right + found.leftOut.length).toBeLessThanOrEqual(8);
        expect(found.words).toHaveLength(8);
        expect(sentenceInWords(found)[0]).toMatch(/of 8 words/);
      }),
    );
  });
});
