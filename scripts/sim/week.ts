import highs from "highs";
import { bestWeek, brokenBy, type Cost, costOf, firstFit, gridOf, WeekFinder } from "#core/groups";
import { MIDDLE, madeUpSchool, type SchoolSize } from "./week-schools.ts";

/** For so long the first answer, and the search before the proof, may look, in milliseconds; and the proof, in seconds. */
const FIRST_MS = 200;
const LOOK_MS = 500;
const PROOF_S = 2;

/** What was found for one school. */
export interface WeekLine {
  readonly seed: number;
  readonly hand: Cost;
  readonly first: Cost;
  readonly best: Cost;
  /** No timetable costs less. */
  readonly bound: number;
  readonly proven: boolean;
  readonly firstMs: number;
  readonly allMs: number;
  readonly broken: number;
}

/** Makes the timetable of each school as the Week page does, and by hand. */
export async function compareWeeks(schools: number, size: SchoolSize = MIDDLE): Promise<WeekLine[]> {
  const solver = await highs();
  return Array.from({ length: schools }, (_, at): WeekLine => {
    const seed = at + 1;
    const grid = gridOf(madeUpSchool(seed, size));
    const begun = performance.now();
    const finder = new WeekFinder(grid, seed);
    while (performance.now() - begun < FIRST_MS) finder.again(2);
    const first = finder.cost();
    const firstMs = performance.now() - begun;
    while (performance.now() - begun < LOOK_MS) finder.again(2);
    const { spots, bound, proven } = bestWeek(grid, solver, { from: finder.spots(), seconds: PROOF_S });
    const allMs = performance.now() - begun;
    const best = costOf(grid, spots);
    const hand = costOf(grid, firstFit(grid));
    return { seed, hand, first, best, bound, proven, firstMs, allMs, broken: brokenBy(grid, spots).length };
  });
}

/** A line a school, and what they come to. */
export function weeksTable(lines: readonly WeekLine[]): string {
  const told = ({ unplaced, wishes }: Cost) => (unplaced > 0 ? `${wishes} and ${unplaced} without` : String(wishes));
  const rows = lines.map(
    ({ seed, hand, first, best, bound, proven }) =>
      `| ${seed} | ${told(hand)} | ${told(first)} | ${told(best)} | ${proven ? "the best" : `at least ${told(asCost(bound))}`} |`,
  );
  const of = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0);
  const median = (list: readonly number[]) => list.toSorted((one, other) => one - other)[list.length >> 1] ?? 0;
  const cost = (one: Cost) => one.wishes;
  const whole = lines.filter(({ hand, best }) => hand.unplaced === best.unplaced);
  return [
    "| school | as a person would | first answer | answer | no timetable is better than |",
    "| --- | --- | --- | --- | --- |",
    ...rows,
    "",
    `Sessions without a place: as a person would ${of(lines.map(({ hand }) => hand.unplaced))}, first answers ${of(lines.map(({ first }) => first.unplaced))}, answers ${of(lines.map(({ best }) => best.unplaced))}.`,
    `Wishes not kept, where both place as many (${whole.length} schools): as a person would ${of(whole.map(({ hand }) => cost(hand)))}, answers ${of(whole.map(({ best }) => cost(best)))}.`,
    `Proven to be the best: ${lines.filter(({ proven }) => proven).length} of ${lines.length}. Rules broken: ${of(lines.map(({ broken }) => broken))}.`,
    `First answer after ${Math.round(median(lines.map(({ firstMs }) => firstMs)))} ms (most ${Math.round(Math.max(...lines.map(({ firstMs }) => firstMs)))}), answer with its bound after ${Math.round(median(lines.map(({ allMs }) => allMs)))} ms (most ${Math.round(Math.max(...lines.map(({ allMs }) => allMs)))}).`,
  ].join("\n");
}

const asCost = (bound: number): Cost => ({
  unplaced: Math.floor(bound / 1000),
  wishes: Math.ceil((bound % 1000) - 1e-6),
  all: bound,
  times: { adult: 0, time: 0, morning: 0, apart: 0, turns: 0 },
});
