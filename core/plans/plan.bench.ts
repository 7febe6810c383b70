import { readdirSync, readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { readLibraryText } from "#core/reading";
import { readAnswers, readLexicon, readMadeUp } from "#core/words";
import { type BlockChild, moreWords, oneMore, planBlock, planSession, shippedRoutines } from "./index.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const sentences = readFileSync("data/sentences.txt", "utf8")
  .split("\n")
  .filter((line) => line && !line.startsWith("#"));
const answers = readAnswers(readFileSync("data/sentences.txt", "utf8"));
const madeUp = readMadeUp(readFileSync("data/lexicon/made-up.txt", "utf8"));
const texts = readdirSync("data/texts").map((file) => readLibraryText(readFileSync(`data/texts/${file}`, "utf8")));
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const known = new Set(taughtUpTo(order, "s20"));

describe("one session over the whole word list", () => {
  bench("baseline: one pass over the list that asks what is decodable", () => {
    for (const word of lexicon.words) word.units.every((unit) => known.has(unit.gpc));
  });
  const six = Array.from({ length: 6 }, (_, at) => ({
    id: `c${at}`,
    chances: new Map([...known].map((gpc, place) => [gpc, ((place * 7 + at * 3) % 10) / 10])),
  }));
  bench("30 minutes, eleven kinds of part, six children", () => {
    planSession({
      ...{ known, target: "oo=oo", revisit: ["ai=ai", "ee=ee"], lexicon, sentences, answers, madeUp, texts },
      ...{ exceptionWords: exceptionWordsUpTo(order, "s20"), seed: 1, children: six, age: 9 },
      routine: shippedRoutines.mixed,
    });
  });
  const more = moreWords({ lexicon, known, targets: ["oo=oo"] });
  const used = new Set(more.slice(0, 20).map(({ text }) => text));
  bench("one more word on the spot, while a session is taught", () => {
    oneMore(more, { kind: "readWords", like: "moon", used, step: "same" });
    oneMore(more, { kind: "readWords", like: "moon", used, step: "easier" });
  });
  bench("planSession", () => {
    planSession({
      known,
      target: "oo=oo",
      revisit: ["ai=ai", "ee=ee"],
      lexicon,
      sentences,
      exceptionWords: exceptionWordsUpTo(order, "s20"),
      seed: 1,
    });
  });
});

describe("eight weeks for five groups of six", () => {
  const gpcs = [...known];
  const child = (group: number, at: number): BlockChild => {
    const chances = new Map(gpcs.map((gpc, place) => [gpc, ((place * 7 + at * 3 + group) % 20) / 20]));
    const needs = new Map(
      [...chances].flatMap(([gpc, chance]) => (chance < 0.7 ? [[gpc, 1 - chance] as const] : [])),
    );
    const besides = new Map([
      ["contrast sound b/d", ((at + group) % 5) / 5],
      ["blend CCVC", ((at * 2 + group) % 7) / 7],
      ["read said", (at % 3) / 3],
      ["read was", ((at + 1) % 3) / 3],
    ]);
    return { id: `c${at}`, chances, fades: new Map(gpcs.map((gpc) => [gpc, 20])), needs, worth: needs, besides };
  };
  const day = (at: number) => new Date(Date.UTC(2026, 10, 23 + Math.floor(at / 4) * 7 + (at % 4))).toISOString();
  const days = Array.from({ length: 32 }, (_, at) => ({ on: day(at).split("T")[0] ?? "", minutes: 20, room: 2 }));
  const groups = [0, 1, 2, 3, 4].map((group) => Array.from({ length: 6 }, (_, at) => child(group, at)));
  bench("baseline: one session for each of them, filled with words", () => {
    for (const group of groups)
      planSession({
        ...{ known, target: "oo=oo", revisit: ["ai=ai", "ee=ee"], lexicon, sentences, seed: 1, children: group },
        exceptionWords: exceptionWordsUpTo(order, "s20"),
      });
  });
  bench("planBlock, four sessions a week with two points", () => {
    for (const children of groups)
      planBlock({ today: "2026-11-23", children, days, past: [], among: gpcs, fitsFocus: () => true });
  });
});
