import { expect, test } from "vitest";
import { plansTable, playPlans } from "./plans.ts";
import { worlds } from "./worlds.ts";

/** Half a class is enough to tell the planners apart, in half the time. */
const CHILDREN = 12;

test("sessions are played by each planner, the same each time, and who knows the truth loses least", () => {
  const world = worlds.find(({ name }) => name === "stairs and powers, middle");
  if (!world) throw new Error("This world is not here any more");
  const lines = playPlans(world, 2, CHILDREN);
  const of = (planner: string) => lines.find((line) => line.planner === planner);
  expect(of("oracle")?.lasting).toBeGreaterThan(of("a spelling a day")?.lasting as number);
  expect(of("a block of weeks")?.known).toBeLessThan(of("a spelling a day")?.known as number);
  expect(of("oracle")?.known).toBeLessThan(of("a block of weeks")?.known as number);
  for (const { lasting, closed, known, sessions } of lines) {
    for (const share of [lasting, closed, known]) expect(share >= 0 && share <= 1).toBe(true);
    expect(sessions).toBeGreaterThan(0);
  }
  expect(plansTable(lines)).toContain("% of the oracle's lasting gain");
});
