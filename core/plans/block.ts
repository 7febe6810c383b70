import { dayNumber, type NeedFamily } from "#core/mastery";
import type { Gpc } from "#core/phonics";
import { Besides, type BlockFocus } from "./besides.ts";
import type { Focus } from "./focus-kind.ts";
import { Forecast, type Foreseen } from "./forecast.ts";
import { minutesOfRoutine, type Routine, teachesNew } from "./routine.ts";
import { type Way, ways } from "./way-names.ts";

/** A child of a group as a block of weeks looks at it, on the first day. */
export interface BlockChild extends Foreseen {
  readonly id: string;
  /** How much it needs of what is no spelling, 0 to 1 by id, as `otherNeeds` gives it. */
  readonly besides?: ReadonlyMap<string, number>;
}

/** A session that there will be. */
export interface BlockDay {
  readonly on: string;
  readonly minutes: number;
  /** Points that it has time for, as `roomFor` tells it; 0 is review alone. */
  readonly room: number;
}

/** A session that was held, with what it taught. */
export interface BlockPast {
  readonly on: string;
  readonly taught: readonly Gpc[];
  /** What it was about in place of a new spelling. */
  readonly focus?: Focus | undefined;
}

/** What a teacher wants of a day: these spellings, what is no spelling, or none of both: review alone. */
export interface BlockFixed {
  readonly on: string;
  readonly gpcs: readonly Gpc[];
  readonly focus?: Focus | undefined;
}

/** A spelling in a session, and why it is there. */
export interface BlockPoint {
  readonly gpc: Gpc;
  /** For the first time in this group; gone on with; taken up again after a while; or again in another way, since it is not there. */
  readonly step: "new" | "practise" | "again" | "differently";
  /** Of `differently`. */
  readonly way: Way | null;
  /** The children who need it on that day, as it is foreseen. */
  readonly for: readonly string[];
}

/** A session of a block. */
export interface BlockSession extends BlockDay {
  /** None where it is review alone, or about something else. */
  readonly points: readonly BlockPoint[];
  /** What it is about in place of spellings. */
  readonly focus: BlockFocus | null;
  /** What each child has not surely kept, or is about to lose by then: its cards. */
  readonly cards: readonly { readonly childId: string; readonly gpcs: readonly Gpc[] }[];
  /** Children who say at sight what it teaches: they come for their cards alone. Never all of them. */
  readonly cardsOnly: readonly string[];
  /** The last of a week looks at what the week taught. */
  readonly look: readonly Gpc[];
  /** A teacher said so. */
  readonly fixed: boolean;
}

export interface BlockWanted {
  /** The first day, from which the children are known: `2026-11-23`. */
  readonly today: string;
  readonly children: readonly BlockChild[];
  /** In order of days, none before today. */
  readonly days: readonly BlockDay[];
  /** The group's sessions so far, in order of days. */
  readonly past: readonly BlockPast[];
  readonly fixed?: readonly BlockFixed[];
  /** What may be a point, in order of teaching; whatever any of them needs where it is left out. */
  readonly among?: readonly Gpc[];
  /** What is taken before everything else, while there is something to be gained by it: what stands earlier first. */
  readonly first?: readonly ReadonlySet<Gpc>[];
  /** Whether it can be practised at all; asked of few. */
  readonly fits?: (gpc: Gpc) => boolean;
  /** What someone pinned, spellings too; and what of that which is no spelling was put off. */
  readonly pinned?: ReadonlySet<string>;
  readonly put?: ReadonlySet<string>;
  /** What the group works on that is no spelling: it comes before what else is needed, as its spellings do. */
  readonly aims?: ReadonlySet<NeedFamily>;
  /** Whether there are words to practise it with; nothing has them where it is left out. */
  readonly fitsFocus?: (focus: Focus) => boolean;
}

/** Minutes from which on a session has room for two points. */
const TWO_POINTS = 20;
/** A point is not taken up again within so many sessions, unless a teacher wants it. */
const REST = 2;
/** Time of a child who says it at sight already, beside what another gains. */
const WASTE = 0.2;
/**
 * A point from which less is to be gained is none, unless this share of the group is below the chance of a child who may not read it,
 * or, of what someone chose, does not have it yet. A session without a point is review alone.
 */
const LEAST_GAIN = 0.006;
const SHARED = 0.6;
const MAY_NOT_READ = 0.4;
/** A child with this chance of everything that a session teaches has no need of being taught it. */
const AT_SIGHT = 0.85;
/** Cards of one child in a session. */
const CARDS = 4;
/** A child with this chance needs a point no more. */
const THERE = 0.7;
/** Days within which a point is gone on with, and is not taken up anew. */
const GOES_ON_DAYS = 7;

/**
 * Plans the sessions of some weeks: which point, or which two where the minutes allow, on which day, and each child's cards. What
 * is to come is foreseen from the chances of today, how fast they fade, and what a session gives; what comes otherwise is seen when
 * the block is worked out anew after a session or a check. A point that was taught twice and is not there for more than one child is
 * taught differently. The same input gives the same block.
 */
export function planBlock(wanted: BlockWanted): readonly BlockSession[] {
  const { today, children, days, past, fixed = [], first = [], fits = () => true } = wanted;
  const ahead = children.map((child) => ({ id: child.id, seen: new Forecast(child, today) }));
  const among = wanted.among ?? [...new Set(children.flatMap(({ needs }) => [...needs.keys()]))];
  const besides = new Besides(children, {
    ...{ pinned: wanted.pinned, put: wanted.put, aims: wanted.aims },
  });
  for (const { focus } of past) if (focus) besides.wasOn(focus);
  const fitsFocus = wanted.fitsFocus ?? (() => false);
  const sessions = [...past];
  const planned: BlockSession[] = [];
  const place = (gpc: Gpc) => {
    const at = first.findIndex((tier) => tier.has(gpc));
    return at < 0 ? first.length : at;
  };
  const isShared = (gpc: Gpc, on: string, under: number) =>
    ahead.length > 0 && ahead.filter(({ seen }) => seen.chance(gpc, on) < under).length >= ahead.length * SHARED;
  for (const [at, { on, minutes, room }] of days.entries()) {
    const wish = fixed.find((one) => one.on === on);
    // What was taught just before, or stands just after, as someone said.
    const near = new Set([
      ...sessions.slice(-REST).flatMap(({ taught }) => taught),
      ...days.slice(at + 1, at + 1 + REST).flatMap((day) => fixed.find((one) => one.on === day.on)?.gpcs ?? []),
    ]);
    const gainOf = (gpc: Gpc) =>
      ahead.reduce((sum, { seen }) => sum + seen.gain(gpc, on, room) - WASTE * seen.idle(gpc, on), 0) /
      Math.max(1, ahead.length);
    const open = wish
      ? []
      : among
          .filter((gpc) => !near.has(gpc))
          .map((gpc) => ({ gpc, gain: gainOf(gpc), at: place(gpc) }))
          .filter(
            ({ gpc, gain, at: tier }) =>
              gain >= LEAST_GAIN || isShared(gpc, on, tier < first.length ? THERE : MAY_NOT_READ),
          )
          .sort((one, other) => one.at - other.at || other.gain - one.gain);
    const best = room === 0 ? undefined : besides.first({ rest: sessions.slice(-REST), fits: fitsFocus });
    // A spelling that someone put first gives way to what was put first alone.
    const top = best && !best.pinned ? open.find(({ gpc }) => fits(gpc)) : undefined;
    // What the group works on comes before a spelling that it does not; else what is gained decides.
    const isAim = top !== undefined && top.at < first.length;
    const more = (best?.gain ?? 0) > (top?.gain ?? 0) || (best?.aimed === true && !isAim);
    const gives = top === undefined || (!wanted.pinned?.has(top.gpc) && more);
    const isBetter =
      best !== undefined && (best.pinned || (best.gain >= LEAST_GAIN && gives) || (best.aimed && top === undefined));
    const about = wish ? wish.focus : isBetter ? best?.ids : undefined;
    const chosen = wish
      ? wish.gpcs
      : about
        ? []
        : firstOf(
            open.map(({ gpc }) => gpc),
            { most: room, fits },
          );
    const focus = about && about.length > 0 ? besides.on(about) : null;
    const points = chosen.map((gpc) => pointOn({ gpc, on, sessions, ahead }));
    const cards = ahead.flatMap(({ id, seen }) => {
      const gpcs = seen.cards(on, { most: CARDS, not: new Set(chosen) });
      return gpcs.length > 0 ? [{ childId: id, gpcs }] : [];
    });
    const firm = ahead.filter(({ seen }) => chosen.every((gpc) => seen.chance(gpc, on) >= AT_SIGHT));
    const cardsOnly = chosen.length > 0 && firm.length < ahead.length ? firm.map(({ id }) => id) : [];
    sessions.push({ on, taught: chosen, ...(focus ? { focus: focus.ids } : {}) });
    const isLast = weekOf(days[at + 1]?.on ?? "9999-12-31") > weekOf(on);
    const look = isLast
      ? [...new Set(sessions.filter((one) => weekOf(one.on) === weekOf(on)).flatMap(({ taught }) => taught))]
      : [];
    planned.push({ on, minutes, room, points, focus, cards, cardsOnly, look, fixed: wish !== undefined });
    if (focus) besides.teach(focus.ids);
    for (const { id, seen } of ahead) {
      if (!cardsOnly.includes(id)) for (const gpc of chosen) seen.teach(gpc, on, chosen.length);
      for (const gpc of cards.find(({ childId }) => childId === id)?.gpcs ?? []) seen.meet(gpc, on);
    }
  }
  return planned;
}

/** Points that a session has time for. @param minutes those of its slot, or of its routine where that is shorter */
export function roomFor(routine: Pick<Routine, "parts">, minutes: number): number {
  if (!teachesNew(routine)) return 0;
  return Math.min(minutes, minutesOfRoutine(routine)) >= TWO_POINTS ? 2 : 1;
}

function firstOf(
  gpcs: readonly Gpc[],
  { most, fits }: { readonly most: number; readonly fits: (gpc: Gpc) => boolean },
): readonly Gpc[] {
  const found: Gpc[] = [];
  for (const gpc of gpcs) {
    if (found.length >= most) break;
    if (fits(gpc)) found.push(gpc);
  }
  return found;
}

/** Mondays are counted: weeks of the same number are the same week. */
function weekOf(day: string): number {
  // 1970-01-01 was a Thursday.
  return Math.floor((dayNumber(day) + 3) / 7);
}

function pointOn(from: {
  readonly gpc: Gpc;
  readonly on: string;
  readonly sessions: readonly BlockPast[];
  readonly ahead: readonly { readonly id: string; readonly seen: Forecast }[];
}): BlockPoint {
  const { gpc, on, sessions, ahead } = from;
  const taughtOn = sessions.filter(({ taught }) => taught.includes(gpc)).map((one) => one.on);
  const needing = ahead.filter(({ seen }) => seen.chance(gpc, on) < THERE).map(({ id }) => id);
  const last = taughtOn.at(-1);
  const plain = { gpc, way: null, for: needing };
  if (last === undefined) return { ...plain, step: "new" };
  const way = ways[Math.min(taughtOn.length - 2, ways.length - 1)];
  if (way && needing.length > 1) return { ...plain, step: "differently", way };
  return { ...plain, step: dayNumber(on) - dayNumber(last) <= GOES_ON_DAYS ? "practise" : "again" };
}
