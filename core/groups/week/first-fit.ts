import { allowed, type Grid, type Spot } from "./grid.ts";
import { Board } from "./search.ts";

/**
 * A timetable as a person would write one by hand: group after group, session after session, the first slot of the week with the
 * first adult and room that are free, on a day that the group has not got yet. The baseline that others are measured by.
 */
export function firstFit(grid: Grid): Spot[] {
  const board = new Board(grid);
  for (const spot of grid.fixed) board.put(spot);
  const rooms = grid.rooms.length > 0 ? grid.rooms.map((_, at) => at) : [-1];
  for (const [group, { sessions }] of grid.groups.entries())
    for (const [slot] of grid.slots.entries()) {
      if ((board.byGroup[group]?.length ?? 0) >= sessions) break;
      const choices = grid.adults.flatMap((_, adult) => rooms.map((room): Spot => ({ group, slot, adult, room })));
      const first = choices.find((spot) => allowed(grid, spot) && board.fits(spot));
      if (first) board.put(first);
    }
  return board.spots();
}
