import type { Grid, Spot } from "./grid.ts";
import { type WeekWeights, type WishName, wishNames } from "./wanted.ts";

const NOON = 12 * 60;
/** What a session that has no place costs: more than all wishes that it could keep. */
export const UNPLACED = 1000;

/** How often each wish is not kept, and what that costs with its weight. 0 is the best there could be. */
export interface Cost {
  readonly unplaced: number;
  readonly times: Readonly<Record<WishName, number>>;
  /** Of the wishes alone. */
  readonly wishes: number;
  /** With what sessions without a place cost. */
  readonly all: number;
}

/** How often the sessions of one group go against the wishes that look at one group alone. */
export function missedByGroup(
  grid: Grid,
  spots: readonly Pick<Spot, "slot" | "adult">[],
): Omit<Cost["times"], "turns"> {
  let late = 0;
  let running = 0;
  let days = 0;
  let adults = 0;
  let times = 0;
  for (const [at, { slot, adult }] of spots.entries()) {
    if ((grid.slots[slot]?.from ?? 0) >= NOON) late++;
    days |= 1 << (grid.dayOf[slot] as number);
    let [newAdult, newTime] = [1, 1];
    for (let before = 0; before < at; before++) {
      const other = spots[before] as Pick<Spot, "slot" | "adult">;
      if (other.adult === adult) newAdult = 0;
      if (grid.timeOf[other.slot] === grid.timeOf[slot]) newTime = 0;
    }
    adults += newAdult;
    times += newTime;
  }
  for (const [day, next] of grid.nextDay.entries())
    if (next >= 0 && days & (1 << day) && days & (1 << next)) running++;
  return { adult: Math.max(0, adults - 1), time: Math.max(0, times - 1), morning: late, apart: running };
}

/** What a timetable costs, part by part. */
export function costOf(grid: Grid, spots: readonly Spot[], weights: WeekWeights = grid.wanted.weights): Cost {
  const times = { adult: 0, time: 0, morning: 0, apart: 0, turns: 0 };
  let unplaced = 0;
  for (const [at, { sessions }] of grid.groups.entries()) {
    const mine = spots.filter(({ group }) => group === at);
    unplaced += Math.max(0, sessions - mine.length);
    const missed = missedByGroup(grid, mine);
    for (const name of ["adult", "time", "morning", "apart"] as const) times[name] += missed[name];
  }
  const held = new Set(spots.map(({ group, slot }) => group * grid.slots.length + slot));
  for (const { at, children } of grid.misses) {
    const count = at.filter(([group, slot]) => held.has(group * grid.slots.length + slot)).length;
    times.turns += children * Math.max(0, count - 1);
  }
  const wishes = wishNames.reduce((sum, name) => sum + weights[name] * times[name], 0);
  return { unplaced, times, wishes, all: wishes + UNPLACED * unplaced };
}
