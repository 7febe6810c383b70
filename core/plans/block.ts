import { differenceInCalendarDays, parseISO } from "date-fns";
import type { Gpc } from "#core/phonics";
import { forecast } from "./forecast.ts";

/** A child of a group as a block of weeks looks at it. */
export interface BlockChild {
  readonly id: string;
  /** The chance of each spelling that it was taught, on the first day, 0 to 1. */
  readonly chances: ReadonlyMap<Gpc, number>;
  /** How much of each chance goes in four weeks if no one asks, in hundredths. */
  readonly fades: ReadonlyMap<Gpc, number>;
  /** What it needs, weighed by what it would bring, 0 to 1. */
  readonly needs: ReadonlyMap<Gpc, number>;
  /** The day from which on it is in the group; undefined where it is already. */
  readonly from?: string | undefined;
}

/** A session that there will be. */
export interface BlockDay {
  readonly on: string;
  readonly minutes: number;
}

/** A session that was held, or that counts as held. */
export interface BlockPast {
  readonly on: string;
  readonly taught: readonly Gpc[];
}

/** What a teacher wants of a day: these spellings, or review alone. */
export interface BlockFixed {
  readonly on: string;
  /** None means review alone. */
  readonly gpcs: readonly Gpc[];
}

/** How a spelling is taught again that was taught and is not there yet, in their order. */
export const ways = ["other words", "another practice", "a contrast", "a smaller step"] as const;
export type Way = (typeof ways)[number];

/** A spelling in a session, and why it is there. */
export interface BlockPoint {
  readonly gpc: Gpc;
  /** First time in this group; gone on with; met again after a while; or taught again in another way. */
  readonly step: "new" | "practise" | "again" | "differently";
  /** Of `differently`. */
  readonly way?: Way;
  /** The children who need it on that day, as it is foreseen. */
  readonly for: readonly string[];
}

/** A session of a block. */
export interface BlockSession {
  readonly on: string;
  readonly minutes: number;
  /** None where it is review alone. */
  readonly points: readonly BlockPoint[];
  /** What each child is about to lose by then, or has not surely kept: its cards. */
  readonly cards: readonly { readonly childId: string; readonly gpcs: readonly Gpc[] }[];
  /** A teacher said so. */
  readonly fixed: boolean;
}

export interface BlockWanted {
  readonly children: readonly BlockChild[];
  /** In order of days. */
  readonly days: readonly BlockDay[];
  /** The group's sessions so far, in order of days. */
  readonly past: readonly BlockPast[];
  readonly fixed?: readonly BlockFixed[];
  /** What may be a point, in order of teaching; whatever any of them needs where it is left out. */
  readonly among?: readonly Gpc[];
  /** Taken first, while anyone needs it. */
  readonly pinned?: ReadonlySet<Gpc>;
}

/** Minutes from which on a session has room for two points. */
export const TWO_POINTS = 20;
/** A point is not taken up again within so many sessions, unless a teacher wants it. */
const REST = 3;
/** Time of a child who says it at sight already, beside what another gains. */
const WASTE = 0.35;
/** A session in which less is to be gained than this teaches nothing new. */
const LEAST_GAIN = 0.08;
/** Cards of one child in a session. */
const CARDS = 4;
/** Below this chance it is a matter for teaching, above it nothing has to be done. */
const [LOST, SURE] = [0.25, 0.9];
/** A child of whom this is foreseen needs a point no more. */
const ENOUGH = 0.75;

/**
 * Plans the sessions of some weeks: which point, or which two where the minutes allow, on which day, and each child's cards.
 * What is to come is foreseen from the chances of today, how fast they fade, and what a session gives; what comes otherwise is
 * seen when the block is worked out anew. The same input gives the same block.
 */
export function planBlock(wanted: BlockWanted): readonly BlockSession[] {
  const { children, days, past, fixed = [], pinned = new Set() } = wanted;
  const [first] = days;
  if (!first) return [];
  const ahead = children.map((child) => ({ child, seen: forecast(child, first.on) }));
  const among = wanted.among ?? [...new Set(children.flatMap(({ needs }) => [...needs.keys()]))];
  const place = new Map(among.map((gpc, at) => [gpc, at]));
  const taught = past.map((one) => one.taught);
  const lastOn = new Map(past.flatMap((one) => one.taught.map((gpc) => [gpc, one.on] as const)));
  const planned: BlockSession[] = [];
  for (const { on, minutes } of days) {
    const here = ahead.filter(({ child }) => child.from === undefined || child.from <= on);
    const wish = fixed.find((one) => one.on === on);
    const room = minutes >= TWO_POINTS ? 2 : 1;
    const lately = new Set(taught.slice(-REST).flat());
    const gainOf = (gpc: Gpc) =>
      here.reduce((sum, { seen }) => sum + seen.gain(gpc, on, room) - WASTE * seen.says(gpc, on), 0) /
      Math.max(1, here.length);
    const chosen = wish
      ? wish.gpcs
      : among
          .filter((gpc) => !lately.has(gpc))
          .map((gpc) => ({ gpc, gain: gainOf(gpc) }))
          .filter(({ gain }) => gain >= LEAST_GAIN)
          .sort(
            (one, other) =>
              Number(pinned.has(other.gpc)) - Number(pinned.has(one.gpc)) ||
              other.gain - one.gain ||
              (place.get(one.gpc) ?? 0) - (place.get(other.gpc) ?? 0),
          )
          .slice(0, room)
          .map(({ gpc }) => gpc);
    const points = chosen.map((gpc): BlockPoint => {
      const times = taught.filter((one) => one.includes(gpc)).length;
      const needing = here.filter(({ seen }) => seen.chance(gpc, on) < ENOUGH).map(({ child }) => child.id);
      const last = lastOn.get(gpc);
      const step =
        times === 0
          ? "new"
          : last && differenceInCalendarDays(parseISO(on), parseISO(last)) <= 7
            ? "practise"
            : "again";
      return { gpc, step, for: needing };
    });
    const cards = here.flatMap(({ child, seen }) => {
      const gpcs = seen.cards(on, { most: CARDS, not: new Set(chosen), least: LOST, sure: SURE });
      return gpcs.length > 0 ? [{ childId: child.id, gpcs }] : [];
    });
    planned.push({ on, minutes, points, cards, fixed: wish !== undefined });
    taught.push(chosen);
    for (const gpc of chosen) lastOn.set(gpc, on);
    for (const { child, seen } of here) {
      for (const gpc of chosen) seen.teach(gpc, on, chosen.length);
      for (const gpc of cards.find(({ childId }) => childId === child.id)?.gpcs ?? []) seen.meet(gpc, on);
    }
  }
  return planned;
}
