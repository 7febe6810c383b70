import { bench, describe } from "vitest";
import { MIDDLE, madeUpSchool } from "../../../scripts/sim/week-schools.ts";
import { firstFit, gridOf, placesFor, WeekFinder } from "./index.ts";

const middle = gridOf(madeUpSchool(5, MIDDLE));
const large = gridOf(madeUpSchool(5, { groups: 30, adults: 10, rooms: 6, slotsADay: 7, classes: 12 }));
const [ofMiddle, ofLarge] = [middle, large].map((grid) => {
  const finder = new WeekFinder(grid, 1);
  finder.again(20);
  return finder.spots();
});

describe("a timetable of 8 groups, 4 adults, 3 rooms, 25 slots", () => {
  bench("baseline: first fit, as a person would", () => {
    firstFit(middle);
  });
  bench("the first answer", () => {
    new WeekFinder(middle, 1);
  });
  bench("20 rounds more", () => {
    new WeekFinder(middle, 1).again(20);
  });
  bench("where one session could go", () => {
    placesFor(middle, ofMiddle ?? [], { at: 0, group: ofMiddle?.[0]?.group ?? 0 });
  });
});

describe("a timetable of 30 groups, 10 adults, 6 rooms, 35 slots", () => {
  bench("baseline: first fit, as a person would", () => {
    firstFit(large);
  });
  bench("the first answer", () => {
    new WeekFinder(large, 1);
  });
  bench("where one session could go", () => {
    placesFor(large, ofLarge ?? [], { at: 0, group: ofLarge?.[0]?.group ?? 0 });
  });
});
