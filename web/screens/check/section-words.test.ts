import { describe, expect, test } from "vitest";
import { sectionOf } from "#core/checks";
import { kindIds } from "#core/ledger";
import { optionsOf, sectionInWords } from "./section-words.ts";

describe("a part of a plan in one line", () => {
  test.each([
    ["what is due", sectionOf("card", { scope: "due" }), "what is not secure yet"],
    ["the last steps", sectionOf("card", { scope: "recent", recentSteps: 3 }), "the last 3 steps"],
    ["what was picked", sectionOf("card", { scope: "picked", picked: ["b=b", "d=d"] }), "2 picked by hand"],
    [
      "a minute",
      sectionOf("card", { scope: "all", form: "minute" }),
      "everything taught · as many as a minute holds",
    ],
    ["choices", sectionOf("find", { scope: "all", choices: 6 }), "everything taught · among 6"],
    ["letters", sectionOf("names", { cases: "capital" }), "capital letters"],
    [
      "words and a sentence",
      sectionOf("dictation", { scope: "all", most: 4, sentence: true }),
      "everything taught · 4 words and a sentence",
    ],
    [
      "blocks",
      sectionOf("words", { scope: "all", most: 5, blocks: ["three", "five"] }),
      "everything taught · 3 sounds, 5 sounds, 5 each",
    ],
    [
      "only what was missed",
      sectionOf("exception", { scope: "all", strategy: "missed" }),
      "everything taught · only what was missed last time",
    ],
  ])("%s", (_, section, says) => {
    expect(sectionInWords(section)).toBe(says);
  });
  test("listening tasks by their names", () => {
    expect(sectionInWords(sectionOf("listen", { tasks: ["sounds", "alike"], most: 3 }))).toMatch(/^.+, .+, 3 each$/);
  });
});

describe("the choices of a kind", () => {
  test("every kind has a line and choices of its own; a sheet has no order and no stop", () => {
    for (const kind of kindIds) {
      const { strategy, stop, form } = optionsOf({ kind, scope: "all" });
      expect(strategy).toBe(stop);
      if (!strategy) expect(form).toBe(false);
      expect(sectionInWords(sectionOf(kind))).not.toBe("");
    }
  });
  test("spellings are asked whole unless they are those that are due", () => {
    expect(optionsOf({ kind: "card", scope: "all" }).most).toBe(false);
    expect(optionsOf({ kind: "card", scope: "due" }).most).toBe(true);
    expect(optionsOf({ kind: "words", scope: "all" }).most).toBe(true);
    expect(optionsOf({ kind: "exception", scope: "all" }).picks).toBe("words");
  });
});
