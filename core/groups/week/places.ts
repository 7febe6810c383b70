import { allowed, clash, clashInWords, type Grid, type Spot } from "./grid.ts";
import { counted } from "./rules.ts";
import { costOf } from "./wishes.ts";

/** What a slot is for a session that someone wants to put somewhere else. */
export interface Place {
  readonly slot: number;
  /** Where it would be, with whom; undefined where it cannot be. */
  readonly spot: Spot | undefined;
  /** What it costs or brings by the wishes: below 0 is better than where it is. */
  readonly costs: number;
  /** Why it cannot be there, each a sentence. */
  readonly why: readonly string[];
}

/**
 * Where one session of a timetable could be instead, slot by slot, all others staying. The same adult and the same room are kept
 * where they can be.
 * @param at place of the session in the timetable; -1 for a session that has no place, of `group`
 */
export function placesFor(grid: Grid, spots: readonly Spot[], { at, group }: { at: number; group: number }): Place[] {
  const here = spots[at];
  const others = spots.filter((_, place) => place !== at);
  const before = costOf(grid, spots).all;
  const rooms = grid.rooms.length > 0 ? grid.rooms.map((_, room) => room) : [-1];
  const first = <One>(list: readonly One[], one: One | undefined) =>
    one !== undefined && list.includes(one) ? [one, ...list.filter((other) => other !== one)] : list;
  const adults = first(
    grid.adults.map((_, adult) => adult),
    here?.adult,
  );
  return grid.slots.map((_, slot): Place => {
    const choices = adults.flatMap((adult) =>
      first(rooms, here?.room).map((room): Spot => ({ group, slot, adult, room })),
    );
    const free = choices.filter((spot) => fits(grid, others, spot));
    const price = (spot: Spot) => costOf(grid, [...others, spot]).all - before;
    let best: Spot | undefined;
    let costs = Number.POSITIVE_INFINITY;
    for (const spot of free) {
      const cost = price(spot);
      if (cost >= costs - 1e-9) continue;
      [best, costs] = [spot, cost];
    }
    const why = best ? [] : whyNowhere(grid, others, choices);
    return { slot, spot: best, costs: best ? costs : 0, why };
  });
}

/** Whether a session breaks no rule beside others. What those break among themselves is not its fault. */
export function fits(grid: Grid, others: readonly Spot[], spot: Spot): boolean {
  if (!allowed(grid, spot) || others.some((other) => clash(grid, spot, other))) return false;
  const { mostADay = 0, mostAWeek = 0 } = grid.adults[spot.adult] ?? {};
  const mine = others.filter(({ adult }) => adult === spot.adult);
  const day = grid.dayOf[spot.slot];
  if (mine.length >= mostAWeek || mine.filter(({ slot }) => grid.dayOf[slot] === day).length >= mostADay)
    return false;
  return (grid.missed[spot.group]?.[spot.slot] ?? []).every((at) => {
    const { at: places = [], most = 0 } = grid.misses[at] ?? {};
    return (
      others.filter((one) => places.some(([group, slot]) => group === one.group && slot === one.slot)).length < most
    );
  });
}

/** What keeps a group from a slot: what holds whoever takes it, or else what keeps each adult from it. */
function whyNowhere(grid: Grid, others: readonly Spot[], choices: readonly Spot[]): string[] {
  const [any] = choices;
  if (!any) return ["No adult takes groups yet."];
  const always = (grid.whyThen[any.group]?.[any.slot] ?? []).map(({ says }) => says);
  const lessons = whyMissed(grid, others, any);
  const met = others.filter((other) => other.group === any.group && clash(grid, any, other));
  const shared = others.filter(
    (other) => other.slot === any.slot && other.group !== any.group && grid.sharing[any.group]?.includes(other.group),
  );
  const together = [...met, ...shared].map((other) => clashInWords(grid, { ...any, adult: -1, room: -2 }, other));
  const whole = [...new Set([...always, ...lessons, ...together])];
  if (whole.length > 0) return whole;
  const byAdult = grid.adults.map((_, adult) => {
    const mine = choices.filter((spot) => spot.adult === adult);
    return [...new Set(mine.flatMap((spot) => brokenBeside(grid, others, spot)))];
  });
  return [...new Set(byAdult.flatMap((list) => list.slice(0, 1)))];
}

function whyMissed(grid: Grid, others: readonly Spot[], spot: Spot): string[] {
  return (grid.missed[spot.group]?.[spot.slot] ?? []).flatMap((at) => {
    const { at: places = [], most = 0, what = "" } = grid.misses[at] ?? {};
    const count = others.filter((one) => places.some(([group, slot]) => group === one.group && slot === one.slot));
    return count.length < most ? [] : [counted.most(what, most).says];
  });
}

/** What a session would break beside others, each a sentence. What those break among themselves is not its fault. */
export function brokenBeside(grid: Grid, others: readonly Spot[], spot: Spot): string[] {
  const { adult, room } = spot;
  const says = [
    ...(grid.whyThen[spot.group]?.[spot.slot] ?? []),
    ...(grid.whyBy[spot.group]?.[adult]?.[spot.slot] ?? []),
    ...(room < 0 ? [] : (grid.whyIn[spot.group]?.[room]?.[spot.slot] ?? [])),
  ].map((rule) => rule.says);
  const who = grid.adults[adult];
  if (who && room >= 0 && !grid.mayBe[adult]?.[room]) says.push(counted.adultRooms(who).says);
  for (const other of others) if (clash(grid, spot, other)) says.push(clashInWords(grid, spot, other));
  const mine = others.filter((other) => other.adult === adult);
  const day = grid.dayOf[spot.slot];
  if (who && mine.filter(({ slot }) => grid.dayOf[slot] === day).length >= who.mostADay)
    says.push(counted.adultDay(who).says);
  if (who && mine.length >= who.mostAWeek) says.push(counted.adultWeek(who).says);
  return [...new Set([...says, ...whyMissed(grid, others, spot)])];
}
