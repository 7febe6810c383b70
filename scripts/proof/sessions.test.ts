import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { exceptionWordsUpTo, type OrderContent, readOrder, taughtUpTo } from "#core/order";
import {
  partKinds,
  planSession,
  type Routine,
  readOf,
  routineAbout,
  routineIn,
  shippedRoutines,
  targetsOf,
  ways,
} from "#core/plans";
import { readLibraryText } from "#core/reading";
import {
  dice,
  type KnownBy,
  knownBys,
  readAnswers,
  readLexicon,
  readMadeUp,
  readPhrases,
  readSentences,
  withinAge,
} from "#core/words";
import { type Fault, Proofreader } from "./proofreader.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = readLexicon(read("lexicon/lexicon.txt"));
const madeUp = readMadeUp(read("lexicon/made-up.txt"));
const sentences = readSentences(read("sentences.txt"));
const answers = readAnswers(read("sentences.txt"));
const phrases = readPhrases(read("phrases.txt"));
const focuses = [
  ...[
    ["contrast sound b/d"],
    ["contrast sound e/i"],
    ["contrast spelling ee/ea"],
    ["blend CCVC"],
    ["blend CVCC", "blend CCVCC"],
  ],
  ...[["blend CV.CVC"], ["read said", "read was"], ["write the"], ["spell sh=sh"]],
];
const orders = readdirSync("data/orders").map((file) => readOrder(read(`orders/${file}`)));
const texts = readdirSync("data/texts").map((file) => readLibraryText(read(`texts/${file}`)));
const everySpelling = lexicon.words.flatMap((word) => word.units.map(({ gpc }) => gpc));
const proofreader = new Proofreader(read("lexicon/lexicon.txt"));
const routines = Object.values(shippedRoutines);

/** A session of random children at a random place of an order, with one spelling or two, by a routine that ships or one of random parts, and its faults. */
function session(seed: number): { readonly items: number; readonly faults: readonly Fault[] } {
  const random = dice(seed);
  const order = orders[random.pick(orders.length)] as OrderContent;
  const { id } = order.steps[random.pick(order.steps.length)] as OrderContent["steps"][number];
  const taught = taughtUpTo(order, id);
  const known = new Set(taught.filter(() => random.pick(8) > 0));
  const age = knownBys[random.pick(knownBys.length)] as KnownBy;
  const target = taught[random.pick(taught.length)] ?? "a=a";
  const mixed: Routine = {
    ...{ name: "Mixed", about: "" },
    parts: Array.from({ length: 6 }, () => ({
      ...{ kind: partKinds[random.pick(partKinds.length)] ?? "teach", who: "child" as const, how: "" },
      minutes: random.pick(9),
    })),
  };
  const routine = random.pick(2) ? mixed : (routines[random.pick(routines.length)] as Routine);
  const exceptionWords = exceptionWordsUpTo(order, id);
  // Every third teaches two, every fourth teaches again in another way.
  const second = seed % 3 === 0 ? taught[random.pick(taught.length)] : undefined;
  const way = seed % 4 === 0 ? (ways[random.pick(ways.length)] ?? null) : null;
  // Every fifth is about something that is no spelling.
  const focus = seed % 5 === 0 ? (focuses[random.pick(focuses.length)] ?? []) : [];
  const plan = planSession({
    ...{ known, target, age, sentences, answers, phrases, madeUp, texts, exceptionWords, second, focus, seed },
    routine: routineAbout(routineIn(routine, way), focus),
    lexicon: withinAge(lexicon, age),
    revisit: taught.slice(-4),
    children: [{ id: "one", chances: new Map(taught.map((gpc) => [gpc, random.pick(100) / 100])) }],
  });
  const readable = [...known, ...targetsOf(plan)];
  const wholes = new Set(exceptionWords.map((word) => word.toLowerCase()));
  const faults = plan.parts.flatMap(({ kind, items }): readonly Fault[] => {
    if (kind === "madeUp") {
      const made = items.flatMap((text) => madeUp.find((word) => word.text === text) ?? []);
      const asUnits = made.map(({ text, units }) => ({ text, gpcs: units.map(({ gpc }) => gpc) }));
      const unknown = items.length - made.length;
      return [
        ...proofreader.madeUp(asUnits, { known: readable }),
        ...Array.from({ length: unknown }, () => ({ word: "?", fault: "not in the word list" as const })),
      ];
    }
    // What is only heard need not be read, and is of an age all the same.
    if (kind === "hear") {
      const heard = items.map((item) => item.replace(/ \(.*/, "")).join(" ");
      return proofreader.text(heard, { known: everySpelling, age: Math.max(age, 5) });
    }
    return proofreader.text(items.map((item) => readOf(kind, item)).join("\n"), {
      known: readable,
      wholes,
      age,
    });
  });
  return { items: plan.parts.reduce((sum, { items }) => sum + items.length, 0), faults };
}

/** Ten thousand in the long run. */
const SESSIONS = process.env.KEEN_LONG ? 10_000 : 300;
test(`${SESSIONS} sessions for children anywhere in any order, by any routine, have no fault`, () => {
  let items = 0;
  for (let seed = 1; seed <= SESSIONS; seed++) {
    const made = session(seed);
    items += made.items;
    expect(made.faults, `seed ${seed}`).toEqual([]);
  }
  expect(items).toBeGreaterThan(SESSIONS * 8);
});
