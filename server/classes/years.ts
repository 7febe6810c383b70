import { and, desc, eq, inArray, isNotNull, lt, sql } from "drizzle-orm";
import type { YearView } from "#contract";
import { afterYear, type YearPlan } from "#core/roster";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** For so long a school year can be taken back. */
const UNDO_MS = 24 * 3_600_000;

type Row = typeof t.years.$inferSelect;
const upByOne = sql`${t.children.version} + 1`;

function viewOf({ id, begunAt, counts, before, undoneAt }: Row, now: Date): YearView {
  const until = new Date(Date.parse(begunAt) + UNDO_MS);
  const open = before !== null && undoneAt === null && until > now;
  return { id, begunAt, counts, undoneAt, until: open ? until.toISOString() : null };
}

/** The entries by what is said of each. */
function grouped<T, Key>(all: readonly T[], by: (one: T) => Key): Map<Key, T[]> {
  const groups = new Map<Key, T[]>();
  for (const one of all) groups.set(by(one), [...(groups.get(by(one)) ?? []), one]);
  return groups;
}

/** The school year that was begun last, or undefined. */
export async function last(inside: Inside, now: Date): Promise<YearView | undefined> {
  const [row] = await inside.select().from(t.years).orderBy(desc(t.years.begunAt)).limit(1);
  return row && viewOf(row, now);
}

/** A school year, or undefined. */
export async function find(inside: Inside, id: string, now: Date): Promise<YearView | undefined> {
  const [row] = await inside.select().from(t.years).where(eq(t.years.id, id));
  return row && viewOf(row, now);
}

/** A plan with the orders that new classes follow. */
interface YearWanted extends YearPlan {
  readonly id: string;
  readonly added: readonly (YearPlan["added"][number] & { readonly orderId: string })[];
}

/**
 * Begins a school year as planned, and remembers what it found. The plan has been looked at (`yearProblems`).
 * @param today the day on which who leaves has left
 */
export async function begin(
  inside: Inside,
  plan: YearWanted,
  { now, today }: { readonly now: Date; readonly today: string },
): Promise<void> {
  const classes = await inside.select().from(t.classes);
  const children = await inside
    .select()
    .from(t.children)
    .where(eq(t.children.archived, false))
    .orderBy(t.children.id)
    // Held, so that no one is changed between the look and the change.
    .for("update");
  if (plan.added.length > 0)
    await inside
      .insert(t.classes)
      .values([...plan.added])
      .onConflictDoNothing();
  const changed = plan.classes.flatMap(({ id, name, yearGroup, leaves }) => {
    const found = classes.find((one) => one.id === id);
    if (!found) return [];
    const before = { name: found.name, yearGroup: found.yearGroup, archived: found.archived };
    return [{ id, before, after: { name, yearGroup, archived: leaves } }];
  });
  for (const { id, after } of changed) await inside.update(t.classes).set(after).where(eq(t.classes.id, id));

  const after = afterYear(plan, children);
  const moved = children.filter((one) => after.get(one.id) !== one.classId);
  const byClass = grouped(moved, (one) => after.get(one.id) ?? null);
  for (const [to, some] of byClass)
    await inside
      .update(t.children)
      .set({ ...(to === null ? { archived: true, leftOn: today } : { classId: to }), version: upByOne })
      .where(
        inArray(
          t.children.id,
          some.map((one) => one.id),
        ),
      );
  const left = byClass.get(null)?.length ?? 0;
  await inside.insert(t.years).values({
    id: plan.id,
    begunAt: now.toISOString(),
    counts: {
      classes: plan.classes.filter((one) => !one.leaves).length,
      added: plan.added.length,
      moved: moved.length - left,
      left,
    },
    before: {
      classes: changed,
      added: plan.added.map((one) => one.id),
      children: moved.map(({ id, classId, archived, leftOn, version }) => ({
        id,
        classId,
        archived,
        leftOn,
        version: version + 1,
      })),
    },
  });
}

/** Takes a school year back. What someone changed since stays. @returns what stayed, each in a sentence */
export async function undo(inside: Inside, id: string, now: Date): Promise<string[]> {
  const [row] = await inside.select().from(t.years).where(eq(t.years.id, id));
  if (!row?.before) return [];
  const kept: string[] = [];
  const { classes, added, children } = row.before;
  for (const { id: classId, before, after } of classes) {
    const same = and(
      eq(t.classes.id, classId),
      eq(t.classes.name, after.name),
      eq(t.classes.yearGroup, after.yearGroup),
      eq(t.classes.archived, after.archived),
    );
    const back = await inside.update(t.classes).set(before).where(same).returning({ id: t.classes.id });
    if (back.length === 0) kept.push(`${after.name} was changed since, and stays as it is.`);
  }
  const restored = new Set<string>();
  // Those who were in one state before go back to it together.
  const states = grouped(children, ({ classId, archived, leftOn }) => JSON.stringify({ classId, archived, leftOn }));
  for (const [state, some] of states) {
    const unchanged = sql.join(
      some.map((one) => sql`(${one.id}::uuid, ${one.version}::int)`),
      sql`, `,
    );
    const back = await inside
      .update(t.children)
      .set({
        ...(JSON.parse(state) as Pick<(typeof some)[number], "classId" | "archived" | "leftOn">),
        version: upByOne,
      })
      .where(sql`(${t.children.id}, ${t.children.version}) in (${unchanged})`)
      .returning({ id: t.children.id });
    for (const one of back) restored.add(one.id);
  }
  const changed = children.filter((one) => !restored.has(one.id)).map((one) => one.id);
  if (changed.length > 0) {
    const names = await inside
      .select({ name: t.children.name })
      .from(t.children)
      .where(inArray(t.children.id, changed));
    kept.push(...names.map(({ name }) => `${name} was changed since, and stays as it is.`).sort());
  }
  for (const classId of added) {
    const gone = await inside
      .delete(t.classes)
      .where(
        and(eq(t.classes.id, classId), sql`not exists (select 1 from ${t.children} c where c.class_id = ${classId})`),
      )
      .returning({ id: t.classes.id });
    if (gone.length > 0) continue;
    const [one] = await inside.select({ name: t.classes.name }).from(t.classes).where(eq(t.classes.id, classId));
    if (one) kept.push(`${one.name} has children in it, and stays.`);
  }
  await inside.update(t.years).set({ undoneAt: now.toISOString(), before: null }).where(eq(t.years.id, id));
  return kept;
}

/** Forgets what years that were begun before this instant found: they cannot be taken back any more. */
export async function forgetBefore(inside: Inside, before: string): Promise<void> {
  await inside
    .update(t.years)
    .set({ before: null })
    .where(and(lt(t.years.begunAt, before), isNotNull(t.years.before)));
}

/** For children who are erased: nothing names them any more. */
export async function forgetChildren(inside: Inside, ids: readonly string[]): Promise<void> {
  const rows = await inside.select().from(t.years).where(isNotNull(t.years.before));
  for (const { id, before } of rows) {
    if (!before?.children.some((one) => ids.includes(one.id))) continue;
    const children = before.children.filter((one) => !ids.includes(one.id));
    await inside
      .update(t.years)
      .set({ before: { ...before, children } })
      .where(eq(t.years.id, id));
  }
}
