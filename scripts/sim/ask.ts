import { type GivenAnswer, isRight } from "#core/ledger";
import { type Candidate, chanceOn, dayNumber, follow, heardFrom, nextToAsk, shipped } from "#core/mastery";
import { withImplied } from "#core/phonics";
import { askCard, askWord, type Lived, type Question, type Term } from "#core/readers";
import { dice, findMadeUp, findWords, type MadeUp, shuffled, type Word, wordItem } from "#core/words";
import { lessonsOf } from "./decisions.ts";
import { f1, type Judged } from "./measures.ts";
import { play, shippedLexicon, shippedMadeUp, type World } from "./worlds.ts";

/** How a child is asked on one day. */
type Way = "full deck" | "a third" | "as many";

interface Asked {
  readonly judged: readonly Judged[];
  readonly items: number;
  readonly seconds: number;
  readonly right: number;
  /** The longest run of misses. */
  readonly missed: number;
}

const SECONDS = { card: 5, words: 6, exception: 5 };
/** Words that a class's check could ask, beside all its cards. */
const WORDS = 80;
const WORDS_IN_DECK = 16;

interface OneDay {
  readonly term: Term;
  readonly child: Lived;
  readonly world: World;
  readonly words: readonly Word[];
  /** Words that are none; a school that does not use them asks more of the others. */
  readonly madeUp: readonly MadeUp[];
  readonly day: string;
  /** What was known before that day. */
  readonly before: readonly GivenAnswer[];
  readonly seed: number;
}

/** Asks one child on a day, and says how well the model then tells its gaps. */
function askOn({ term, child, world, words, madeUp, day, before, seed }: OneDay, way: Way): Asked {
  const understood = { lexicon: shippedLexicon(), accent: undefined };
  const by = { lessons: lessonsOf(term, child), p: shipped };
  const truth = child.truth.get(day) ?? new Map<string, number>();
  const from = dice(seed);
  let minute = 0;
  const question = (): Question => ({
    pupil: child.pupil,
    chance: (gpc) => truth.get(gpc) ?? 0,
    day,
    minute: 60 + minute++,
    a: world.assumptions,
    from,
  });
  const byItem = new Map<string, () => GivenAnswer>([
    ...words.map((word) => [wordItem(word), () => askWord(question(), word)] as const),
    ...madeUp.map((word) => [wordItem(word, true), () => askWord(question(), { ...word, band: 5 }, true)] as const),
  ]);
  const reply = ({ kind, item }: Pick<Candidate, "kind" | "item">) =>
    kind === "card" ? askCard(question(), item) : (byItem.get(item) as () => GivenAnswer)();
  const candidate = (kind: Candidate["kind"], item: string): Candidate => ({
    kind,
    item,
    seconds: SECONDS[kind],
    heard: heardFrom({ ...askAsRight, kind, item, way: "seen" } as GivenAnswer, understood)[0] as Candidate["heard"],
  });
  const cards = [...truth.keys()].map((gpc) => candidate("card", gpc));
  const full = [...cards, ...words.slice(0, WORDS_IN_DECK).map((word) => candidate("words", wordItem(word)))];
  const given: GivenAnswer[] = [];
  let mind = follow(before, { ...by, words: understood });
  if (way === "full deck") {
    for (const one of full) given.push(reply(one));
    mind = follow(given, { ...by, words: understood }, mind);
  } else {
    const candidates = [...cards, ...[...byItem.keys()].map((item) => candidate("words", item))];
    const most = way === "a third" ? Math.floor(full.length / 3) : full.length;
    const taught = new Set([...truth.keys()].map((gpc) => `say ${gpc}`));
    while (given.length < most) {
      const next = nextToAsk({
        mind,
        by,
        day: dayNumber(day),
        candidates,
        given,
        weight: (skill) => (taught.has(skill) ? 1 : 0),
        fresh: new Set(),
        seconds: 100_000,
        most: way === "a third" ? 1 : 3,
        seed,
      });
      if ("done" in next) break;
      const answer = reply(next.ask);
      given.push(answer);
      mind = follow([answer], { ...by, words: understood }, mind);
    }
  }
  const judged = [...truth].map(([gpc, chance]) => ({
    said: chanceOn(mind, `say ${gpc}`, day, by).chance,
    truth: chance,
  }));
  let [run, longest] = [0, 0];
  for (const { outcome } of given) {
    run = isRight(outcome) ? 0 : run + 1;
    longest = Math.max(longest, run);
  }
  return {
    judged,
    items: given.length,
    seconds: given.reduce((sum, { kind }) => sum + (kind === "card" ? SECONDS.card : SECONDS.words), 0),
    right: given.filter(({ outcome }) => isRight(outcome)).length / given.length,
    missed: longest,
  };
}

const askAsRight = {
  id: "",
  childId: "",
  markedAt: "",
  day: "",
  markedBy: "",
  outcome: "right",
  ms: null,
  source: { kind: "check", checkId: "" },
  help: "none",
  pass: 1,
  tags: [],
};

export interface AskedLine {
  readonly world: string;
  readonly week: number;
  readonly way: Way;
  readonly f1: number;
  readonly items: number;
  readonly seconds: number;
  readonly right: number;
  /** Share of children who missed more than two running. */
  readonly overTwo: number;
}

/** A first check, and one after four weeks of history, asked in each way, with the same children and answers drawn alike. */
export function compareAsking(world: World, seed: number, { classes = 8 } = {}): AskedLine[] {
  const terms = play(world, seed, { classes, weeks: 4 });
  return ([0, 4] as const).flatMap((week) =>
    (["full deck", "a third", "as many"] as const).map((way): AskedLine => {
      const all = terms.flatMap((term, at) => {
        const day = (week === 0 ? term.lookedOn[0] : term.lookedOn[2]) ?? "";
        const taught = [...(term.children[0]?.truth.get(day)?.keys() ?? [])];
        const pool = findWords({ lexicon: shippedLexicon(), known: withImplied(taught), band: 3 }).slice(0, 1500);
        const words = shuffled(pool, dice(seed + at)).slice(0, WORDS);
        const madeUp = shuffled(
          findMadeUp({ madeUp: shippedMadeUp(), known: new Set(taught), count: 1000, seed }),
          dice(seed),
        ).slice(0, WORDS);
        return term.children.map((child, which) => {
          const before = week === 0 ? [] : child.log.filter((one) => one.day < day);
          return askOn({ term, child, world, words, madeUp, day, before, seed: seed * 7919 + at * 101 + which }, way);
        });
      });
      const mean = (of: (one: Asked) => number) => all.reduce((sum, one) => sum + of(one), 0) / all.length;
      return {
        world: world.name,
        week,
        way,
        f1: f1(all.flatMap(({ judged }) => judged)),
        items: mean(({ items }) => items),
        seconds: mean(({ seconds }) => seconds),
        right: mean(({ right }) => right),
        overTwo: mean(({ missed }) => (missed > 2 ? 1 : 0)),
      };
    }),
  );
}

/** The lines as a table in Markdown. */
export function askedTable(lines: readonly AskedLine[]): string {
  return [
    "| world | week | way | F1 | items | seconds | right | more than two misses running |",
    "|---|---|---|---|---|---|---|---|",
    ...lines.map(
      (one) =>
        `| ${one.world} | ${one.week} | ${one.way} | ${one.f1.toFixed(3)} | ${one.items.toFixed(1)} | ${Math.round(one.seconds)} | ${one.right.toFixed(2)} | ${one.overTwo.toFixed(2)} |`,
    ),
  ].join("\n");
}
