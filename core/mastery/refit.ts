import { dice, shuffled } from "#core/words";
import type { ToForetell } from "./foresight.ts";
import { foretell } from "./foretell.ts";
import { LEAST_TO_REFIT, type OwnValues, parametersWith, type Refittable, refittable } from "./own-values.ts";
import { describeParameter, type Parameters, shipped } from "./parameters.ts";

/** Of three children the answers of one are kept aside, and both sets of numbers are measured on those. */
const KEPT_ASIDE = 3;
/** What ships is thought to be right: a number that moves by an eighth of its range has to save so many nats in all. */
const PULL = 2;

/** What a refit begins with. */
export interface RefitWanted {
  readonly now: OwnValues | null;
  /** Says which children are kept aside. */
  readonly seed: number;
  readonly rounds?: number;
  /** How far it is, 0 to 1. */
  readonly tell?: (share: number) => void;
}

/** How well cards are foretold: mean log loss in nats, and mean square error. */
export interface Measured {
  readonly logLoss: number;
  readonly brier: number;
}

export interface Refit {
  /** Answers to cards in checks, of so many children, those kept aside included. */
  readonly answers: number;
  readonly children: number;
  readonly values: OwnValues;
  /** On the answers that were kept aside: with what the school goes by now, and with what was found. */
  readonly asNow: Measured;
  readonly asFound: Measured;
}

/** How cards in checks were foretold. */
function measure(children: readonly ToForetell[], p: Parameters): Measured & { readonly count: number } {
  let [loss, square, count] = [0, 0, 0];
  for (const { answers, wanted } of children) {
    const ofChecks = new Set(
      answers.flatMap(({ id, kind, source }) => (kind === "card" && source.kind === "check" ? [id] : [])),
    );
    for (const { id, said, right } of foretell(answers, { ...wanted, p })) {
      if (!ofChecks.has(id)) continue;
      const chance = Math.min(0.999, Math.max(0.001, said));
      loss -= Math.log(right ? chance : 1 - chance);
      square += (said - (right ? 1 : 0)) ** 2;
      count++;
    }
  }
  return { logLoss: loss / Math.max(1, count), brier: square / Math.max(1, count), count };
}

/** Cards that were answered in checks. */
export function cardsIn(children: readonly ToForetell[]): number {
  return children.reduce(
    (sum, { answers }) =>
      sum + answers.filter(({ kind, source }) => kind === "card" && source.kind === "check").length,
    0,
  );
}

/**
 * Looks for numbers of the model by which a school's own answers are foretold better: one after the other is changed by a step
 * that shrinks where it does not help. It is fitted to two children of three; what comes of it is told on the third. What ships
 * holds against what few answers say.
 * @param now what the school goes by now
 * @returns null for fewer than 2,000 answers to cards
 */
export function refit(children: readonly ToForetell[], { now, seed, rounds = 2, tell }: RefitWanted): Refit | null {
  const answers = cardsIn(children);
  if (answers < LEAST_TO_REFIT) return null;
  const mixed = shuffled([...children], dice(seed));
  const aside = mixed.filter((_, at) => at % KEPT_ASIDE === 0);
  const rest = mixed.filter((_, at) => at % KEPT_ASIDE !== 0);
  const lossOf = (own: OwnValues) => {
    const { logLoss, count } = measure(rest, parametersWith(own));
    const away = Object.entries(own).reduce((sum, [name, value]) => {
      const [least, most] = describeParameter(name as Refittable).range;
      return sum + ((8 * (value - shipped[name as Refittable])) / (most - least)) ** 2;
    }, 0);
    return logLoss + (PULL * away) / Math.max(1, count);
  };
  let own: OwnValues = now ?? {};
  let loss = lossOf(own);
  const steps = new Map<Refittable, number>(
    refittable.map((name) => {
      const [least, most] = describeParameter(name).range;
      return [name, (most - least) / 10];
    }),
  );
  for (let round = 0; round < rounds; round++)
    for (const [at, name] of refittable.entries()) {
      const [least, most] = describeParameter(name).range;
      const step = steps.get(name) ?? 0;
      let better = false;
      for (const way of [1, -1]) {
        const before = own[name] ?? shipped[name];
        const value = rounded(Math.min(most, Math.max(least, before + way * step)));
        if (value === before) continue;
        const other = { ...own, [name]: value };
        const its = lossOf(other);
        if (its >= loss - 1e-6) continue;
        [own, loss, better] = [other, its, true];
        break;
      }
      steps.set(name, better ? step * 1.3 : step / 2.5);
      tell?.((round * refittable.length + at + 1) / (rounds * refittable.length));
    }
  const of = ({ logLoss, brier }: Measured): Measured => ({ logLoss, brier });
  return {
    answers,
    children: children.length,
    values: own,
    asNow: of(measure(aside, parametersWith(now))),
    asFound: of(measure(aside, parametersWith(own))),
  };
}

const rounded = (value: number) => Math.round(value * 10_000) / 10_000;
