import { readdirSync, readFileSync } from "node:fs";
import { bench, describe } from "vitest";
import { dice, shuffled } from "#core/checks";
import { readLibraryText } from "#core/reading";
import { readLexicon } from "#core/words";
import {
  chooseTargets,
  commonWords,
  findGroups,
  type Learner,
  opensFor,
  proposeGroups,
  shelfText,
  textsOpened,
} from "./index.ts";

const order = Array.from({ length: 130 }, (_, at) => `g${at}=s`);
function learners(count: number): Learner[] {
  const from = dice(1);
  return Array.from({ length: count }, (_, at) => {
    const gaps = new Set(shuffled(order.slice((at % 4) * 12, (at % 4) * 12 + 60), from).slice(0, 12));
    return {
      id: `c${at}`,
      needs: new Map([...gaps].map((gpc) => [gpc, 1])),
      secure: new Set(order.filter((gpc) => !gaps.has(gpc))),
    };
  });
}
const [thirty, fortyEight, fiveHundred] = [learners(30), learners(48), learners(500)];
const shape = { by: "size", least: 3, most: 5 } as const;

describe("30 children into groups of 3 to 5", () => {
  bench("baseline: cut the list as it stands, choose targets", () => {
    for (let at = 0; at < 30; at += 5) chooseTargets(thirty.slice(at, at + 5), order, 4);
  });
  bench("proposeGroups", () => {
    proposeGroups({ learners: thirty, order, shape, seed: 1 });
  });
  bench("the first proposal for 48", () => {
    findGroups({ learners: fortyEight, order, shape, seed: 1 }).proposal();
  });
  bench("the first proposal for 500", () => {
    findGroups({ learners: fiveHundred, order, shape, seed: 1 }).proposal();
  });
});

const lexicon = readLexicon(readFileSync("data/lexicon/lexicon.txt", "utf8"));
const common = commonWords(lexicon);
const shares = dice(3);
const readers = Array.from(
  { length: 48 },
  () => new Map(common.gpcs.map((gpc) => [gpc, 0.05 + 0.9 * shares.share()])),
);

const shelf = readdirSync("data/texts").map((file) => {
  const { title, body } = readLibraryText(readFileSync(`data/texts/${file}`, "utf8"));
  return shelfText(file, `${title}\n${body}`, lexicon);
});
const next = new Set(["igh=igh", "i_e=igh", "ie=igh", "y=igh", "oa=oa", "ow=oa", "o_e=oa"]);

/** Words, what the class is taught next, and texts. */
function allParts(chances: ReadonlyMap<string, number>): void {
  opensFor(common, chances, next);
  textsOpened(shelf, { chances, wholes: new Set(["the"]) });
}

/** Every word counted anew for each spelling, with it and without. */
function recounted(chances: ReadonlyMap<string, number>): number {
  let total = 0;
  for (const gpc of common.gpcs.slice(0, 100))
    for (const word of common.words) {
      let [now, then] = [1, 1];
      for (const unit of word.units) {
        const chance = chances.get(unit.gpc) ?? 0.05;
        now *= chance;
        then *= unit.gpc === gpc ? 1 : chance;
      }
      total += then - now;
    }
  return total;
}

describe("what each of 100 spellings opens for a child, and for 48", () => {
  bench("baseline: every word recounted for each spelling, one child", () => {
    recounted(readers[0] as ReadonlyMap<string, number>);
  });
  bench("opensFor, one child", () => {
    opensFor(common, readers[0] as ReadonlyMap<string, number>);
  });
  bench("opensFor, 48 children", () => {
    for (const chances of readers) opensFor(common, chances);
  });
  bench("all parts of worth, 48 children", () => {
    for (const chances of readers) allParts(chances);
  });
  bench("all parts of worth, 500 children", () => {
    for (let at = 0; at < 500; at++) allParts(readers[at % readers.length] as ReadonlyMap<string, number>);
  });
});
