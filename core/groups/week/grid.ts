import { counted, mustOf, type Rule, whyNotBy, whyNotIn, whyNotThen } from "./rules.ts";
import { inOrder, overlap, type Slot } from "./times.ts";
import type { Placed, WeekAdult, WeekChild, WeekGroup, WeekRoom, WeekWanted } from "./wanted.ts";

/** A session by places in the lists of a grid; `room` is -1 where rooms do not matter. */
export interface Spot {
  readonly group: number;
  readonly slot: number;
  readonly adult: number;
  readonly room: number;
}

/** Times at which these children miss one lesson: each is a group in a slot. */
export interface Misses {
  readonly what: string;
  /** How many children have just these. */
  readonly children: number;
  readonly at: readonly (readonly [group: number, slot: number])[];
  /** How often it may be missed; Infinity where that does not matter. */
  readonly most: number;
}

/** What is asked for, laid out so that a search finds its rules by numbers. */
export interface Grid {
  readonly wanted: WeekWanted;
  readonly slots: readonly Slot[];
  readonly adults: readonly WeekAdult[];
  readonly rooms: readonly WeekRoom[];
  readonly groups: readonly WeekGroup[];
  /** Number of the day of each slot, from 0, and how many days have slots. */
  readonly dayOf: readonly number[];
  readonly days: number;
  /** For each day the next one that follows it at once, or -1. */
  readonly nextDay: readonly number[];
  /** Number of the time of the day at which each slot begins. */
  readonly timeOf: readonly number[];
  readonly times: number;
  /** [group][slot]: what keeps the group from it, whoever takes it. */
  readonly whyThen: readonly (readonly (readonly Rule[])[])[];
  /** [group][adult][slot]. */
  readonly whyBy: readonly (readonly (readonly (readonly Rule[])[])[])[];
  /** [group][room][slot]. */
  readonly whyIn: readonly (readonly (readonly (readonly Rule[])[])[])[];
  /** [adult][room]: whether the adult may be there. */
  readonly mayBe: readonly (readonly boolean[])[];
  /** [group]: groups that share a child with it. */
  readonly sharing: readonly (readonly number[])[];
  readonly misses: readonly Misses[];
  /** [group][slot]: places in `misses`. */
  readonly missed: readonly (readonly (readonly number[])[])[];
  readonly fixed: readonly Spot[];
  /** Fixed sessions that cannot stand beside those before them, or speak of what is not there. */
  readonly unfixed: readonly Placed[];
}

/** Lays out what is asked for. */
export function gridOf(wanted: WeekWanted): Grid {
  const slots = inOrder(wanted.slots);
  const { adults, rooms, groups } = wanted;
  const childOf = new Map(wanted.children.map((child) => [child.id, child]));
  const membersOf = groups.map(({ members }) => members.flatMap((id) => childOf.get(id) ?? []));
  const usedDays = [...new Set(slots.map(({ day }) => day))];
  const starts = [...new Set(slots.map(({ from }) => from))].sort((one, other) => one - other);
  const members = (group: number) => membersOf[group] as WeekChild[];
  const misses = missesOf(wanted, slots, membersOf);
  const missed = groups.map(() => slots.map((): number[] => []));
  for (const [at, one] of misses.entries()) for (const [group, slot] of one.at) missed[group]?.[slot]?.push(at);
  const base: Omit<Grid, "fixed" | "unfixed"> = {
    ...{ wanted, slots, adults, rooms, groups, misses, missed },
    dayOf: slots.map(({ day }) => usedDays.indexOf(day)),
    days: usedDays.length,
    nextDay: usedDays.map((day, at) => (usedDays[at + 1] === day + 1 ? at + 1 : -1)),
    timeOf: slots.map(({ from }) => starts.indexOf(from)),
    times: starts.length,
    whyThen: groups.map((group, at) =>
      slots.map((slot) => whyNotThen(wanted, { group, slot, members: members(at) })),
    ),
    whyBy: groups.map((group, at) =>
      adults.map((adult) => slots.map((slot) => whyNotBy(adult, group, slot, members(at)))),
    ),
    whyIn: groups.map((group) => rooms.map((room) => slots.map((slot) => whyNotIn(room, group, slot)))),
    mayBe: adults.map((adult) => rooms.map(({ id }) => adult.rooms.length === 0 || adult.rooms.includes(id))),
    sharing: groups.map((group, at) =>
      groups.flatMap((other, place) =>
        place !== at && other.members.some((id) => group.members.includes(id)) ? place : [],
      ),
    ),
  };
  return { ...base, ...fixedIn(base) };
}

/** Which lessons children would miss when, those that miss the same at the same times taken together. */
function missesOf(
  wanted: WeekWanted,
  slots: readonly Slot[],
  membersOf: readonly (readonly WeekChild[])[],
): Misses[] {
  const found = new Map<string, Misses>();
  for (const child of new Set(membersOf.flat())) {
    const at = new Map<string, (readonly [number, number])[]>();
    for (const [group, { minutes }] of wanted.groups.entries()) {
      if (!membersOf[group]?.includes(child)) continue;
      for (const [slot, one] of slots.entries()) {
        const session = { ...one, to: one.from + minutes };
        const whats = new Set(child.lessons.filter((lesson) => overlap(lesson, session)).map(({ what }) => what));
        for (const what of whats) at.set(what, [...(at.get(what) ?? []), [group, slot]]);
      }
    }
    for (const [what, places] of at) {
      const rule = wanted.lessons.find((one) => one.what === what);
      if (rule?.must) continue;
      const key = `${what} ${places.join(" ")}`;
      const same = found.get(key);
      const most = rule?.most ?? Number.POSITIVE_INFINITY;
      found.set(key, { what, at: places, most, children: (same?.children ?? 0) + 1 });
    }
  }
  return [...found.values()];
}

/** Fixed sessions as spots; one that would have an adult, a room or a child twice at a time cannot stand. */
function fixedIn(grid: Omit<Grid, "fixed" | "unfixed">): Pick<Grid, "fixed" | "unfixed"> {
  const fixed: Spot[] = [];
  const unfixed: Placed[] = [];
  for (const one of grid.wanted.fixed ?? []) {
    const spot = spotOf(grid, one);
    const fits = spot && fixed.every((other) => !clash(grid, spot, other)) && hasOneToPlace(grid, spot.group, fixed);
    if (fits) fixed.push(spot);
    else unfixed.push(one);
  }
  return { fixed, unfixed };
}

function hasOneToPlace(grid: Pick<Grid, "groups">, group: number, fixed: readonly Spot[]): boolean {
  return fixed.filter((one) => one.group === group).length < (grid.groups[group]?.sessions ?? 0);
}

/** True when two sessions cannot both be: an adult, a room or a child would be in two places, or a group met twice a day. */
export function clash(grid: Pick<Grid, "sharing" | "dayOf">, one: Spot, other: Spot): boolean {
  if (one.group === other.group) return grid.dayOf[one.slot] === grid.dayOf[other.slot];
  if (one.slot !== other.slot) return false;
  if (one.adult === other.adult || (one.room >= 0 && one.room === other.room)) return true;
  return grid.sharing[one.group]?.includes(other.group) ?? false;
}

/** A session by numbers; undefined when it speaks of something that is not there. */
export function spotOf(grid: Pick<Grid, "groups" | "slots" | "adults" | "rooms">, placed: Placed): Spot | undefined {
  const spot = {
    group: grid.groups.findIndex(({ id }) => id === placed.groupId),
    slot: grid.slots.findIndex(({ id }) => id === placed.slotId),
    adult: grid.adults.findIndex(({ id }) => id === placed.adultId),
    room: grid.rooms.findIndex(({ id }) => id === placed.roomId),
  };
  if (spot.group < 0 || spot.slot < 0 || spot.adult < 0) return undefined;
  return spot.room < 0 && grid.rooms.length > 0 ? undefined : spot;
}

export function placedOf(grid: Grid, spots: readonly Spot[]): Placed[] {
  return spots
    .toSorted((one, other) => one.group - other.group || one.slot - other.slot)
    .map(({ group, slot, adult, room }) => ({
      groupId: grid.groups[group]?.id ?? "",
      slotId: grid.slots[slot]?.id ?? "",
      adultId: grid.adults[adult]?.id ?? "",
      roomId: grid.rooms[room]?.id ?? null,
    }));
}

/** True when no rule of one session alone keeps it from being: times, adult, room. */
export function allowed(grid: Grid, { group, slot, adult, room }: Spot): boolean {
  return (
    grid.whyThen[group]?.[slot]?.length === 0 &&
    grid.whyBy[group]?.[adult]?.[slot]?.length === 0 &&
    (room < 0
      ? grid.rooms.length === 0
      : grid.whyIn[group]?.[room]?.[slot]?.length === 0 && grid.mayBe[adult]?.[room] === true)
  );
}

/**
 * Every rule that a timetable breaks, each once; none of a timetable that was made here, but for what stands against what is
 * fixed.
 */
export function brokenBy(grid: Grid, spots: readonly Spot[]): string[] {
  const says: string[] = [];
  const add = (rule: Rule) => says.push(rule.says);
  for (const { group, slot, adult, room } of spots) {
    for (const rule of grid.whyThen[group]?.[slot] ?? []) add(rule);
    for (const rule of grid.whyBy[group]?.[adult]?.[slot] ?? []) add(rule);
    if (room < 0) continue;
    for (const rule of grid.whyIn[group]?.[room]?.[slot] ?? []) add(rule);
    const one = grid.adults[adult];
    if (one && !grid.mayBe[adult]?.[room]) add(counted.adultRooms(one));
  }
  for (const [at, one] of spots.entries())
    for (const other of spots.slice(at + 1)) if (clash(grid, one, other)) says.push(clashInWords(grid, one, other));
  for (const [at, adult] of grid.adults.entries()) {
    const mine = spots.filter((one) => one.adult === at);
    const days = mine.map(({ slot }) => grid.dayOf[slot]);
    if (days.some((day) => days.filter((one) => one === day).length > adult.mostADay)) add(counted.adultDay(adult));
    if (mine.length > adult.mostAWeek) add(counted.adultWeek(adult));
  }
  const held = new Set(spots.map(({ group, slot }) => `${group} ${slot}`));
  for (const { what, at, most } of grid.misses)
    if (at.filter(([group, slot]) => held.has(`${group} ${slot}`)).length > most) add(counted.most(what, most));
  return [...new Set(says)];
}

/** Why two sessions cannot both be, in a sentence. */
export function clashInWords(grid: Grid, one: Spot, other: Spot): string {
  const name = (list: readonly { readonly name: string }[], at: number) => list[at]?.name ?? "";
  const rival = name(grid.groups, other.group);
  if (one.group === other.group) return `${rival} has a session that day already.`;
  if (one.adult === other.adult) return `${name(grid.adults, one.adult)} takes ${rival} then.`;
  if (one.room >= 0 && one.room === other.room) return `${rival} is in ${name(grid.rooms, one.room)} then.`;
  const shared = grid.groups[one.group]?.members.filter((id) => grid.groups[other.group]?.members.includes(id));
  const names = grid.wanted.children.flatMap((child) => (shared?.includes(child.id) ? child.name : []));
  return `${names.join(" and ")} ${names.length === 1 ? "is" : "are"} with ${rival} then.`;
}

/** All rules of a grid, each once. */
export function allRules(grid: Grid): Rule[] {
  const found = [
    ...grid.groups.filter(({ sessions }) => sessions > 0).map(counted.sessions),
    ...[grid.whyThen, grid.whyBy.flat(), grid.whyIn.flat()].flatMap((list) => list.flat(2)),
    ...grid.adults.flatMap((adult) => [counted.adultDay(adult), counted.adultWeek(adult)]),
    ...(grid.rooms.length > 0
      ? grid.adults.filter((_, at) => grid.mayBe[at]?.includes(false)).map(counted.adultRooms)
      : []),
    ...grid.misses
      .filter(({ most }) => most < Number.POSITIVE_INFINITY)
      .map(({ what, most }) => counted.most(what, most)),
    ...grid.wanted.lessons.filter(({ must }) => must).map(({ what }) => mustOf(what)),
  ];
  return [...new Map(found.map((rule) => [rule.key, rule])).values()];
}
