import type { GivenAnswer } from "#core/ledger";
import {
  chanceOn,
  describeParameter,
  follow,
  type Lessons,
  type Mind,
  type ParameterName,
  type Parameters,
  parameterNames,
  shipped,
} from "#core/mastery";
import { lessonsOf } from "./decisions.ts";
import { GAP } from "./measures.ts";
import { play, shippedLexicon, worlds } from "./worlds.ts";

/** What the simulated classes say nothing of: these keep the values that they were given. */
const notInTheWorlds: ReadonlySet<ParameterName> = new Set<ParameterName>([
  "spellStart",
  "spellSpread",
  "spellLink",
  "spellOwn",
  "wordStart",
  "findGuess",
  "againWeight",
  "helpWeight",
  "lesson",
  // What is related is not related there.
  "related",
  "untaught",
]);

/** One child between two looks: what it answered, and what was true at the second. */
interface Stretch {
  readonly log: readonly GivenAnswer[];
  readonly day: string;
  readonly truth: readonly (readonly [string, number])[];
}

interface Case {
  readonly lessons: Lessons;
  readonly stretches: readonly Stretch[];
}

/** Children of one class in each world, of seeds that nothing is reported on. */
function casesOf(seed: number): readonly Case[] {
  return worlds.flatMap((world, at) =>
    play(world, seed + at, { classes: 1 }).flatMap((term) =>
      term.children.map((child): Case => {
        let from = "";
        const stretches = term.lookedOn.map((day): Stretch => {
          const log = child.log.filter((one) => one.day > from && one.day <= day);
          from = day;
          return { log, day, truth: [...(child.truth.get(day) ?? [])] };
        });
        return { lessons: lessonsOf(term, child), stretches };
      }),
    ),
  );
}

/** The mean log loss, in nats, of what is said of gaps on all days that were looked at. */
function lossOf(cases: readonly Case[], p: Parameters): number {
  const words = { lexicon: shippedLexicon(), accent: undefined };
  let [sum, count] = [0, 0];
  for (const { lessons, stretches } of cases) {
    let mind: Mind | undefined;
    for (const { log, day, truth } of stretches) {
      mind = follow(log, { lessons, p, words }, mind);
      for (const [gpc, chance] of truth) {
        const said = Math.min(0.999, Math.max(0.001, chanceOn(mind, `say ${gpc}`, day, { lessons, p }).gap));
        sum -= Math.log(chance < GAP ? said : 1 - said);
        count++;
      }
    }
  }
  return sum / count;
}

/**
 * Changes one parameter after the other by a step that shrinks where it does not help, until nothing does or the rounds are
 * over. Prints what it finds; what ships is written by hand from it.
 */
export function fitParameters({ seed = 500, rounds = 3 } = {}): Parameters {
  const cases = casesOf(seed);
  let p: Parameters = { ...shipped };
  let loss = lossOf(cases, p);
  console.log(`${cases.length} children, loss ${loss.toFixed(5)}`);
  const steps = new Map(
    parameterNames.map((name) => {
      const [least, most] = describeParameter(name).range;
      return [name, (most - least) / 8];
    }),
  );
  for (let round = 0; round < rounds; round++) {
    for (const name of parameterNames) {
      if (notInTheWorlds.has(name)) continue;
      const [least, most] = describeParameter(name).range;
      const step = steps.get(name) ?? 0;
      let better = false;
      for (const way of [1, -1]) {
        const value = Math.min(most, Math.max(least, p[name] + way * step));
        if (value === p[name]) continue;
        const other = { ...p, [name]: value };
        const its = lossOf(cases, other);
        if (its < loss - 1e-6) {
          [p, loss, better] = [other, its, true];
          break;
        }
      }
      steps.set(name, better ? step * 1.3 : step / 2.5);
      if (better) console.log(`${round} ${name} ${p[name].toFixed(4)} loss ${loss.toFixed(5)}`);
    }
    console.log(JSON.stringify(p));
  }
  return p;
}
