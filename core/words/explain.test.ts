import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { accentOf, accents, saidAlike } from "#core/phonics";
import { explain, explainSpelling, misreadInWords, readLexicon, spellingInWords } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const words = lexicon.words.filter((word) => /^[a-z]{2,8}$/.test(word.text)).map((word) => word.text);

describe("what a misread says", () => {
  test("which unit went wrong, into which sound", () => {
    const told = explain("chunk", "shunk", { lexicon });
    expect(told).toMatchObject({ right: false, where: "consonant", realWord: false });
    expect(told.units.filter((unit) => unit.outcome !== "right")).toMatchObject([
      { unit: { gpc: "ch=ch" }, outcome: "other", heard: ["sh"] },
    ]);
  });
  test("what was put in, left out or swapped", () => {
    expect(explain("tap", "trap", { lexicon }).putIn).toEqual([{ sound: "r", before: 1 }]);
    expect(explain("milk", "mik", { lexicon })).toMatchObject({ clusterReduced: true, firstOfClusterDropped: false });
    expect(explain("stop", "top", { lexicon })).toMatchObject({ clusterReduced: true, firstOfClusterDropped: true });
    expect(explain("spot", "stop", { lexicon }).swapped).toEqual([1, 3]);
    expect(explain("was", "saw", { lexicon })).toMatchObject({ swapped: [0, 2], backwards: true, realWord: true });
  });
  test("mirrored letters", () => {
    expect(explain("bad", "dad", { lexicon }).reversed).toEqual(["b/d"]);
    expect(explain("queen", "peen", { lexicon }).reversed).toEqual(["p/q"]);
    expect(explain("cat", "cot", { lexicon }).reversed).toEqual([]);
  });
  test("an empty answer leaves every unit out", () => {
    const told = explain("ship", "", { lexicon });
    expect(told.units.map((unit) => unit.outcome)).toEqual(["left out", "left out", "left out"]);
    expect(told.where).toBe("both");
  });
  test("the cost grows with what is wrong", () => {
    const costs = ["chunk", "shunk", "shank", "lamp"].map((said) => explain("chunk", said, { lexicon }).cost);
    expect([...costs].sort((one, other) => one - other)).toEqual(costs);
    expect(costs[0]).toBe(0);
  });
});

describe("accents", () => {
  const right = (target: string, said: string, id: string) =>
    explain(target, said, { lexicon, accent: accentOf(id) }).right;
  test.each([
    ["bath", "barth", "neutral", true],
    ["pull", "pull", "neutral", true],
    ["cup", "coop", "neutral", false],
    ["car", "cah", "long-bath", true],
    ["car", "cah", "rhotic", false],
    ["caught", "cot", "rhotic-one-o", true],
    ["caught", "cot", "long-bath", false],
    ["poor", "paw", "long-bath", true],
    ["poor", "paw", "neutral", false],
  ])("%s as %s in %s", (target, said, id, same) => {
    expect(right(target, said, id)).toBe(same);
  });
  test("what is alike is alike both ways", () => {
    const keys = ["a", "ar", "o", "or", "u", "uu", "oo", "yoo", "ure", "air", "ear"];
    for (const accent of accents)
      for (const one of keys)
        for (const other of keys)
          expect(saidAlike(accent, { sound: one }, { sound: other })).toBe(
            saidAlike(accent, { sound: other }, { sound: one }),
          );
  });
  test("an unknown accent is the neutral one", () => {
    expect(accentOf("nowhere").id).toBe("neutral");
  });
});

describe("what a spelling says", () => {
  test("heard well and spelled another way", () => {
    expect(explainSpelling("train", "trane", { lexicon })).toMatchObject({ right: false, heardWell: true, share: 1 });
  });
  test("not heard yet: a cluster and a vowel", () => {
    const told = explainSpelling("train", "tan", { lexicon });
    expect(told.heardWell).toBe(false);
    expect(told.units.map((unit) => unit.outcome)).toEqual(["right", "missing", "implausible", "right"]);
    expect(told.share).toBe(0.5);
  });
  test("letters in another order", () => {
    expect(explainSpelling("girl", "gril", { lexicon }).order).toEqual([1, 1]);
    expect(explainSpelling("from", "form", { lexicon }).order).toEqual([1, 2]);
  });
  test("a mirrored letter is told apart from another sound", () => {
    expect(explainSpelling("bed", "ded", { lexicon }).units[0]).toMatchObject({
      outcome: "implausible",
      reversed: "b/d",
    });
    expect(explainSpelling("bed", "ted", { lexicon }).units[0]?.reversed).toBeUndefined();
  });
  test("capitals, spaces and marks do not matter", () => {
    expect(explainSpelling("Monday", " monday. ", { lexicon }).right).toBe(true);
    expect(explainSpelling("isn't", "isnt", { lexicon }).right).toBe(true);
  });
});

describe("in words for a colleague", () => {
  test.each([
    ["chunk", "shunk", ["ch /tʃ/ was read as /ʃ/."]],
    [
      "stop",
      "top",
      ["s was left out.", "It is the first sound of a cluster that fell away.", "“top” is another real word."],
    ],
    ["milk", "mik", ["l was left out.", "A sound of a cluster fell away."]],
    ["tap", "trap", ["/r/ was put in.", "“trap” is another real word."]],
    ["spot", "stop", ["p and t changed places.", "“stop” is another real word."]],
    ["was", "saw", ["The word was read from its end.", "“saw” is another real word."]],
    ["bad", "dad", ["b /b/ was read as /d/.", "Letters that mirror each other: b/d.", "“dad” is another real word."]],
    ["queen", "kween", ["Right: nothing is wrong in this accent."]],
  ])("%s read as %s", (target, said, lines) => {
    expect(misreadInWords(explain(target, said, { lexicon }))).toEqual(lines);
  });
  test.each([
    ["train", "train", ["Right, every letter."]],
    [
      "train",
      "trane",
      ["Heard well: every sound has a spelling that can stand for it.", "a–e spells /eɪ/ too; here it is ai."],
    ],
    ["train", "tan", ["Nothing stands for /r/, r.", "a does not spell /eɪ/; here it is ai."]],
    ["bed", "ded", ["d is the mirror of b."]],
    ["girl", "gril", ["Letters are in another order."]],
    ["cat", "catz", ["z stands for nothing in this word."]],
  ])("%s written as %s", (target, written, lines) => {
    expect(spellingInWords(explainSpelling(target, written, { lexicon }))).toEqual(lines);
  });
});

describe("for any answer", () => {
  const answer = fc.oneof(
    fc.constantFrom(...words),
    fc.stringMatching(/^[a-z]{0,10}$/),
    fc.string({ maxLength: 12 }),
  );
  test("the word itself is right, read and written", () => {
    fc.assert(
      fc.property(fc.constantFrom(...words), (word) => {
        expect(explain(word, word, { lexicon }).right).toBe(true);
        const spelled = explainSpelling(word, word, { lexicon });
        expect(spelled.right && spelled.units.every((unit) => unit.outcome === "right")).toBe(true);
      }),
      { numRuns: 150 },
    );
  });
  test("every unit gets exactly one outcome, and right means that nothing is wrong", () => {
    fc.assert(
      fc.property(fc.constantFrom(...words), answer, (target, said) => {
        const told = explain(target, said, { lexicon });
        expect(told.units.length).toBeGreaterThan(0);
        expect(told.right).toBe(told.units.every((unit) => unit.outcome === "right") && told.putIn.length === 0);
        expect(told.where === "nothing").toBe(told.right);
        const spelled = explainSpelling(target, said, { lexicon });
        expect(spelled.units.length).toBeGreaterThan(0);
        expect(spelled.share).toBeGreaterThanOrEqual(0);
        expect(spelled.share).toBeLessThanOrEqual(1);
        for (const line of [...misreadInWords(told), ...spellingInWords(spelled)]) expect(line).toMatch(/^\S.*\.$/s);
      }),
      { numRuns: 250 },
    );
  });
});
