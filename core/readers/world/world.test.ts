import { readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { isRight } from "#core/ledger";
import { readOrder } from "#core/order";
import { readLexicon } from "#core/words";
import { assumptions, type Forgetting, halfLives, playTerm, stairsAndPower, type Term } from "../index.ts";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
const lexicon = readLexicon(read("lexicon/lexicon.txt"));
const order = readOrder(read("orders/words-first.txt"));
const shapes = { halfLives, stairsAndPower };
const play = (shape: keyof typeof shapes, forgetting: Forgetting, seed = 3, children = 28): Term =>
  playTerm({
    memory: shapes[shape](forgetting, assumptions),
    assumptions,
    order,
    reached: 20,
    children,
    lexicon,
    seed,
    weeks: 8,
    lookAfter: [0, 2, 4, 8],
  });
const gapsOn = ({ children, lookedOn }: Term, at: number) => {
  const all = children.flatMap((child) => [...(child.truth.get(lookedOn[at] ?? "")?.values() ?? [])]);
  return all.filter((chance) => chance < 0.5).length / all.length;
};

describe.each(["halfLives", "stairsAndPower"] as const)("%s", (shape) => {
  const middle = play(shape, "middle");
  test("the same seed plays the same class", () => {
    expect(play(shape, "middle")).toEqual(middle);
    expect(play(shape, "middle", 4).children[0]?.log).not.toEqual(middle.children[0]?.log);
  });
  test("some of what was taught is a gap, more where it fades faster", () => {
    const shares = (["slow", "middle", "fast"] as const).map((forgetting) => gapsOn(play(shape, forgetting), 0));
    for (const share of shares) {
      expect(share).toBeGreaterThan(0.08);
      expect(share).toBeLessThan(0.65);
    }
    expect([...shares].sort((one, other) => one - other)).toEqual(shares);
  });
  test("answers follow the truth, and it is not told by one answer", () => {
    const day = middle.lookedOn[0] ?? "";
    const told = middle.children.flatMap(({ log, truth }) =>
      log
        .filter((one) => one.kind === "card" && one.day === middle.checkedOn)
        .map((one) => ({ chance: truth.get(day)?.get(one.item) ?? 0, right: isRight(one.outcome) })),
    );
    const share = (low: number, high: number) => {
      const some = told.filter(({ chance }) => chance >= low && chance < high);
      return some.filter(({ right }) => right).length / some.length;
    };
    expect(share(0.9, 1.01)).toBeGreaterThan(0.85);
    expect(share(0, 0.1)).toBeLessThan(0.25);
    expect(share(0.4, 0.6)).toBeGreaterThan(0.35);
    expect(share(0.4, 0.6)).toBeLessThan(0.65);
  });
  test("sessions are held with those who came, and nothing is known before it is taught", () => {
    const sessions = middle.children.flatMap((child) => child.sessions);
    expect(sessions.length).toBeGreaterThan(28 * 15);
    expect(sessions.length).toBeLessThan(28 * 33);
    for (const [gpc, day] of middle.taughtOn)
      expect(middle.children.every(({ truth }) => [...truth].every(([on, all]) => on >= day || !all.has(gpc)))).toBe(
        true,
      );
  });
});
