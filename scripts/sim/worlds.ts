import { readFileSync } from "node:fs";
import { readOrder } from "#core/order";
import {
  assumptions,
  type Forgetting,
  halfLives,
  type Memory,
  playTerm,
  stairsAndPower,
  type Term,
} from "#core/readers";
import { type Lexicon, readLexicon } from "#core/words";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
let lexicon: Lexicon | undefined;
export const shippedLexicon = (): Lexicon => {
  lexicon ??= readLexicon(read("lexicon/lexicon.txt"));
  return lexicon;
};
export const orders = ["words-first", "letters-first", "held-first"].map((name) =>
  readOrder(read(`orders/${name}.txt`)),
);

/** The worlds that are reported on: two shapes of learning and forgetting, each slow, middle and fast. */
export const worlds: readonly Memory[] = [halfLives, stairsAndPower].flatMap((shape) =>
  (["slow", "middle", "fast"] as const satisfies readonly Forgetting[]).map((speed) => shape(speed, assumptions)),
);

/** Eight classes of 25 children at different places of the orders that ship: 200 children of all kinds. */
export function play(memory: Memory, seed: number, { classes = 8, weeks = 8 } = {}): readonly Term[] {
  return Array.from({ length: classes }, (_, at) => {
    const order = orders[at % orders.length] as (typeof orders)[number];
    return playTerm({
      memory,
      assumptions,
      order,
      reached: Math.min(order.steps.length - 8, 13 + at * 2),
      children: 25,
      lexicon: shippedLexicon(),
      seed: seed * 1000 + at,
      weeks,
      lookAfter: [0, 2, 4, 8],
    });
  });
}
