import { isDeepStrictEqual } from "node:util";
import { and, eq } from "drizzle-orm";
import type { OrderBody, OrderView } from "#contract";
import * as classes from "../classes/repository.ts";
import { wordsChanged } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { ownUnitsOf } from "./own-units.ts";
import { forgetOrder, standingIn } from "./places.ts";

export { pointsHere } from "./points.ts";

/** Teaching orders, shipped ones first, with the classes that use them. */
export async function list(inside: Inside): Promise<OrderView[]> {
  const rows = await inside.select().from(t.orders).orderBy(t.orders.createdAt, t.orders.id);
  const all = await classes.brief(inside);
  // Those that ship stand in the order in which they ship; one that no longer does is the school's own.
  const place = (id: string) => inside.shipped.orders.findIndex((one) => one.id === id);
  const shipped = rows.filter((row) => row.shipped).sort((one, other) => place(one.id) - place(other.id));
  return Promise.all(
    [...shipped, ...rows.filter((row) => !row.shipped)].map(async (row) => ({
      id: row.id,
      shipped: row.shipped,
      version: row.version,
      content: row.content,
      usedBy: [
        ...all.filter((one) => one.orderId === row.id).map(({ id, name, stepId }) => ({ id, name, stepId })),
        ...(await standingIn(inside, row.id)),
      ],
    })),
  );
}

/** One order, or undefined. */
export async function find(inside: Inside, id: string): Promise<OrderView | undefined> {
  const [row] = await inside.select().from(t.orders).where(eq(t.orders.id, id));
  if (!row) return undefined;
  const usedBy = (await classes.brief(inside)).filter((one) => one.orderId === id);
  return {
    id,
    shipped: row.shipped,
    version: row.version,
    content: row.content,
    usedBy: [
      ...usedBy.map(({ id: classId, name, stepId }) => ({ id: classId, name, stepId })),
      ...(await standingIn(inside, id)),
    ],
  };
}

/** Adds an order; one whose id is there already stays as it is. */
export async function insert(
  inside: Inside,
  row: { id: string; content: OrderBody; shipped?: boolean },
): Promise<void> {
  const added = await inside.insert(t.orders).values(row).onConflictDoNothing().returning({ id: t.orders.id });
  if (added.length === 1) await unitsChanged(inside, [], ownUnitsOf(row.content));
}

/** What is taught as one lies over words: another than before, and what was worked out by it holds no more. */
async function unitsChanged(inside: Inside, before: readonly string[], after: readonly string[]): Promise<void> {
  if (!isDeepStrictEqual(before, after)) await wordsChanged(inside);
}

/** Writes a new version over the one with this number. @returns false when someone else wrote meanwhile */
export async function update(inside: Inside, id: string, version: number, content: OrderBody): Promise<boolean> {
  const [before] = await inside.select({ content: t.orders.content }).from(t.orders).where(eq(t.orders.id, id));
  const changed = await inside
    .update(t.orders)
    .set({ content, version: version + 1 })
    .where(and(eq(t.orders.id, id), eq(t.orders.version, version), eq(t.orders.shipped, false)))
    .returning({ id: t.orders.id });
  if (before && changed.length === 1) await unitsChanged(inside, ownUnitsOf(before.content), ownUnitsOf(content));
  return changed.length === 1;
}

/**
 * Orders that shipped before and do not any more: one that a class follows becomes the school's own, so that nothing it
 * was taught changes; the others go.
 */
async function keepFormerOrders(inside: Inside, shippedIds: readonly string[]): Promise<void> {
  const former = (await list(inside)).filter((one) => one.shipped && !shippedIds.includes(one.id));
  for (const { id, content, usedBy } of former) {
    if (usedBy.length === 0) {
      await forgetOrder(inside, id);
      await inside.delete(t.orders).where(eq(t.orders.id, id));
    } else {
      const name = `${content.name}, as before`.slice(0, 80);
      await inside
        .update(t.orders)
        .set({ shipped: false, content: { ...content, name } })
        .where(eq(t.orders.id, id));
    }
  }
}

/** Brings the orders that ship with this program into the school, at every start. Classes lose nothing by it. */
export async function ship(inside: Inside): Promise<void> {
  const { orders } = inside.shipped;
  const { id, content, shipped } = t.orders;
  const here = new Map(
    (await inside.select({ id, content }).from(t.orders).where(eq(shipped, true))).map((one) => [
      one.id,
      one.content,
    ]),
  );
  const ids = orders.map((order) => order.id);
  // Almost always nothing is other than it was at the start before.
  if ([...here.keys()].some((one) => !ids.includes(one))) await keepFormerOrders(inside, ids);
  for (const order of orders)
    if (!isDeepStrictEqual(here.get(order.id), order.content)) await setShipped(inside, order.id, order.content);
}

/** Shipped orders follow the program: their content is what ships now. One that is as it was is not written. */
export async function setShipped(inside: Inside, id: string, content: OrderBody): Promise<void> {
  const [before] = await inside.select().from(t.orders).where(eq(t.orders.id, id));
  if (before && isDeepStrictEqual(before.content, content)) return;
  await inside
    .insert(t.orders)
    .values({ id, content, shipped: true })
    .onConflictDoUpdate({ target: [t.orders.schoolId, t.orders.id], set: { content } });
}

/** Removes an order of the school; those that ship stay. */
export async function remove(inside: Inside, id: string): Promise<void> {
  await forgetOrder(inside, id);
  const [gone] = await inside
    .delete(t.orders)
    .where(and(eq(t.orders.id, id), eq(t.orders.shipped, false)))
    .returning({ content: t.orders.content });
  if (gone) await unitsChanged(inside, ownUnitsOf(gone.content), []);
}
