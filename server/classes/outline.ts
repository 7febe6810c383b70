import { inArray } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import type { OrderBody } from "#contract";
import { taughtSince } from "#core/order";
import { row } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** A class with how far it is taught. */
export interface ClassInOutline {
  readonly id: string;
  readonly name: string;
  readonly yearGroup: string;
  readonly orderId: string;
  readonly stepId: string | null;
  readonly taughtOn: string | null;
  readonly archived: boolean;
  /** The day from which each spelling and exception word was taught; what was marked back is not in it. */
  readonly since: ReadonlyMap<string, string>;
}

/** One mark of a place that a child or a group has of its own. */
export interface PlaceMark {
  readonly number: number;
  /** Both null: along with the class again. */
  readonly orderId: string | null;
  readonly stepId: string | null;
  readonly again: boolean;
  readonly taughtOn: string;
  readonly markedAt: string;
}

/** What of a school is asked for with almost everything, and seldom changes. */
export interface Outline {
  /** The oldest first, archived ones among them. */
  readonly classes: readonly ClassInOutline[];
  /** The orders that these classes follow, and those of places, by id. */
  readonly orders: ReadonlyMap<string, OrderBody>;
  /** A year before the first day on which anything was marked as taught; empty before that. */
  readonly firstDay: string;
  /** Marks of places of their own, by owner, the newest last. */
  readonly placesOfChildren: ReadonlyMap<string, readonly PlaceMark[]>;
  readonly placesOfGroups: ReadonlyMap<string, readonly PlaceMark[]>;
}

/** Of so many schools the outline is kept in memory. */
const MOST_SCHOOLS = 200;
const kept = new LRUCache<string, { readonly number: number; readonly outline: Outline }>({ max: MOST_SCHOOLS });
/** Of transactions that have written into it, or read it at a number that no one has kept yet. */
const reading = new WeakMap<Inside, Promise<Outline>>();

/** The outline of the school, as the number in its row says: read once, until a transaction somewhere writes into it. */
export async function outlineOf(inside: Inside): Promise<Outline> {
  if (inside.reshaped) return readOutline(inside);
  const { outline: number } = await row(inside);
  const known = kept.get(inside.memoryKey);
  if (known?.number === number) return known.outline;
  const asked = reading.get(inside) ?? readOutline(inside);
  reading.set(inside, asked);
  const outline = await asked;
  // Read while it was written into here: that is not what the number stands for.
  if (!inside.reshaped) kept.set(inside.memoryKey, { number, outline });
  return outline;
}

async function readOutline(inside: Inside): Promise<Outline> {
  const rows = await inside.select().from(t.classes).orderBy(t.classes.createdAt, t.classes.name);
  const all = await inside.select().from(t.taught).orderBy(t.taught.classId, t.taught.number);
  const places = await inside.select().from(t.places).orderBy(t.places.number);
  const ids = [...new Set([...rows, ...places].flatMap((one) => one.orderId ?? []))];
  const orders =
    ids.length === 0
      ? []
      : await inside
          .select({ id: t.orders.id, content: t.orders.content })
          .from(t.orders)
          .where(inArray(t.orders.id, ids));
  const contents = new Map(orders.map((one) => [one.id, one.content]));
  return {
    classes: rows.map(({ id, name, yearGroup, orderId, archived }) => {
      const mine = all.filter((mark) => mark.classId === id);
      const mark = mine.at(-1);
      return {
        id,
        name,
        yearGroup,
        orderId,
        archived,
        stepId: mark?.stepId ?? null,
        taughtOn: mark?.taughtOn ?? null,
        since: taughtSince(mine, contents.get(orderId)),
      };
    }),
    orders: contents,
    firstDay: aYearBefore([...all, ...places].map((one) => one.taughtOn).sort()[0]),
    placesOfChildren: byOwner(places, (one) => one.childId),
    placesOfGroups: byOwner(places, (one) => one.groupId),
  };
}

function aYearBefore(day: string | undefined): string {
  return day === undefined ? "" : `${Number(day.slice(0, 4)) - 1}${day.slice(4)}`;
}

function byOwner<Row extends PlaceMark>(
  rows: readonly Row[],
  owner: (row: Row) => string | null,
): ReadonlyMap<string, readonly PlaceMark[]> {
  const found = new Map<string, PlaceMark[]>();
  for (const row of rows) {
    const id = owner(row);
    if (id !== null) found.set(id, [...(found.get(id) ?? []), row]);
  }
  return found;
}
