import { readFileSync } from "node:fs";
import { readOrder } from "#core/order";
import {
  type Assumptions,
  assumptions,
  type Forgetting,
  halfLives,
  type Memory,
  playTerm,
  stairsAndPower,
  type Term,
} from "#core/readers";
import { type Lexicon, type MadeUp, readLexicon, readMadeUp } from "#core/words";

const read = (file: string) => readFileSync(`data/${file}`, "utf8");
let lexicon: Lexicon | undefined;
export const shippedLexicon = (): Lexicon => {
  lexicon ??= readLexicon(read("lexicon/lexicon.txt"));
  return lexicon;
};
let madeUp: readonly MadeUp[] | undefined;
export const shippedMadeUp = (): readonly MadeUp[] => {
  madeUp ??= readMadeUp(read("lexicon/made-up.txt"));
  return madeUp;
};
export const shippedOrders = () => orders;
const orders = ["words-first", "letters-first", "held-first"].map((name) => readOrder(read(`orders/${name}.txt`)));

/** A way in which children learn and forget, with what is assumed of them. */
export interface World {
  readonly name: string;
  readonly memory: Memory;
  readonly assumptions: Assumptions;
}

const speeds = ["slow", "middle", "fast"] as const satisfies readonly Forgetting[];

/** Two shapes of learning and forgetting, each slow, middle and fast. */
const sharp: readonly World[] = [halfLives, stairsAndPower].flatMap((shape) =>
  speeds.map((speed) => {
    const memory = shape(speed, assumptions);
    return { name: memory.name, memory, assumptions };
  }),
);

/** The same where what is mostly said is said less surely: more lies near a half, and an answer tells less. */
const blurred: readonly World[] = [halfLives, stairsAndPower].flatMap((shape) =>
  [1, 1.5].map((sharpness) => {
    const its = { ...assumptions, sharpness };
    const memory = shape("middle", its);
    return { name: `${memory.name}, blurred to ${sharpness}`, memory, assumptions: its };
  }),
);

/** All worlds that are reported on, and that what ships is fitted to. */
export const worlds: readonly World[] = [...sharp, ...blurred];

/** Eight classes of 25 children at different places of the orders that ship: 200 children of all kinds. */
export function play({ memory, assumptions }: World, seed: number, { classes = 8, weeks = 8 } = {}): readonly Term[] {
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
