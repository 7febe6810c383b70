import { bench, describe } from "vitest";
import { dice } from "#core/checks";
import { type GivenAnswer, inCheck, standing } from "#core/ledger";
import { alikeOrder, childRow, shownBy } from "./index.ts";

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
const taught = new Set(order);
const kept = [...byChild.values()].map((answers) => shownBy(answers));
const rows = [...byChild.values()].map((answers) =>
  childRow({ taught, shown: shownBy(answers) }, order, today).map((one) => one.state),
);

describe("300 children, 30,000 answers, 130 spellings", () => {
  bench("baseline: one pass over the log that counts answers a child", () => {
    const counts = new Map<string, number>();
    for (const answer of log) counts.set(answer.childId, (counts.get(answer.childId) ?? 0) + 1);
  });
  bench("standing: the answers that stand, in order", () => {
    standing(log);
  });
  bench("shownBy and childRow for every child, from all answers", () => {
    for (const [, answers] of byChild) childRow({ taught, shown: shownBy(answers) }, order, today);
  });
  bench("childRow for every child, from what is kept", () => {
    for (const shown of kept) childRow({ taught, shown }, order, today);
  });
  bench("alikeOrder", () => {
    alikeOrder(rows);
  });
});
