import { type GivenAnswer, isRight } from "#core/ledger";
import { standingByDays } from "./by-days.ts";
import { inOrder } from "./days.ts";
import type { FollowWanted } from "./follow.ts";
import { foretell } from "./foretell.ts";
import { type Counted, count, countedNothing } from "./shown.ts";

/** Ways to say beforehand whether a card will be right: the model, the rule of days, the last time, the child's share so far. */
export const waysToForetell = ["model", "days", "last", "share"] as const;
export type WayToForetell = (typeof waysToForetell)[number];

/** How well a way foretold: less is better. */
export interface HowWell {
  readonly name: WayToForetell;
  /** Mean log loss, in nats. */
  readonly logLoss: number;
  /** Mean square of what was said and what was. */
  readonly brier: number;
}

/** Of the answers of which about so much was said, how many came right. */
export interface Band {
  /** Mean of what was said, 0 to 1. */
  readonly said: number;
  readonly right: number;
  readonly count: number;
}

export interface Foresight {
  readonly answers: number;
  readonly ways: readonly HowWell[];
  /** The model's, in ten bands; those of which nothing was said are left out. */
  readonly bands: readonly Band[];
}

/** One child's standing answers, and what they are understood by. */
export interface ToForetell {
  readonly answers: readonly GivenAnswer[];
  readonly wanted: FollowWanted;
}

/** The share that was right so far of those of one sort, with one right and one wrong thought before it. */
class Share {
  private readonly sorts = new Map<string, { right: number; all: number }>();
  of(sort: string): number {
    const { right, all } = this.sorts.get(sort) ?? { right: 0, all: 0 };
    return (right + 1) / (all + 2);
  }
  add(sort: string, right: boolean): void {
    const { right: before, all } = this.sorts.get(sort) ?? { right: 0, all: 0 };
    this.sorts.set(sort, { right: before + (right ? 1 : 0), all: all + 1 });
  }
}

interface Said {
  readonly said: Readonly<Record<WayToForetell, number>>;
  readonly right: boolean;
}

/**
 * How well each way foretells the next answer to a card, from those before it alone. The rule of days and the last time say
 * what was right so far of the answers of their sort, over all children, so that they too are as good as they can be.
 */
export function foresightOf(children: readonly ToForetell[]): Foresight {
  const byDays = new Share();
  const byLast = new Share();
  const all = children.flatMap((child) => saidOf(child, { byDays, byLast }));
  const bands = Array.from({ length: 10 }, () => ({ said: 0, right: 0, count: 0 }));
  for (const { said, right } of all) {
    const band = bands[Math.min(9, Math.floor(said.model * 10))] as (typeof bands)[number];
    band.said += said.model;
    band.right += right ? 1 : 0;
    band.count++;
  }
  return {
    answers: all.length,
    ways: all.length === 0 ? [] : waysToForetell.map((name) => howWell(name, all)),
    bands: bands.flatMap(({ said, right, count }) =>
      count === 0 ? [] : [{ said: said / count, right: right / count, count }],
    ),
  };
}

function howWell(name: WayToForetell, all: readonly Said[]): HowWell {
  let [loss, square] = [0, 0];
  for (const { said, right } of all) {
    const chance = Math.min(0.999, Math.max(0.001, said[name]));
    loss -= Math.log(right ? chance : 1 - chance);
    square += (chance - (right ? 1 : 0)) ** 2;
  }
  return { name, logLoss: loss / all.length, brier: square / all.length };
}

function saidOf({ answers, wanted }: ToForetell, { byDays, byLast }: { byDays: Share; byLast: Share }): Said[] {
  const own = new Share();
  const last = new Map<string, boolean>();
  const model = new Map(foretell(answers, wanted).map(({ id, said }) => [id, said]));
  let counted: Counted = countedNothing;
  return inOrder(answers).flatMap((answer) => {
    const before = counted;
    counted = count(counted, [answer], wanted.words);
    if (answer.kind !== "card" || answer.source.kind !== "check") return [];
    const right = isRight(answer.outcome);
    const stood = standingByDays(before.shown[answer.item], answer.day);
    const sort = "reason" in stood ? stood.reason : stood.state;
    const lastTime = String(last.get(answer.item) ?? "never");
    const said = {
      model: model.get(answer.id) ?? 0.5,
      days: byDays.of(sort),
      last: byLast.of(lastTime),
      share: own.of("all"),
    };
    byDays.add(sort, right);
    byLast.add(lastTime, right);
    own.add("all", right);
    last.set(answer.item, right);
    return [{ said, right }];
  });
}
