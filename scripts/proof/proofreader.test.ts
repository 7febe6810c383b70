import { readdirSync, readFileSync } from "node:fs";
import { beforeAll, describe, expect, test } from "vitest";
import { exceptionWordsUpTo, type OrderContent, readOrder, taughtUpTo } from "#core/order";
import { withImplied } from "#core/phonics";
import { planSession } from "#core/plans";
import { readLibraryText } from "#core/reading";
import {
  chain,
  dice,
  findMadeUp,
  findWords,
  fourChoices,
  type KnownBy,
  knownBys,
  minimalPairs,
  readLexicon,
  readMadeUp,
  readSentences,
  sortBySpelling,
  type Word,
  withinAge,
} from "#core/words";
import { readableFrom } from "../lexicon/shortage.ts";
import { type Fault, Proofreader } from "./proofreader.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = readLexicon(read("lexicon/lexicon.txt"));
const madeUp = readMadeUp(read("lexicon/made-up.txt"));
const sentences = readSentences(read("sentences.txt"));
const orders = readdirSync("data/orders").map((file) => readOrder(read(`orders/${file}`)));
const proofreader = new Proofreader(read("lexicon/lexicon.txt"));
const units = ({ text, units: its }: Pick<Word, "text" | "units">) => ({ text, gpcs: its.map(({ gpc }) => gpc) });
const readersAt = (order: OrderContent, id: string) => ({
  known: taughtUpTo(order, id),
  wholes: new Set(exceptionWordsUpTo(order, id).map((word) => word.toLowerCase())),
});

describe("what ships", () => {
  test("no rude word is in the word list, among the made-up ones or in a sentence", () => {
    const all = { known: lexicon.words.flatMap((word) => word.units.map(({ gpc }) => gpc)) };
    expect(proofreader.size).toBe(lexicon.words.length);
    expect(proofreader.text(lexicon.words.map(({ text }) => text).join(" "), all)).toEqual([]);
    expect(proofreader.text(sentences.join("\n"), all)).toEqual([]);
    expect(proofreader.text(readSentences(read("phrases.txt")).join("\n"), { ...all, age: 9 })).toEqual([]);
  });

  test("every split of the list spells its word, and no made-up word is one or sounds like one", () => {
    expect(proofreader.splits(lexicon.words.map(units))).toEqual([]);
    const known = madeUp.flatMap((word) => word.units.map(({ gpc }) => gpc));
    expect(proofreader.madeUp(madeUp.map(units), { known })).toEqual([]);
  });

  test.each(orders)("each sentence can be read from the step on that it is given for: $name", (order) => {
    const faults = readableFrom(sentences, order, lexicon).flatMap(({ text, step }) => {
      const id = order.steps[step ?? -1]?.id;
      return id ? proofreader.text(text, readersAt(order, id)) : [];
    });
    expect(faults).toEqual([]);
  });

  test("each text can be read at its step", () => {
    const first = readOrder(read("orders/words-first.txt"));
    const faults = readdirSync("data/texts").flatMap((file) => {
      const { title, body, step, exceptions } = readLibraryText(read(`texts/${file}`));
      const { known, wholes } = readersAt(first, step);
      const names = [...`${title} ${body}`.matchAll(/\b[A-Z][a-z]+/g)].map(([name]) => name.toLowerCase());
      const outside = names.filter((name) => lexicon.find(name).length === 0).flatMap((name) => [name, `${name}'s`]);
      const all = new Set([...wholes, ...exceptions.map((word) => word.toLowerCase()), ...outside]);
      return proofreader.text(`${title}\n${body}`, { known, wholes: all });
    });
    expect(faults).toEqual([]);
  });
});

/** What one turn makes for some readers at some place of some order, and its faults. */
function turn(seed: number): { readonly made: number; readonly faults: readonly Fault[] } {
  const random = dice(seed);
  const order = orders[random.pick(orders.length)] as OrderContent;
  const { id } = order.steps[random.pick(order.steps.length)] as OrderContent["steps"][number];
  const { known: taught, wholes } = readersAt(order, id);
  // Not all that was taught is known.
  const known = new Set(taught.filter(() => random.pick(10) > 0));
  const age = knownBys[random.pick(knownBys.length)] as KnownBy;
  const on = withinAge(lexicon, age);
  const target = taught[random.pick(taught.length)] ?? "a=a";
  const wanted = { lexicon: on, known, seed, count: 9 };
  const readable = [...known, target];
  const pairs = minimalPairs({ ...wanted, sounds: ["i", "e"] });
  const chained = chain({ ...wanted, steps: 5 });
  const lists: readonly (readonly Word[])[] = [
    findWords({ ...wanted, target, place: "balanced" }),
    findWords({ ...wanted, shape: ["CVC", "CCVC", "CVCC"] }),
    sortBySpelling("ai", wanted).flatMap((heap) => heap.words),
    pairs.flatMap(({ one, other }) => [one, other]),
    fourChoices({ ...wanted, count: 3 }).flatMap(({ choices }) => choices.map(({ word }) => word)),
    chained.ok ? chained.links.map(({ word }) => word) : [],
  ];
  const none = findMadeUp({ madeUp, known, count: 9, seed });
  const plan = planSession({
    ...{ known, target, lexicon: on, age, sentences, seed, revisit: [] },
    exceptionWords: [...wholes],
  });
  const given = plan.parts.flatMap(({ kind, items }) =>
    kind === "readWords" || kind === "writeWords" || kind === "sentence" ? items : [],
  );
  return {
    made: lists.length + 2,
    faults: [
      ...lists.flatMap((words) => [
        ...proofreader.text(words.map(({ text }) => text).join(" "), { known: readable, age }),
        ...proofreader.splits(words.map(units)),
      ]),
      ...proofreader.madeUp(none.map(units), { known }),
      ...proofreader.text(given.join("\n"), { known: readable, wholes, age }),
    ],
  };
}

/** Eight lists a turn: ten thousand in the long run. */
const TURNS = process.env.KEEN_LONG ? 1250 : 40;
test(`${TURNS * 8} lists, made-up words and plans that are made for readers anywhere in any order have no fault`, () => {
  let made = 0;
  for (let seed = 1; seed <= TURNS; seed++) {
    const { made: count, faults } = turn(seed);
    made += count;
    expect(faults, `seed ${seed}`).toEqual([]);
  }
  expect(made).toBe(TURNS * 8);
});

describe("fifty faults that are planted are all found", () => {
  const order = orders.find(({ name }) => name === "Words from week one") as OrderContent;
  const { known, wholes } = readersAt(order, "s12");
  const readable = withImplied(known);
  const good = findWords({ lexicon: withinAge(lexicon, 5), known: new Set(known), count: 40, seed: 1 });
  const late = findWords({ lexicon, known: new Set(known) }).filter(({ knownBy }) => knownBy > 5);
  const unread = withinAge(lexicon, 5).words.filter(
    ({ text, units: its }) =>
      /^[a-z]+$/.test(text) &&
      !wholes.has(text) &&
      !lexicon.find(text).some((one) => one.units.every(({ gpc }) => readable.has(gpc))) &&
      its.length > 2,
  );
  const among = (word: string, at: number) => good.map(({ text }, place) => (place === at ? word : text)).join(" ");
  const kinds = (faults: readonly Fault[]) => faults.map(({ fault }) => fault);
  beforeAll(() => {
    expect(proofreader.text(among(good[0]?.text ?? "", 0), { known, wholes, age: 5 })).toEqual([]);
  });

  test.each(Array.from({ length: 10 }, (_, at) => [unread[at * 97]?.text ?? "", at] as const))(
    "%s cannot be read",
    (word, at) => {
      expect(kinds(proofreader.text(among(word, at), { known, wholes, age: 5 }))).toEqual(["cannot be read"]);
    },
  );
  test.each(Array.from({ length: 10 }, (_, at) => [late[at * 7]?.text ?? "", at] as const))(
    "%s is beyond their age",
    (word, at) => {
      expect(kinds(proofreader.text(among(word, at), { known, wholes, age: 5 }))).toEqual(["beyond their age"]);
    },
  );
  test.each(["glorp", "bimmy", "thrunk", "zorbly", "snaff"])("%s is not in the word list", (word) => {
    expect(kinds(proofreader.text(among(word, 3), { known, wholes, age: 5 }))).toEqual(["not in the word list"]);
  });
  // Turned by thirteen letters, so that no one need read them here.
  test.each(["fuvg", "shpx", "pbpx", "ovgpu", "jnax"])("%s is not for children", (turned) => {
    const word = turned.replaceAll(/[a-z]/g, (one) => String.fromCharCode(((one.charCodeAt(0) - 84) % 26) + 97));
    expect(kinds(proofreader.text(among(word, 5), { known, wholes }))).toEqual(["not for children"]);
  });
  test.each(Array.from({ length: 10 }, (_, at) => [at] as const))("the split of word %i is changed", (at) => {
    const words = good.map(units);
    const word = words[at] as (typeof words)[number];
    const [first = "", ...rest] = word.gpcs;
    const changed = at % 2 === 0 ? rest : [first === "b=b" ? "d=d" : "b=b", ...rest];
    const with_ = words.map((one, place) => (place === at ? { ...one, gpcs: changed } : one));
    expect(proofreader.splits(with_)).toEqual([{ word: word.text, fault: "faulty split" }]);
  });
  test.each(Array.from({ length: 5 }, (_, at) => [good[at * 5]?.text ?? "", at] as const))(
    "%s among made-up words is a real one",
    (text) => {
      const real = units(lexicon.find(text)[0] as Word);
      expect(
        kinds(
          proofreader.madeUp([...madeUp.slice(0, 5).map(units), real], {
            known: lexicon.words.flatMap((word) => word.units.map(({ gpc }) => gpc)),
          }),
        ),
      ).toEqual(["a real word"]);
    },
  );
  test.each([
    ["kat", ["k=k", "a=a", "t=t"]],
    ["fone", ["f=f", "o_e=oa", "n=n"]],
    ["rayn", ["r=r", "ay=ai", "n=n"]],
    ["bote", ["b=b", "o_e=oa", "t=t"]],
    ["trane", ["t=t", "r=r", "a_e=ai", "n=n"]],
  ] as const)("%s sounds like a real word", (text, gpcs) => {
    expect(kinds(proofreader.madeUp([{ text, gpcs }], { known: gpcs }))).toEqual(["sounds like a real word"]);
  });
});
