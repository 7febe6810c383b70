import { bestWeek } from "./exact.ts";
import { brokenBy, type Grid, gridOf, type Spot, spotOf } from "./grid.ts";
import type { MixedSolver } from "./mixed.ts";
import { type Extra, WeekFinder } from "./search.ts";
import { DAY_MINUTES, type Stretch, without } from "./times.ts";
import type { Placed, WeekWanted } from "./wanted.ts";
import { UNPLACED } from "./wishes.ts";

/** What is not there for a day, or for weeks. */
export type Missing =
  | { readonly kind: "adult" | "room" | "class"; readonly id: string; readonly when: readonly Stretch[] }
  | { readonly kind: "everyone"; readonly when: readonly Stretch[] };

/** What a session becomes. */
export interface Changed {
  readonly before: Placed;
  /** Null where it falls out. */
  readonly after: Placed | null;
}

export interface ChangeProposed {
  readonly changes: readonly Changed[];
  /** Children whose time changes, or who have no session. */
  readonly children: number;
  /** No change touches fewer children, or loses fewer sessions. */
  readonly fewest: boolean;
}

/** Another adult or room at the same time weighs next to nothing beside a child whose session is at another time. */
const OTHER_ADULT = 5;
const OTHER_ROOM = 1;
/** Wishes only choose between changes that touch as many children. */
const WISHES = 0.02;

/** What is wanted of a week in which something is not there. */
export function wantedWithout(wanted: WeekWanted, missing: readonly Missing[]): WeekWanted {
  const of = (kind: Missing["kind"], id: string) =>
    missing.flatMap((one) => (one.kind === kind && (one.kind === "everyone" || one.id === id) ? one.when : []));
  const cut = (hours: readonly Stretch[], holes: readonly Stretch[]) =>
    holes.reduce<readonly Stretch[]>((left, hole) => without(left, hole), hours);
  const everyone = missing.flatMap((one) => (one.kind === "everyone" ? one.when : []));
  return {
    ...wanted,
    adults: wanted.adults.map((one) => ({ ...one, hours: cut(one.hours, of("adult", one.id)) })),
    rooms: wanted.rooms.map((one) => ({ ...one, closed: [...one.closed, ...of("room", one.id)] })),
    children: wanted.children.map((one) => ({
      ...one,
      away: [...one.away, ...everyone, ...of("class", one.classId)],
    })),
  };
}

/** A whole day, as a stretch of it. */
export function allDay(day: Stretch["day"]): Stretch {
  return { day, from: 0, to: DAY_MINUTES };
}

/**
 * The change of a week that touches fewest children when something is not there. Sessions that are not touched by it stay,
 * but where one gives way so that fewer children are touched, or as many and fewer sessions are lost; those that are touched get
 * another adult or room at their time, another time, or none.
 * @param placed the week as it is
 */
export function changeFor(
  wanted: WeekWanted,
  placed: readonly Placed[],
  missing: readonly Missing[],
  { solver, seconds, seed = 1 }: { readonly solver?: MixedSolver; readonly seconds: number; readonly seed?: number },
): ChangeProposed {
  const had = new Map<string, number>();
  for (const { groupId } of placed) had.set(groupId, (had.get(groupId) ?? 0) + 1);
  const { weights } = wanted;
  const faint = {
    adult: weights.adult * WISHES,
    time: weights.time * WISHES,
    morning: weights.morning * WISHES,
    apart: weights.apart * WISHES,
    turns: weights.turns * WISHES,
  };
  // No more than they had: what had no place before is another matter.
  const groups = wanted.groups.map((group) => ({ ...group, sessions: had.get(group.id) ?? 0 }));
  const then = { ...wantedWithout(wanted, missing), groups, weights: faint, fixed: [] };
  const fixed = againstARule(gridOf({ ...wanted, groups, fixed: [] }), gridOf(then), placed);
  const grid = gridOf({ ...then, fixed });
  const before = placed.map((one) => ({ one, spot: spotOf(grid, one) }));
  const there = new Map(before.flatMap(({ spot }) => (spot ? [[keyOf(spot), spot] as const] : [])));
  const kept = keptOf(grid, [...there.values()]);
  // A child at another time weighs more than all sessions that may fall out: for those no other group is moved.
  const touched = (1 + there.size - kept.length) * UNPLACED;
  const stays = ({ group }: Spot) => -touched * Math.max(1, grid.groups[group]?.members.length ?? 0);
  const extra: Extra = {
    of: (spot) => {
      const was = there.get(keyOf(spot));
      if (!was) return 0;
      const other = (was.adult === spot.adult ? 0 : OTHER_ADULT) + (was.room === spot.room ? 0 : OTHER_ROOM);
      return stays(spot) + other;
    },
    least: [...there.values()].reduce((sum, spot) => sum + stays(spot), 0),
  };
  const finder = new WeekFinder(grid, seed, extra);
  finder.offer(kept);
  finder.again(60);
  const best = solver && bestWeek(grid, solver, { from: finder.spots(), seconds, extra });
  const spots = best?.spots ?? finder.spots();
  return { ...comparedWith(grid, before, spots), fewest: best?.proven ?? false };
}

/** Sessions that someone wants where they are against a rule, and that what is not there does not touch: they stay. */
function againstARule(before: Grid, then: Grid, placed: readonly Placed[]): Placed[] {
  const broken = (grid: Grid, one: Placed) => {
    const spot = spotOf(grid, one);
    return spot ? brokenBy(grid, [spot]).length : 0;
  };
  return placed.filter((one) => broken(before, one) > 0 && broken(then, one) === broken(before, one));
}

function keyOf({ group, slot }: Pick<Spot, "group" | "slot">): string {
  return `${group} ${slot}`;
}

/** Of the sessions that were, those that can still be as they were. */
function keptOf(grid: Grid, spots: readonly Spot[]): Spot[] {
  return spots.filter(
    ({ group, slot, adult, room }) =>
      grid.whyThen[group]?.[slot]?.length === 0 &&
      grid.whyBy[group]?.[adult]?.[slot]?.length === 0 &&
      (room < 0 || grid.whyIn[group]?.[room]?.[slot]?.length === 0),
  );
}

function comparedWith(
  grid: Grid,
  before: readonly { readonly one: Placed; readonly spot: Spot | undefined }[],
  spots: readonly Spot[],
): Omit<ChangeProposed, "fewest"> {
  const after = (spot: Spot): Placed => ({
    groupId: grid.groups[spot.group]?.id ?? "",
    slotId: grid.slots[spot.slot]?.id ?? "",
    adultId: grid.adults[spot.adult]?.id ?? "",
    roomId: grid.rooms[spot.room]?.id ?? null,
  });
  const changes: Changed[] = [];
  const touched = new Set<string>();
  for (const [at, group] of grid.groups.entries()) {
    const mine = before.filter(({ one }) => one.groupId === group.id);
    const now = spots.filter((spot) => spot.group === at);
    const fresh = now.filter((spot) => !mine.some(({ spot: was }) => was && was.slot === spot.slot));
    for (const { one, spot } of mine) {
      const same = spot && now.find(({ slot }) => slot === spot.slot);
      // The nearest in the week takes the place of one that goes.
      const next = same ?? fresh.splice(nearest(fresh, spot), 1)[0];
      const became = next ? after(next) : null;
      if (!same) for (const id of group.members) touched.add(id);
      const alike = became && became.adultId === one.adultId && became.roomId === one.roomId;
      if (!same || !alike) changes.push({ before: one, after: became });
    }
  }
  return { changes, children: touched.size };
}

function nearest(list: readonly Spot[], spot: Spot | undefined): number {
  let best = 0;
  for (const [at, one] of list.entries())
    if (spot && Math.abs(one.slot - spot.slot) < Math.abs((list[best]?.slot ?? 0) - spot.slot)) best = at;
  return best;
}
