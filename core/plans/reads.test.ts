import { expect, test } from "vitest";
import { readEntry, toLexicon } from "#core/words";
import { helpWith, mustRead, planSession } from "./index.ts";

const lexicon = toLexicon(
  ["r ai n|1", "t r ai n|1", "s a t|1", "p ai n|1", "m ai n|1", "p a n|1", "m a p|1", "s ai l|2", "t ai l|2"].map(
    readEntry,
  ),
);
const letters = (text: string) => new Set([...text].map((letter) => `${letter}=${letter}`));
const wanted = { targets: ["ai=ai"], lexicon, wholes: new Set(["the"]) };

test("how many must read what a group is given", () => {
  expect([1, 2, 3, 5].map((count) => mustRead("all", count))).toEqual([1, 2, 3, 5]);
  expect([0, 1, 2, 3, 5].map((count) => mustRead("allButOne", count))).toEqual([0, 1, 1, 2, 4]);
  expect([0, 1, 2, 3, 5, 6].map((count) => mustRead("most", count))).toEqual([0, 1, 2, 2, 4, 4]);
});

test("who needs help with which words; the target, and what is read as a whole, are no help that anyone needs", () => {
  const readers = [
    { name: "Ada M.", reads: letters("rntspaml") },
    { name: "Ben T.", reads: letters("ntspaml") },
  ];
  expect(helpWith(["The rain", "train", "sat", "pain", "xyz"], readers, wanted)).toEqual([
    { name: "Ben T.", words: ["rain", "train"] },
  ]);
});

test("a plan by a limit of the group's own has more words, and says who needs help with which", () => {
  const [all, most] = [letters("ntspaml"), letters("rntspaml")];
  const readers = [
    { name: "Ada M.", reads: most },
    { name: "Ben T.", reads: all },
  ];
  const plan = (known: ReadonlySet<string>) =>
    planSession({
      known,
      readers,
      target: "ai=ai",
      revisit: [],
      lexicon,
      sentences: [],
      exceptionWords: [],
      seed: 1,
    });
  const words = (known: ReadonlySet<string>) =>
    plan(known).parts.flatMap(({ kind, items }) => (/Words$/.test(kind) ? items : []));
  expect(words(all)).not.toContain("rain");
  expect(plan(all).remarks.join(" ")).not.toContain("needs help");
  expect(words(most)).toContain("rain");
  expect(plan(most).remarks.join(" ")).toMatch(/Ben T\. needs help with (rain, train|train, rain)\./);
  expect(plan(most).remarks.join(" ")).not.toContain("Ada M. needs help");
});
