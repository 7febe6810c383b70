import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { correspondences, findCorrespondence, type Gpc, offeredUnits, partsOf, readGpc } from "#core/phonics";
import {
  cutBy,
  decodability,
  findWords,
  holds,
  laidOn,
  placeOf,
  readEntry,
  readLexicon,
  unread,
  withinAge,
  withOwnUnits,
  wordsOfUnit,
} from "./index.ts";

const nk = "n+k=ng+k";
const str = "s+t+r=s+t+r";
const st = "s+t=s+t";
const gpcsOf = (entry: string) => readEntry(entry).units.map(({ gpc }) => gpc);
const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));

test("a unit lies where all its parts follow one another", () => {
  expect(laidOn(gpcsOf("s t r i n=ng k"), [nk, str, st])).toEqual([
    { gpc: str, at: 0, size: 3 },
    { gpc: st, at: 0, size: 2 },
    { gpc: nk, at: 4, size: 2 },
  ]);
  expect(holds(readEntry("p i n=ng k").units, nk)).toBe(true);
  expect(holds(readEntry("n e ck").units, nk)).toBe(false);
  expect(placeOf(readEntry("p i n=ng k").units, nk)).toBe("end");
  expect(placeOf(readEntry("s t e p").units, st)).toBe("start");
  expect(placeOf(readEntry("n e s t s").units, st)).toBe("middle");
});

test("a word can be read by its units, by their parts, or by both together", () => {
  const pink = gpcsOf("p i n=ng k");
  const set = (...gpcs: Gpc[]) => new Set(gpcs);
  expect(unread(pink, set("p=p", "i=i"))).toEqual([2, 3]);
  expect(unread(pink, set("p=p", "i=i", nk))).toEqual([]);
  expect(unread(pink, set("p=p", "i=i", "n=ng", "k=k"))).toEqual([]);
  expect(unread(pink, set("p=p", nk))).toEqual([1]);
  // The k of a unit that is known is not the k of another word.
  expect(unread(gpcsOf("k i n"), set("i=i", "n=n", nk))).toEqual([0]);
});

test("what a text asks is judged with units, and counts them as practised", () => {
  const known = new Set(["p=p", "i=i", "a=a", "t=t", "h=h", "th=dh", "e=schwa", "s=s"]);
  const told = decodability("A pink tank sinks", known, new Set([nk]), { lexicon, wholes: new Set(["a"]) });
  expect(told.words.map(({ text, verdict }) => `${text} ${verdict}`)).toEqual([
    "A ready",
    "pink target",
    "tank target",
    "sinks target",
  ]);
  expect(told.practised).toEqual([{ gpc: nk, count: 3 }]);
  const without = decodability("A pink tank sinks", known, new Set(), { lexicon });
  expect(without.inTheWay.map(({ gpc }) => gpc).sort()).toEqual(["k=k", "n=ng"]);
});

describe("a search", () => {
  const known = new Set(["p=p", "i=i", "a=a", "t=t", "b=b", "s=s", "r=r", "u=u", "l=l", "e=e", "d=d"]);
  test("for a unit gives words that have it and that can be read", () => {
    const words = findWords({ lexicon, known, target: nk, count: 20 });
    expect(words.length).toBe(20);
    for (const { units } of words) {
      expect(holds(units, nk)).toBe(true);
      expect(
        unread(
          units.map(({ gpc }) => gpc),
          new Set([...known, nk]),
        ),
      ).toEqual([]);
    }
    expect(words.some(({ text }) => text === "pink")).toBe(true);
  });
  test("takes words with a unit that is known, and none with what is to be avoided", () => {
    const texts = (avoid: readonly string[]) =>
      findWords({ lexicon, known: new Set([...known, nk]), avoid }).map(({ text }) => text);
    expect(texts([])).toContain("tank");
    expect(texts([])).not.toContain("kit");
    expect(texts([nk])).not.toContain("tank");
    expect(texts(["a=a"])).not.toContain("tank");
    expect(texts(["k=k"])).not.toContain("tank");
  });
  test("with a place and with another to set against it", () => {
    const words = findWords({ lexicon, known, target: st, place: "start", count: 10 });
    expect(words.length).toBe(10);
    expect(words.every(({ units }) => placeOf(units, st) === "start")).toBe(true);
    const two = findWords({ lexicon, known, target: nk, contrast: [st], count: 12 });
    expect(two.filter(({ units }) => holds(units, nk)).length).toBe(6);
    expect(two.filter(({ units }) => holds(units, st) && holds(units, nk))).toEqual([]);
  });
});

test("the search with units agrees with looking at every word", () => {
  const all = correspondences.map(({ gpc }) => gpc);
  const units = offeredUnits.flatMap(({ typed }) => {
    const read = readGpc(typed);
    return read.ok ? [read.entry.gpc] : [];
  });
  const plain = lexicon.words.filter(({ text }) => /^[a-z]+$/.test(text) && text.length > 1);
  fc.assert(
    fc.property(
      fc.subarray(all, { minLength: 20 }),
      fc.subarray(units, { minLength: 1, maxLength: 6 }),
      fc.constantFrom(...units),
      (some, own, target) => {
        const known = new Set([...some, ...own]);
        const found = new Set(findWords({ lexicon, known, target }).map(({ text }) => text));
        // What follows from what is read is asked of the same function elsewhere; here only what is said.
        for (const { text, units: its } of plain) {
          const gpcs = its.map(({ gpc }) => gpc);
          if (!holds(its, target)) expect(found.has(text), text).toBe(false);
          else if (unread(gpcs, new Set([...known, target])).length === 0) expect(found.has(text), text).toBe(true);
        }
      },
    ),
    { numRuns: 15 },
  );
});

test("a unit's words, and those whose letters are split otherwise", () => {
  const told = wordsOfUnit(st, lexicon);
  expect(told.having.slice(0, 40).some(({ text }) => text === "first" || text === "best")).toBe(true);
  expect(told.otherwise.map(({ text }) => text)).toContain("castle");
  const all = wordsOfUnit("a+ll=a+l", lexicon);
  expect(all.having.map(({ text }) => text)).toContain("valley");
  expect(all.otherwise.map(({ text }) => text)).toContain("ball");
  expect(cutBy("castle", gpcsOf("c a s t le"), [st])).toEqual([]);
  expect(cutBy("castle", gpcsOf("c a st=s le"), [st])).toEqual([st]);
});

test("units are laid over a lexicon, whatever else is", () => {
  const own = withOwnUnits(lexicon, [nk, str, nk]);
  expect(own.ownUnits).toEqual([nk, str]);
  expect(withinAge(own, 5).ownUnits).toEqual([nk, str]);
  expect(lexicon.ownUnits).toEqual([]);
  expect(own.find("pink")).toEqual(lexicon.find("pink"));
});

test("each unit that is offered has words, its own among them", () => {
  const without = offeredUnits.filter(({ typed, keyword }) => {
    const read = readGpc(typed);
    if (!read.ok) return true;
    const word = lexicon.find(keyword).some(({ units }) => holds(units, read.entry.gpc));
    return !word || !partsOf(read.entry.gpc).every(findCorrespondence);
  });
  expect(without.map(({ typed, keyword }) => `${typed} ${keyword}`)).toEqual([]);
});
