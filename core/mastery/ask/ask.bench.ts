import { readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { type Ask, defaultSettings, kindAsked, kinds, planCheck, sectionOf } from "#core/checks";
import { type GivenAnswer, inCheck } from "#core/ledger";
import { exceptionWordsUpTo, readOrder, taughtUpTo } from "#core/order";
import { dice, readLexicon } from "#core/words";
import {
  byOf,
  candidatesOf,
  chanceOn,
  dayNumber,
  follow,
  readSince,
  type SeekFrom,
  seekNext,
  weightsOf,
} from "../index.ts";
import { newMind } from "../mind.ts";
import { shipped } from "../parameters.ts";

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const words = { lexicon };
const order = readOrder(readFileSync("data/orders/words-first.txt", "utf8"));
const last = order.steps.at(-1)?.id ?? null;
const taught = taughtUpTo(order, last);
const exceptionWords = exceptionWordsUpTo(order, last);
const ask: Ask = {
  ...{
    taught,
    exceptionWords,
    lexicon,
    recent: [],
    recentExceptionWords: [],
    madeUp: [],
    sentences: [],
    compounds: [],
  },
  ...{ settings: defaultSettings, section: sectionOf("seek"), secure: new Set(), last: new Map(), seed: 4 },
};
const { items } = planCheck(ask);
const kindOf = (item: string) => kindAsked("seek", item);
const check = { items, kindOf, seed: 4, minutes: 5, words, secondsOf: (of: keyof typeof kinds) => kinds[of].seconds };
const candidates = candidatesOf(check);

const from = dice(8);
const DAY = "2026-11-20";
const before = Array.from(
  { length: 1500 },
  (_, at) =>
    ({
      ...inCheck("card", "k"),
      ...{ id: `a${at}`, childId: "c", ms: 900, pass: 1, tags: [], markedBy: "x" },
      item: taught[from.pick(taught.length)],
      outcome: from.share() < 0.7 ? "right" : "none",
      markedAt: new Date(Date.UTC(2026, 8, 1) + at * 3_600_000).toISOString(),
      day: new Date(Date.UTC(2026, 8, 1) + at * 3_600_000).toISOString().replace(/T.*/, ""),
    }) as GivenAnswer,
);
const taughtOn = Object.fromEntries(taught.map((gpc) => [gpc, dayNumber("2026-06-01")]));
const lessons = { taughtOn: (thing: string) => taughtOn[thing], sessions: () => [] };
const belief: SeekFrom = {
  ...{ day: DAY, taughtOn, sessions: {}, fresh: [], own: null },
  mind: follow(before, { lessons, p: shipped, words }, newMind(shipped)),
  weights: weightsOf({ taught, exceptionWords, targets: new Set() }),
  read: readSince(before, taught, words),
};
const by = byOf(belief);
const given = items.slice(0, 20).map((item, at) => ({
  ...(before[0] as GivenAnswer),
  ...{ id: `g${at}`, kind: kindOf(item), item, day: DAY, markedAt: `${DAY}T09:00:${String(at + 10)}.000Z` },
})) as GivenAnswer[];

describe(`what comes next, of ${candidates.length} that could be asked, after 20 answers`, () => {
  bench("baseline: the chance of every taught spelling", () => {
    for (const gpc of taught) chanceOn(belief.mind, `say ${gpc}`, DAY, by);
  });
  bench("seekNext", () => {
    seekNext(belief, candidates, given, { ...check, by });
  });
  bench("candidatesOf, once a check", () => {
    candidatesOf(check);
  });
});
