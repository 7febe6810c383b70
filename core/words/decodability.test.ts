import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { correspondences, withImplied } from "#core/phonics";
import { decodability, judgeWord, readLexicon, wordsOf } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const known = new Set(
  "s=s a=a t=t p=p i=i n=n m=m d=d g=g o=o c=k k=k ck=k e=e u=u r=r h=h b=b f=f l=l ff=f ll=l ss=s".split(" "),
);
const none = new Set<string>();
const everything = new Set(correspondences.map((entry) => entry.gpc));

test("words keep their apostrophes and hyphens and lose the marks around them", () => {
  expect(wordsOf("“Isn’t Tam's hat wet?” she said -- 3 ducks, a well-fed cat…").map((word) => word.text)).toEqual([
    "Isn’t",
    "Tam's",
    "hat",
    "wet",
    "she",
    "said",
    "3",
    "ducks",
    "a",
    "well-fed",
    "cat",
  ]);
});

describe("each word", () => {
  const verdict = (word: string) =>
    judgeWord(word, { known, teaching: new Set(["sh=sh"]), wholes: new Set(["said", "the"]), lexicon });
  test.each([
    ["cat", "ready", []],
    ["Stop", "ready", []],
    ["ship", "target", []],
    ["said", "exception", [1]],
    ["The", "exception", [0, 1]],
    ["train", "not yet", [2]],
    ["made", "not yet", [1]],
    ["42", "sign", [0, 1]],
  ])("%s is %s", (word, kind, unexpected) => {
    expect(verdict(word)).toMatchObject({ verdict: kind, unexpected });
  });
  test("an exception word becomes an ordinary one when its last unit is taught", () => {
    const later = judgeWord("said", {
      known: new Set([...known, "ai=e"]),
      teaching: none,
      wholes: new Set(["said"]),
      lexicon,
    });
    expect(later.verdict).toBe("ready");
  });
  test("a word with two readings is taken in the one that can be read", () => {
    const one = judgeWord("read", { known: new Set([...known, "ea=e"]), teaching: none, lexicon });
    expect(one.verdict).toBe("ready");
    expect(one.reading.units[1]?.gpc).toBe("ea=e");
  });
  test("endings are not taught twice", () => {
    const jumped = new Set([...known, "j=j", "ed=t", "i_e=igh", "x=ks", "s=z"]);
    expect(judgeWord("liked", { known: jumped, teaching: none, lexicon }).verdict).toBe("ready");
    expect(judgeWord("boxes", { known: jumped, teaching: none, lexicon }).verdict).toBe("ready");
    expect(withImplied(["ed=d"]).has("d=id")).toBe(true);
  });
});

describe("a text", () => {
  const text = "The fish is in the ship. Fish, fish! A train ran at 10 to the unhelpful dragonfly.";
  const judged = decodability(text, known, new Set(["sh=sh"]), { lexicon, wholes: new Set(["the", "a", "to"]) });
  test("counts running and different words without numbers", () => {
    expect(judged.running).toBe(16);
    expect(judged.different).toBe(12);
  });
  test("counts what it practises and what is in the way", () => {
    expect(judged.practised).toEqual([{ gpc: "sh=sh", count: 4 }]);
    expect(judged.inTheWay.map((one) => one.gpc)).toContain("ai=ai");
    expect(judged.inTheWay.find((one) => one.gpc === "ai=ai")?.words).toEqual(["train"]);
  });
  test("names exception words and long ones with their syllables", () => {
    expect(judged.exceptionWords).toEqual(["the", "to"]);
    const long = judged.longWords.map((word) => word.reading.syllables.join("-"));
    expect(long).toContain("un-help-ful");
    expect(long).toContain("drag-on-fly");
  });
  test("its shares are of what can be read", () => {
    const all = decodability("cat sat on a mat", known, none, { lexicon });
    expect(all.shareOfRunning).toBe(1);
    expect(decodability("cat train", known, none, { lexicon }).shareOfDifferent).toBe(0.5);
    expect(decodability("", known, none, { lexicon }).shareOfRunning).toBe(1);
  });
});

test("whatever is pasted, every word is found again where it stands", () => {
  fc.assert(
    fc.property(fc.string({ unit: "grapheme", maxLength: 120 }), (text) => {
      const judged = decodability(text, known, none, { lexicon });
      for (const word of judged.words) expect(text.slice(word.at, word.at + word.text.length)).toBe(word.text);
      expect(judged.shareOfRunning).toBeGreaterThanOrEqual(0);
      expect(judged.shareOfRunning).toBeLessThanOrEqual(1);
    }),
    { numRuns: 200 },
  );
});

test("who knows more can read at least as much", () => {
  const text = "The heron stood by the lock and the boats waited while the water rushed into the chamber.";
  fc.assert(
    fc.property(fc.subarray([...everything]), fc.subarray([...everything]), (some, more) => {
      const less = decodability(text, new Set(some), none, { lexicon });
      const both = decodability(text, new Set([...some, ...more]), none, { lexicon });
      expect(both.shareOfRunning).toBeGreaterThanOrEqual(less.shareOfRunning);
    }),
    { numRuns: 60 },
  );
});
