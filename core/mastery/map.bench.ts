import { bench, describe } from "vitest";
import { dice } from "#core/checks";
import { type GivenAnswer, inCheck, standing } from "#core/ledger";
import { toLexicon } from "#core/words";
import {
  alikeOrder,
  childRow,
  dayNumber,
  knownAfter,
  knownBy,
  type SaidBy,
  shipped,
  shownBy,
  standingByDays,
  startingSecureWhen,
} from "./index.ts";

const order = Array.from({ length: 130 }, (_, at) => `g${at}=s`);
function logOf(children: number, each: number): GivenAnswer[] {
  const from = dice(2);
  return Array.from({ length: children * each }, (_, at) => ({
    id: `a${at}`,
    ...inCheck("card", "k"),
    tags: [],
    childId: `c${at % children}`,
    item: order[from.pick(130)] as string,
    outcome: from.share() < 0.7 ? "right" : "none",
    ms: 900,
    pass: 1,
    markedAt: new Date(Date.UTC(2026, 8, 1) + at * 60_000).toISOString(),
    day: `2026-09-${String(1 + (at % 28)).padStart(2, "0")}`,
    markedBy: "Mx T.",
  }));
}
const log = logOf(300, 100);
const today = "2026-10-01";
const byChild = new Map<string, GivenAnswer[]>();
for (const answer of log) byChild.set(answer.childId, [...(byChild.get(answer.childId) ?? []), answer]);
const by: SaidBy = {
  lessons: { taughtOn: () => dayNumber("2026-08-01"), sessions: () => [] },
  p: shipped,
  secureWhen: startingSecureWhen,
};
const wanted = { ...by, words: { lexicon: toLexicon([]) } };
const kept = [...byChild.values()].map((answers) => knownBy(answers, wanted));
const rows = kept.map((known) => childRow(known, order, today, by).map((one) => one.state));
const daysRow = (answers: readonly GivenAnswer[]) => {
  const shown = shownBy(answers);
  return order.map((gpc) => standingByDays(shown[gpc], today));
};
const thousand = logOf(1, 1000);
const long = knownBy(thousand.slice(0, -1), wanted);
const short = knownBy(thousand.slice(0, 30), wanted);
const next = [{ ...(thousand[0] as GivenAnswer), id: "z", day: "2026-10-01", markedAt: "2026-10-01T09:00:00.000Z" }];

describe("300 children, 30,000 answers, 130 spellings", () => {
  bench("baseline: the rule of days for every child, from all answers", () => {
    for (const [, answers] of byChild) daysRow(answers);
  });
  bench("standing: the answers that stand, in order", () => {
    standing(log);
  });
  bench("knownBy and childRow for every child, from all answers", () => {
    for (const [, answers] of byChild) childRow(knownBy(answers, wanted), order, today, by);
  });
  bench("childRow for every child, from what is kept", () => {
    for (const known of kept) childRow(known, order, today, by);
  });
  bench("alikeOrder", () => {
    alikeOrder(rows);
  });
});

const large = logOf(500, 400).map((answer, at) => ({ ...answer, item: order[at % 100] as string }));
const largeByChild = new Map<string, GivenAnswer[]>();
for (const answer of large) {
  const list = largeByChild.get(answer.childId);
  if (list) list.push(answer);
  else largeByChild.set(answer.childId, [answer]);
}

describe("500 children, 200,000 answers, 100 spellings", () => {
  bench("baseline: the rule of days for every child, from all answers", () => {
    for (const [, answers] of largeByChild) daysRow(answers);
  });
  bench("knownBy for every child, from all answers", () => {
    for (const [, answers] of largeByChild) knownBy(answers, wanted);
  });
});

describe("one more answer", () => {
  bench("baseline: the thirtieth of a child", () => {
    knownAfter(short, next, { ...wanted, standing: {} });
  });
  bench("the thousandth of a child", () => {
    knownAfter(long, next, { ...wanted, standing: {} });
  });
  bench("a late one: a child's thousand answers anew", () => {
    knownBy(thousand, wanted);
  });
});
