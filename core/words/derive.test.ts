import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { apostropheUnits, derivations, readUnits, spellOut, type Unit } from "./index.ts";

const bases: Record<string, string> = {
  cat: "c a t",
  dog: "d o g",
  box: "b o x",
  kiss: "k i ss",
  cake: "c a_e k",
  horse: "h or se=s",
  judge: "j u dge",
  dance: "d a n ce",
  love: "l o=u ve",
  little: "l i tt le",
  handle: "h a n d le",
  gentle: "g=j e n t le",
  happy: "h a pp y",
  try: "t r y=igh",
  play: "p l ay",
  leaf: "l ea f",
  knife: "kn i_e f",
  potato: "p o=schwa t a=ai t o=oa",
  stop: "s t o p",
  star: "s t ar",
  stir: "s t ir",
  care: "c are",
  here: "h ere",
  come: "c o_e=u m",
  die: "d ie",
  see: "s ee",
  smile: "s m i_e l",
  want: "w a=o n t",
  hate: "h a_e t",
  rub: "r u b",
  rain: "r ai n",
  cool: "c oo l",
  hope: "h o_e p",
  kind: "k i=igh n d",
  quiz: "qu i z",
  panic: "p a n i c",
};
const known = new Map(Object.entries(bases).map(([word, notation]) => [word, readUnits(notation)]));
const find = (word: string): readonly Unit[] | undefined => known.get(word);
const first = (word: string) => derivations(word, find)[0];
const written = (word: string) =>
  first(word)
    ?.units.map((unit) => unit.gpc)
    .join(" ");

describe("endings on a known word", () => {
  test.each([
    ["cats", "c=k a=a t=t s=s"],
    ["dogs", "d=d o=o g=g s=z"],
    ["boxes", "b=b o=o x=ks es=iz"],
    ["kisses", "k=k i=i ss=s es=iz"],
    ["cakes", "c=k a_e=ai k=k s=s"],
    ["horses", "h=h or=or se=s s=iz"],
    ["leaves", "l=l ea=ee ve=v s=z"],
    ["knives", "kn=n i_e=igh v=v s=z"],
    ["tries", "t=t r=r ie=igh s=z"],
    ["potatoes", "p=p o=schwa t=t a=ai t=t oe=oa s=z"],
    ["quizzes", "qu=kw i=i zz=z es=iz"],
  ])("%s is %s", (word, units) => {
    expect(written(word)).toBe(units);
  });
  test.each([
    ["smiled", "s=s m=m i_e=igh l=l d=d"],
    ["hated", "h=h a_e=ai t=t d=id"],
    ["wanted", "w=w a=o n=n t=t ed=id"],
    ["stopped", "s=s t=t o=o pp=p ed=t"],
    ["rubbed", "r=r u=u bb=b ed=d"],
    ["tried", "t=t r=r i=igh ed=d"],
    ["played", "p=p l=l ay=ai ed=d"],
    ["judged", "j=j u=u dge=j d=d"],
    ["panicked", "p=p a=a n=n i=i ck=k ed=t"],
    ["starred", "s=s t=t ar=ar r=r ed=d"],
  ])("%s is %s", (word, units) => {
    expect(written(word)).toBe(units);
  });
  test.each([
    ["caking", "c=k a=ai k=k i=i ng=ng"],
    ["coming", "c=k o=u m=m i=i ng=ng"],
    ["loving", "l=l o=u v=v i=i ng=ng"],
    ["dancing", "d=d a=a n=n c=s i=i ng=ng"],
    ["handling", "h=h a=a n=n d=d l=l i=i ng=ng"],
    ["stirring", "s=s t=t ir=er r=r i=i ng=ng"],
    ["caring", "c=k ar=air i=i ng=ng"],
    ["seeing", "s=s ee=ee i=i ng=ng"],
    ["trying", "t=t r=r y=igh i=i ng=ng"],
    ["judging", "j=j u=u dg=j i=i ng=ng"],
  ])("%s is %s", (word, units) => {
    expect(written(word)).toBe(units);
  });
  test.each([
    ["gently", "g=j e=e n=n t=t l=l y=ee"],
    ["coolly", "c=k oo=oo ll=l y=ee"],
    ["happily", "h=h a=a pp=p i=ee l=l y=ee"],
    ["hopeful", "h=h o_e=oa p=p f=f u=schwa l=l"],
    ["kindness", "k=k i=igh n=n d=d n=n e=e ss=s"],
    ["rainy", "r=r ai=ai n=n y=ee"],
    ["happiest", "h=h a=a pp=p i=ee e=e s=s t=t"],
    ["unkind", "u=u n=n k=k i=igh n=n d=d"],
  ])("%s is %s", (word, units) => {
    expect(written(word)).toBe(units);
  });
});

test("the joint is where the added part begins", () => {
  expect(first("hopeful")).toMatchObject({ base: "hope", affix: "ful", place: "after", joint: 3 });
  expect(first("unkind")).toMatchObject({ base: "kind", affix: "un", place: "before", joint: 2 });
});

test("nothing is derived from a word that is not known, nor from itself", () => {
  expect(derivations("zaps", find)).toEqual([]);
  expect(derivations("cat", find)).toEqual([]);
  expect(derivations("", find)).toEqual([]);
});

test("whatever is derived spells the word that was asked for", () => {
  const ending = fc.constantFrom(
    "s",
    "es",
    "ed",
    "d",
    "ing",
    "er",
    "est",
    "y",
    "ly",
    "ful",
    "less",
    "ness",
    "ies",
    "ied",
    "ier",
    "ves",
  );
  const stem = fc
    .constantFrom(...Object.keys(bases))
    .chain((word) => fc.constantFrom(word, word.slice(0, -1), word + word.slice(-1)));
  fc.assert(
    fc.property(stem, ending, (start, end) => {
      const word = start + end;
      for (const { units, joint } of derivations(word, find)) {
        expect(spellOut(units)).toBe(word);
        expect(joint).toBeGreaterThan(0);
        expect(joint).toBeLessThan(units.length);
      }
    }),
    { numRuns: 400 },
  );
});

test.each([
  ["cat", "s", "s=s"],
  ["dog", "s", "s=z"],
  ["box", "s", "s=iz"],
  ["dog", "ll", "ll=l"],
  ["see", "d", "d=d"],
])("%s and 's part %s: %s", (word, part, gpc) => {
  expect(
    apostropheUnits(find(word) ?? [], part)
      ?.map((unit) => unit.gpc)
      .join(" "),
  ).toBe(gpc);
});

test("a part after an apostrophe that is none is left alone", () => {
  expect(apostropheUnits(find("cat") ?? [], "zzz")).toBeUndefined();
});
