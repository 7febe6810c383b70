import { expect, test } from "vitest";
import { loopTable, playLoop, policies } from "./loop.ts";
import { worlds } from "./worlds.ts";

test("a class is played in each way, the same each time, and every way is told in a line", () => {
  const world = worlds.find(({ name }) => name === "stairs and powers, middle");
  if (!world) throw new Error("This world is not here any more");
  const lines = playLoop(world, 2);
  expect(lines.map(({ policy }) => policy)).toEqual([...policies]);
  for (const { closed, lasting, wasted, words } of lines) {
    for (const share of [closed, lasting, wasted]) {
      expect(share).toBeGreaterThanOrEqual(0);
      expect(share).toBeLessThanOrEqual(1);
    }
    expect(Number.isFinite(words)).toBe(true);
  }
  const of = (policy: string) => lines.find((line) => line.policy === policy);
  // Who knows the truth wastes less than who goes by the list.
  expect(of("oracle")?.wasted).toBeLessThan(of("in the list")?.wasted as number);
  expect(playLoop(world, 2)).toEqual(lines);
  expect(loopTable(lines).split("\n")).toHaveLength(2 + policies.length);
});
