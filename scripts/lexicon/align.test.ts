import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { candidates, readLexicon, readUnits } from "#core/words";
import { align } from "./align.ts";
import { readCorrections } from "./corrections.ts";
import { neutralised } from "./neutral.ts";
import { pronunciations, soundsCompound, soundsDerived } from "./pron.ts";
import { codeOfUnits, codesOfRealWords } from "./sound-alike.ts";
import { isUnfit } from "./unfit.ts";

function aligned(word: string): string | undefined {
  const best = pronunciations(word)
    .map((phones) => align(word, phones))
    .filter((one) => one !== undefined)
    .sort((one, other) => one.cost - other.cost)[0];
  return best && neutralised(word, best).join(" ");
}

describe("letters laid against phones", () => {
  test.each([
    ["cake", "c=k a_e=ai k=k"],
    ["have", "h=h a=a ve=v"],
    ["taste", "t=t a=ai s=s te=t"],
    ["bathe", "b=b a_e=ai th=dh"],
    ["knight", "kn=n igh=igh t=t"],
    ["sink", "s=s i=i n=ng k=k"],
    ["quick", "qu=kw i=i ck=k"],
    ["castle", "c=k a=a st=s le=l"],
    ["station", "s=s t=t a=ai ti=sh o=schwa n=n"],
    ["picture", "p=p i=i c=k t=ch ure=schwa"],
    ["through", "th=th r=r ough=oo"],
    ["cough", "c=k ou=o gh=f"],
    ["gnome", "gn=n o_e=oa m=m"],
    ["some", "s=s o_e=u m=m"],
    ["box", "b=b o=o x=ks"],
    ["word", "w=w or=er d=d"],
    ["rhyme", "rh=r y_e=igh m=m"],
    ["hurry", "h=h u=u rr=r y=ee"],
    ["table", "t=t a=ai b=b le=l"],
  ])("%s is %s", (word, units) => {
    expect(aligned(word)).toBe(units);
  });
  test("what cannot be matched is not forced", () => {
    expect(align("cat", ["K", "AE1", "T", "S", "B", "AH0"])).toBeUndefined();
    expect(align("", [])).toEqual({ units: [], cost: 0 });
  });
});

describe("sounds are neutral between accents", () => {
  test.each([
    ["want", "a=o"],
    ["ball", "a=or"],
    ["drama", "a=ar"],
    ["any", "a=e"],
    ["new", "ew=yoo"],
    ["tune", "u_e=yoo"],
    ["rude", "u_e=oo"],
    ["forest", "o=o"],
    ["story", "or=or"],
    ["begin", "e=ee"],
    ["basket", "e=e"],
    ["kitten", "e=schwa"],
    ["village", "a=i"],
    ["natural", "ur=schwa"],
  ])("%s has %s", (word, gpc) => {
    expect(aligned(word)?.split(" ")).toContain(gpc);
  });
});

describe("endings and compounds are told by their sound", () => {
  test.each([
    ["smiled", "smile", "d", true],
    ["boxes", "box", "es", true],
    ["wicked", "wick", "ed", true],
    ["number", "numb", "er", false],
    ["gently", "gentle", "ly", true],
    ["wolves", "wolf", "es", true],
  ])("%s from %s with %s: %s", (word, base, affix, so) => {
    expect(soundsDerived(word, base, affix, "after")).toBe(so);
  });
  test("a compound sounds as its parts", () => {
    expect(soundsCompound("postman", "post", "man")).toBe(true);
    expect(soundsCompound("father", "fat", "her")).toBe(false);
  });
});

describe("corrections", () => {
  test("are read with stress, joints and readings", () => {
    const [row, second] = readCorrections("rainbow: r 'ai n +b ow=oa ; r 'ai n +b ow # two").get("rainbow") ?? [];
    expect(row).toMatchObject({ stressed: 1, joints: [3], written: "rainbow", reason: "two" });
    expect(second?.units.at(-1)?.gpc).toBe("ow=ow");
  });
  test.each([
    ["cat: c a t", /reason/],
    ["cat: c o t # why", /does not spell cat/],
    ["cat: c a t # a\ncat: c a t # b", /twice/],
  ])("%j is refused", (text, says) => {
    expect(() => readCorrections(text)).toThrow(says);
  });
});

test("no made-up word sounds like a real one in any accent", () => {
  const sounding = codesOfRealWords();
  const lines = readFileSync("data/lexicon/made-up.txt", "utf8")
    .split("\n")
    .filter((line) => line && !line.startsWith("#"));
  expect(lines.filter((line) => sounding.has(codeOfUnits(readUnits(line))))).toEqual([]);
  expect(codeOfUnits(readUnits("c o t"))).toBe(codeOfUnits(readUnits("c augh t")));
  expect(candidates(1).length).toBeGreaterThan(10_000);
});

test("words unfit for children stay out", () => {
  const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
  expect(lexicon.words.filter((word) => isUnfit(word.text, true)).map((word) => word.text)).toEqual([]);
  expect(isUnfit("ship", false)).toBe(false);
});
