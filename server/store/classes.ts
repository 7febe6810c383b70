import { isDeepStrictEqual } from "node:util";
import { and, desc, eq, inArray, sql } from "drizzle-orm";
import type { CheckSettingsBody, ClassView, OrderBody, OrderView, ReadingSettingsBody } from "#contract";
import { defaultSettings } from "#core/checks";
import type { OrderContent } from "#core/order";
import { startingReadingSettings } from "#core/reading";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

/** Classes with how far they are taught and how many children are in them, oldest first. */
export async function listClasses(db: Db): Promise<ClassView[]> {
  const rows = await db.select().from(t.classes).orderBy(t.classes.createdAt, t.classes.name);
  const marks = await db
    .selectDistinctOn([t.taught.classId])
    .from(t.taught)
    .orderBy(t.taught.classId, desc(t.taught.markedAt));
  const counts = await db
    .select({ classId: t.children.classId, count: sql<number>`count(*)::int` })
    .from(t.children)
    .where(eq(t.children.archived, false))
    .groupBy(t.children.classId);
  return rows.map((row) => {
    const mark = marks.find((one) => one.classId === row.id);
    return {
      id: row.id,
      name: row.name,
      yearGroup: row.yearGroup,
      orderId: row.orderId,
      stepId: mark?.stepId ?? null,
      taughtOn: mark?.taughtOn ?? null,
      children: counts.find((one) => one.classId === row.id)?.count ?? 0,
      archived: row.archived,
    };
  });
}

export async function findClass(db: Db, id: string): Promise<ClassView | undefined> {
  return (await listClasses(db)).find((one) => one.id === id);
}

export async function insertClass(db: Db, row: typeof t.classes.$inferInsert): Promise<void> {
  await db.insert(t.classes).values(row).onConflictDoNothing();
}

export async function updateClass(db: Db, id: string, change: Partial<typeof t.classes.$inferInsert>): Promise<void> {
  if (Object.keys(change).length > 0) await db.update(t.classes).set(change).where(eq(t.classes.id, id));
}

export async function insertTaught(db: Db, row: typeof t.taught.$inferInsert): Promise<void> {
  await db.insert(t.taught).values(row).onConflictDoNothing();
}

export async function taughtMarks(db: Db, classId: string) {
  return db.select().from(t.taught).where(eq(t.taught.classId, classId)).orderBy(desc(t.taught.markedAt));
}

/** Teaching orders, shipped ones first, with the classes that use them. */
export async function listOrders(db: Db): Promise<OrderView[]> {
  const rows = await db.select().from(t.orders).orderBy(desc(t.orders.shipped), t.orders.createdAt, t.orders.id);
  const classes = await listClasses(db);
  return rows.map((row) => ({
    id: row.id,
    shipped: row.shipped,
    version: row.version,
    content: row.content,
    usedBy: classes.filter((one) => one.orderId === row.id).map(({ id, name, stepId }) => ({ id, name, stepId })),
  }));
}

/** The content of these orders by id. */
export async function orderContents(db: Db, ids: readonly string[]): Promise<Map<string, OrderBody>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: t.orders.id, content: t.orders.content })
    .from(t.orders)
    .where(inArray(t.orders.id, [...ids]));
  return new Map(rows.map((row) => [row.id, row.content]));
}

export async function findOrder(db: Db, id: string): Promise<OrderView | undefined> {
  return (await listOrders(db)).find((one) => one.id === id);
}

export async function insertOrder(db: Db, row: { id: string; content: OrderBody; shipped?: boolean }): Promise<void> {
  await db.insert(t.orders).values(row).onConflictDoNothing();
}

/** Writes a new version over the one with this number. @returns false when someone else wrote meanwhile */
export async function updateOrder(db: Db, id: string, version: number, content: OrderBody): Promise<boolean> {
  const changed = await db
    .update(t.orders)
    .set({ content, version: version + 1 })
    .where(and(eq(t.orders.id, id), eq(t.orders.version, version), eq(t.orders.shipped, false)))
    .returning({ id: t.orders.id });
  return changed.length === 1;
}

/**
 * Orders that shipped before and do not any more: one that a class follows becomes the school's own, so that nothing it
 * was taught changes; the others go.
 */
async function keepFormerOrders(db: Db, shippedIds: readonly string[]): Promise<void> {
  const former = (await listOrders(db)).filter((one) => one.shipped && !shippedIds.includes(one.id));
  for (const { id, content, usedBy } of former) {
    if (usedBy.length === 0) await db.delete(t.orders).where(eq(t.orders.id, id));
    else {
      const name = `${content.name}, as before`.slice(0, 80);
      await db
        .update(t.orders)
        .set({ shipped: false, content: { ...content, name } })
        .where(eq(t.orders.id, id));
    }
  }
}

/** Brings the orders that ship with this program into a database, at every start. Classes lose nothing by it. */
export async function shipOrders(
  db: Db,
  orders: readonly { readonly id: string; readonly content: OrderContent }[],
): Promise<void> {
  await keepFormerOrders(
    db,
    orders.map((order) => order.id),
  );
  for (const { id, content } of orders) await setShippedOrder(db, id, JSON.parse(JSON.stringify(content)));
}

/** Shipped orders follow the program: their content is what ships now. One that is as it was is not written. */
export async function setShippedOrder(db: Db, id: string, content: OrderBody): Promise<void> {
  const [before] = await db.select().from(t.orders).where(eq(t.orders.id, id));
  if (before && isDeepStrictEqual(before.content, content)) return;
  await db
    .insert(t.orders)
    .values({ id, content, shipped: true })
    .onConflictDoUpdate({ target: t.orders.id, set: { content } });
}

export async function deleteOrder(db: Db, id: string): Promise<void> {
  await db.delete(t.orders).where(and(eq(t.orders.id, id), eq(t.orders.shipped, false)));
}

/** The school itself: its name, its accent, how it checks, and what it measures readings against. */
export async function schoolSettings(db: Db): Promise<{
  name: string;
  accent: string;
  timeZone: string | null;
  checks: CheckSettingsBody;
  reading: ReadingSettingsBody;
}> {
  const rows = await db.select().from(t.school);
  return {
    name: rows[0]?.name ?? "",
    accent: rows[0]?.accent ?? "neutral",
    timeZone: rows[0]?.timeZone ?? null,
    checks: { ...defaultSettings, ...rows[0]?.checks },
    reading: { ...startingReadingSettings, aims: [...startingReadingSettings.aims], ...rows[0]?.reading },
  };
}

/** The school's time zone, an IANA name; that of this machine until the school has said. */
export async function schoolZone(db: Db): Promise<string> {
  const rows = await db.select({ timeZone: t.school.timeZone }).from(t.school);
  return rows[0]?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** Milliseconds after which a timed right answer counts as slow in this school; 0 when the mark alone counts. */
export async function slowAfterMs(db: Db): Promise<number> {
  return (await schoolSettings(db)).checks.slowAfter * 1000;
}

export async function setSchool(
  db: Db,
  change: {
    name?: string;
    timeZone?: string;
    accent?: string;
    checks?: CheckSettingsBody;
    reading?: ReadingSettingsBody;
  },
): Promise<void> {
  await db
    .insert(t.school)
    .values({ id: 1, name: "", ...change })
    .onConflictDoUpdate({ target: t.school.id, set: change });
}
