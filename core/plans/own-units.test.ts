import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { commonWords, examplesOf, opensFor, shelfText, textsOpened } from "#core/groups";
import { allGpcs, readOrder, taughtUpTo } from "#core/order";
import { climbOf, fitOf, prepareText, stepOfText } from "#core/reading";
import {
  decodability,
  holds,
  readEntry,
  readLexicon,
  readMadeUp,
  toLexicon,
  unread,
  withOwnUnits,
} from "#core/words";
import { boxesFor, helpWith, planSession, practiceWords, shippedRoutines } from "./index.ts";

const nk = "n+k=ng+k";
const lexicon = withOwnUnits(readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8")), [nk, "s+t=s+t"]);
const madeUp = readMadeUp(readFileSync("data/lexicon/made-up.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const order = readOrder(`name: Ours
kind: as one
why: We teach them as one
First: t o p s a d n | I
Mist: i m g c h b e r u l f
Sink and stop: n+k s+t | the
Later: k
`);

test("a school's order reads units, and they are points by themselves", () => {
  expect(allGpcs(order).slice(-3)).toEqual([nk, "s+t=s+t", "k=k"]);
  expect(taughtUpTo(order, "s2")).not.toContain(nk);
  expect(() => readOrder("name: Ours\nBad: n+zq")).toThrow(/n\+zq/);
});

describe("a session on a unit of the school's own", () => {
  const known = new Set(taughtUpTo(order, "s2"));
  const teaching = new Set([nk]);
  for (const [name, routine] of Object.entries(shippedRoutines))
    test(name, () => {
      const plan = planSession({
        ...{
          known,
          target: nk,
          routine,
          revisit: ["i=i", "m=m"],
          lexicon,
          madeUp,
          sentences,
          exceptionWords: ["the"],
        },
        seed: 5,
      });
      expect(practiceWords(lexicon, known, nk).length).toBeGreaterThan(12);
      for (const { kind, items, how } of plan.parts) {
        expect(how).not.toMatch(/\+|undefined|as in ?(?:\.|,|$)/);
        if (!["readWords", "writeWords", "blend", "build"].includes(kind)) continue;
        expect(items.length, kind).toBeGreaterThan(0);
        for (const text of items) {
          const [word] = lexicon.find(text.replaceAll(/ \(.*\)/g, ""));
          if (!word) continue;
          expect(holds(word.units, nk), text).toBe(true);
          const gpcs = word.units.map(({ gpc }) => gpc);
          expect(unread(gpcs, new Set([...known, nk])), text).toEqual([]);
        }
      }
      for (const text of plan.parts.find(({ kind }) => kind === "sentence")?.items ?? [])
        expect(
          decodability(text, known, teaching, { lexicon, wholes: new Set(["the", "i"]) }).shareOfRunning,
          text,
        ).toBe(1);
    });
  test("who knows it needs no help with it, who does not does", () => {
    const readers = [
      { name: "Ada M.", reads: new Set([...known, nk]) },
      { name: "Ben T.", reads: known },
    ];
    const asked = { targets: ["i=i"], lexicon, wholes: new Set<string>() };
    expect(helpWith(["tank", "pin"], readers, asked)).toEqual([{ name: "Ben T.", words: ["tank"] }]);
  });
});

test("no tile of a word that is built has two spellings at once", () => {
  const { units } = lexicon.find("pin")[0] ?? { units: [] };
  // So little is known that whatever else there is would be taken.
  const known = ["p=p", "i=i", "n=n", nk, "s+t=s+t"];
  for (let seed = 0; seed < 5; seed++) expect(boxesFor({ units, known, seed }).tiles.join(" ")).not.toMatch(/[+]/);
});

describe("what a unit brings", () => {
  const words = toLexicon(["p i n=ng k|1", "t a n=ng k|1", "k i t|1", "p i n|1"].map(readEntry));
  const small = withOwnUnits(words, [nk]);
  const sure = { "p=p": 1, "i=i": 1, "t=t": 1, "a=a": 1, "n=n": 1 };
  const of = (more: Record<string, number>) => new Map(Object.entries({ ...sure, ...more }));
  test("it opens the words that have it, weighed by what else they need", () => {
    const { of: opened } = opensFor(commonWords(small), of({ [nk]: 0, "k=k": 0.5 }));
    expect(opened.get(nk)).toBeCloseTo(2 - 2 * 0.05 * 0.5, 6);
    expect(opened.get("k=k")).toBeCloseTo(0.5, 6);
    expect(examplesOf(commonWords(small), nk, of({}))).toEqual(["pink", "tank"]);
  });
  test("who reads its parts reads it, and who is not taught it has its words by their parts", () => {
    const all = opensFor(commonWords(small), of({ "n=ng": 1, "k=k": 1 }));
    expect(all.of.get(nk) ?? 0).toBe(0);
    const byParts = opensFor(commonWords(small, []), of({ "n=ng": 1, "k=k": 0 }));
    expect(byParts.of.get("k=k")).toBeGreaterThan(2.9);
  });
  test("a text opens with it", () => {
    const shelf = [shelfText("pink", "Pink pin. Pink tank.", small)];
    const reader = { chances: of({ [nk]: 0 }), wholes: new Set<string>() };
    expect([...textsOpened(shelf, reader)]).toEqual([[nk, ["pink"]]]);
  });
});

test("how a text fits, and from which step it can be read, go by units", () => {
  const text = { title: "Pink", body: "A pink tank sinks in it.", exceptions: ["a"] };
  const prepared = prepareText(text, { lexicon });
  const known = new Set(taughtUpTo(order, "s2"));
  expect(
    fitOf(prepared, { known })
      .inTheWay.map(({ gpc }) => gpc)
      .sort(),
  ).toEqual(["k=k", "n=ng"]);
  const fit = fitOf(prepared, { known: new Set([...known, nk]), targets: new Set([nk]) });
  expect(fit).toMatchObject({ share: 1, practised: [{ gpc: nk, count: 4 }] });
  expect(fit.why).toMatch(/nk 4 times/);
  expect(stepOfText(prepared, climbOf(order.steps))).toBe(3);
});
