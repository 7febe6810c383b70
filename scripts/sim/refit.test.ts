import { expect, test } from "vitest";
import {
  cardsIn,
  describeParameter,
  type OwnValues,
  parametersWith,
  refit,
  refittable,
  shipped,
  type ToForetell,
} from "#core/mastery";
import { lessonsOf } from "./decisions.ts";
import { play, shippedLexicon, worlds } from "./worlds.ts";

const words = { lexicon: shippedLexicon(), accent: undefined };
/** Classes of a world in which nearly everything fades fast, as they answered through a term. */
function answered(classes: number, weeks: number): readonly ToForetell[] {
  const world = worlds.find(({ name }) => name === "stairs and powers, fast");
  if (!world) throw new Error("This world is not here any more");
  return play(world, 77, { classes, weeks }).flatMap((term) =>
    term.children.map((child) => ({
      answers: child.log,
      wanted: { lessons: lessonsOf(term, child), p: shipped, words },
    })),
  );
}

test("fewer than two thousand answers to cards are never fitted", () => {
  const few = answered(1, 0);
  expect(cardsIn(few)).toBeLessThan(2000);
  expect(refit(few, { now: null, seed: 1 })).toBeNull();
});
test("what is found foretells answers better that it has not seen, lies within its ranges, and is the same each time", () => {
  const children = answered(2, 2);
  const shares: number[] = [];
  const found = refit(children, { now: null, seed: 3, rounds: 1, tell: (share) => shares.push(share) });
  expect(found?.answers).toBe(cardsIn(children));
  expect(found?.asFound.logLoss).toBeLessThan(found?.asNow.logLoss as number);
  for (const [name, value] of Object.entries(found?.values ?? {})) {
    expect(refittable).toContain(name);
    const [least, most] = describeParameter(name as (typeof refittable)[number]).range;
    expect(value).toBeGreaterThanOrEqual(least);
    expect(value).toBeLessThanOrEqual(most);
  }
  expect(shares.at(-1)).toBe(1);
  expect(shares).toEqual([...shares].sort((one, other) => one - other));
  expect(refit(children, { now: null, seed: 3, rounds: 1 })).toEqual(found);
});
test("values of a school's own lie over what ships; none are what ships", () => {
  const own: OwnValues = { halfLife: 90, guess: 0.2 };
  expect(parametersWith(own)).toEqual({ ...shipped, ...own });
  expect(parametersWith({ guess: 0.2, halfLife: 90 })).toBe(parametersWith(own));
  expect(parametersWith(null)).toBe(shipped);
  expect(parametersWith({})).toBe(shipped);
});
