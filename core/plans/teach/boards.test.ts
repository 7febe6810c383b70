import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { type Gpc, showGrapheme, splitGpc } from "#core/phonics";
import { readLexicon, type Unit } from "#core/words";
import {
  type Board,
  boxesFor,
  columnsFor,
  commonEnds,
  heapsIn,
  heardIn,
  isLaidRight,
  laidOn,
  spotAmong,
  verdicts,
  wordOn,
} from "../index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const unitsOf = (text: string): readonly Unit[] => lexicon.find(text)[0]?.units ?? [];
const known: Gpc[] = [
  "s=s",
  "a=a",
  "t=t",
  "p=p",
  "i=i",
  "n=n",
  "m=m",
  "sh=sh",
  "ai=ai",
  "ay=ai",
  "ee=ee",
  "ea=ee",
  "k=k",
  "c=k",
];

/** Lays every tile where it belongs, as a child would who knows it. */
function solved({ tiles, wants, first }: Board) {
  const laid: (number | null)[] = first.map((at, tile) =>
    at !== null && wants[at]?.includes(tiles[tile] ?? "") ? at : null,
  );
  for (const [place, [want]] of wants.entries()) {
    if (want === undefined || laid.includes(place)) continue;
    laid[tiles.findIndex((tile, at) => tile === want && laid[at] === null)] = place;
  }
  return laid;
}

describe("boxes for the sounds of a word", () => {
  test("a box a sound, a tile a spelling, and two that these children know and that do not belong, of the same sound first", () => {
    const board = boxesFor({ units: unitsOf("rain"), known, seed: 3 });
    expect(board.places).toHaveLength(3);
    expect(board.tiles).toHaveLength(5);
    expect(board.tiles).toEqual(expect.arrayContaining(["r", "ai", "n", "ay"]));
    expect(board.first).toEqual([null, null, null, null, null]);
  });
  test("laid right is right, each tile by itself; the word that stands there is read off it", () => {
    const board = boxesFor({ units: unitsOf("make"), known: [...known, "a_e=ai"], seed: 1 });
    const right = solved(board);
    expect(wordOn(board, right)).toBe("make");
    expect(isLaidRight(board, right)).toBe(true);
    const ay = board.tiles.findIndex((tile) => !["m", "a_e", "k"].includes(tile));
    const vowel = board.tiles.indexOf("a_e");
    const wrong = right.with(vowel, null).with(ay, 1);
    expect(verdicts(board, wrong)[ay]).toBe("wrong");
    expect(verdicts(board, wrong)[board.tiles.indexOf("m")]).toBe("right");
    expect(verdicts(board, wrong)[vowel]).toBeNull();
    expect(isLaidRight(board, wrong)).toBe(false);
    expect(isLaidRight(board, right.with(vowel, null))).toBe(false);
  });
  test("the same spelling twice: either tile is right in either box", () => {
    const board = boxesFor({ units: unitsOf("pip"), known, seed: 1 });
    const [one = -1, other = -1] = board.tiles.flatMap((tile, at) => (tile === "p" ? at : []));
    const laid = solved(board);
    const turned = laid.with(one, laid[other] ?? null).with(other, laid[one] ?? null);
    expect(isLaidRight(board, turned)).toBe(true);
  });
  test("with nothing else known there are only its own tiles", () => {
    expect(boxesFor({ units: unitsOf("sat"), known: ["s=s", "a=a", "t=t"], seed: 1 }).tiles.toSorted()).toEqual([
      "a",
      "s",
      "t",
    ]);
  });
  test("in a chain the word before lies there, and only what changes is to be laid", () => {
    const changed = boxesFor({ units: unitsOf("ship"), before: unitsOf("sip"), known, seed: 2 });
    expect(wordOn(changed, changed.first)).toBe("sip");
    expect(changed.tiles).toContain("sh");
    expect(verdicts(changed, changed.first).filter((one) => one === "wrong")).toHaveLength(1);
    const more = boxesFor({ units: unitsOf("spin"), before: unitsOf("pin"), known, seed: 2 });
    expect([more.places.length, wordOn(more, more.first)]).toEqual([4, "pin"]);
    const fewer = boxesFor({ units: unitsOf("pin"), before: unitsOf("spin"), known, seed: 2 });
    expect([fewer.places.length, wordOn(fewer, fewer.first)]).toEqual([4, "spin"]);
    expect(isLaidRight(fewer, fewer.first)).toBe(false);
    expect(wordOn(fewer, solved(fewer))).toBe("pin");
    expect(isLaidRight(fewer, solved(fewer))).toBe(true);
  });
  test("every word that children may meet can be laid, alone and after any other; at first none is done", () => {
    const some = lexicon.words.filter(({ band, knownBy }) => band <= 2 && knownBy <= 7);
    fc.assert(
      fc.property(
        fc.constantFrom(...some),
        fc.option(fc.constantFrom(...some), { nil: undefined }),
        fc.nat(1000),
        (word, last, seed) => {
          const before = last?.text === word.text ? undefined : last?.units;
          const board = boxesFor({ units: word.units, before, known, seed });
          const right = solved(board);
          expect(laidOn(board, right)).toEqual(right);
          expect(isLaidRight(board, right)).toBe(true);
          expect(wordOn(board, right)).toBe(word.text.toLowerCase());
          expect(isLaidRight(board, board.first)).toBe(false);
        },
      ),
      { numRuns: 2000, seed: 11 },
    );
  });
  test("what cannot lie so lies as at first", () => {
    const board = boxesFor({ units: unitsOf("sat"), known, seed: 1 });
    const none = board.first;
    for (const bad of [undefined, [], [0], none.with(0, 3), none.with(0, -1), none.with(0, 1).with(1, 1)])
      expect(laidOn(board, bad)).toEqual(none);
    expect(laidOn(board, none.with(0, 2))).toEqual(none.with(0, 2));
  });
});

test("what two words have in common at their ends is counted once", () => {
  expect(commonEnds(["s", "o", "p"], ["s", "t", "o", "p"])).toEqual({ start: 1, end: 2 });
  expect(commonEnds(["a", "a"], ["a"])).toEqual({ start: 1, end: 0 });
  expect(commonEnds([], ["a"])).toEqual({ start: 0, end: 0 });
});

describe("columns of a sort", () => {
  const heaps = heapsIn(["ai: rain, tail", "ay: day, tray"]);
  test("a word goes to its spelling; those before lie there already", () => {
    const board = columnsFor(heaps, { word: "day", before: ["rain"] });
    if (!board) throw new Error("no board");
    expect(board.places).toEqual([
      { name: "ai", has: ["rain"] },
      { name: "ay", has: [] },
    ]);
    expect([verdicts(board, [0]), verdicts(board, [1]), isLaidRight(board, [null])]).toEqual([
      ["wrong"],
      ["right"],
      false,
    ]);
    expect(isLaidRight(board, [1])).toBe(true);
  });
  test("what is no heap, or one alone, is no sort", () => {
    expect(columnsFor(heaps, { word: "stop", before: [] })).toBeUndefined();
    expect(columnsFor(heapsIn(["ai: rain"]), { word: "rain", before: [] })).toBeUndefined();
    expect(heapsIn(["rain", ": rain", "ai:", "ai: , ,"])).toEqual([]);
  });
});

test("hide and spot: the new one once among five others that look otherwise, in another place with another seed", () => {
  const found = spotAmong("ay=ai", known, 5);
  expect(found).toHaveLength(6);
  expect(new Set(found).size).toBe(6);
  expect(found).toContain("ay");
  const places = new Set(Array.from({ length: 40 }, (_, seed) => spotAmong("ay=ai", known, seed).indexOf("ay")));
  expect(places.size).toBe(6);
  const all = known.map((gpc) => showGrapheme(splitGpc(gpc).grapheme));
  expect(found.every((one) => one === "ay" || all.includes(one))).toBe(true);
  expect(spotAmong("ay=ai", [], 5)).toEqual(["ay"]);
  // Hidden among its like: the other spellings of two letters are all there.
  expect(found).toEqual(expect.arrayContaining(["sh", "ai", "ee", "ea"]));
});

test("where a sound is heard stands behind its word", () => {
  expect(["ship (at the start)", "fish (“sh” at the end)", "cat (not there)", "cat"].map(heardIn)).toEqual([
    "at the start",
    "at the end",
    "not there",
    null,
  ]);
});
