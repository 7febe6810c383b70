import { randomUUID } from "node:crypto";
import { and, eq, gt, isNull, or } from "drizzle-orm";
import type { Grouping, MoveView, NextView, SaidOfNext, Wish } from "#contract";
import { startingWeights } from "#core/groups";
import { row } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** How groups are made where a school has said nothing. */
export const startingGrouping: Grouping = {
  least: 3,
  most: 5,
  targets: 4,
  sessionsAWeek: 4,
  adults: [],
  withinClasses: false,
  yearsApart: null,
  stay: 0.25,
  weights: { ...startingWeights },
  leaving: { by: "targets" },
};

/** How this school makes its groups. */
export async function read(inside: Inside): Promise<Grouping> {
  const { grouping } = await row(inside);
  // What was kept before there were more parts counts them as a new school does.
  return { ...startingGrouping, ...grouping, weights: { ...startingWeights, ...grouping?.weights } };
}

/** All wishes, by when they were made. */
export async function wishes(inside: Inside): Promise<Wish[]> {
  return inside
    .select({
      id: t.wishes.id,
      kind: t.wishes.kind,
      childId: t.wishes.childId,
      otherId: t.wishes.otherId,
      by: t.wishes.by,
      since: t.wishes.since,
    })
    .from(t.wishes)
    .orderBy(t.wishes.since, t.wishes.id);
}

/** Keeps a wish in the place of what was wished of the same pair, or of the same child alone, before. */
export async function putWish(inside: Inside, wish: Wish): Promise<void> {
  const { childId, otherId } = wish;
  const same =
    otherId === null
      ? and(eq(t.wishes.childId, childId), isNull(t.wishes.otherId))
      : or(
          and(eq(t.wishes.childId, childId), eq(t.wishes.otherId, otherId)),
          and(eq(t.wishes.childId, otherId), eq(t.wishes.otherId, childId)),
        );
  await inside.delete(t.wishes).where(same);
  await inside.insert(t.wishes).values(wish).onConflictDoNothing();
}

/** Takes a wish of a child back, whichever of the pair it is. */
export async function removeWish(inside: Inside, childId: string, id: string): Promise<void> {
  const its = or(eq(t.wishes.childId, childId), eq(t.wishes.otherId, childId));
  await inside.delete(t.wishes).where(and(eq(t.wishes.id, id), its));
}

/** Whose it is: a child's or a class's. */
export type Whose = { readonly childId: string } | { readonly classId: string };

/** What was said of what is worth teaching, as it counts on a day. */
export async function saidOn(inside: Inside, today: string): Promise<NextView> {
  const rows = await inside
    .select()
    .from(t.nextThings)
    .where(or(isNull(t.nextThings.until), gt(t.nextThings.until, today)))
    .orderBy(t.nextThings.since, t.nextThings.gpc);
  const by = (which: "childId" | "classId") => {
    const found = new Map<string, SaidOfNext[]>();
    for (const one of rows) {
      const id = one[which];
      if (id === null) continue;
      const { gpc, how, until, by: who, since } = one;
      found.set(id, [...(found.get(id) ?? []), { gpc, how, until, by: who, since }]);
    }
    return [...found].map(([id, said]) => ({ id, said }));
  };
  return { children: by("childId"), classes: by("classId") };
}

/** Says something of a spelling in the place of what was said of it before; null takes that back. */
export async function sayNext(
  inside: Inside,
  whose: Whose,
  gpc: string,
  said: Omit<SaidOfNext, "gpc"> | null,
): Promise<void> {
  const { nextThings } = t;
  const its = "childId" in whose ? eq(nextThings.childId, whose.childId) : eq(nextThings.classId, whose.classId);
  await inside.delete(nextThings).where(and(its, eq(nextThings.gpc, gpc)));
  if (said) await inside.insert(nextThings).values({ id: randomUUID(), ...whose, gpc, ...said });
}

/** The proposed moves that are put off on a day. */
export async function movesOff(
  inside: Inside,
  today: string,
): Promise<{ childId: string; kind: MoveView["kind"]; until: string }[]> {
  const { childId, kind, until } = t.movesOff;
  return inside.select({ childId, kind, until }).from(t.movesOff).where(gt(until, today));
}

/** Puts a proposed move of a child off until a day. */
export async function putMoveOff(
  inside: Inside,
  childId: string,
  kind: MoveView["kind"],
  until: string,
): Promise<void> {
  await inside
    .insert(t.movesOff)
    .values({ childId, kind, until })
    .onConflictDoUpdate({ target: [t.movesOff.schoolId, t.movesOff.childId, t.movesOff.kind], set: { until } });
}

/** All that is kept of one child here, for its export. */
export async function ofChild(
  inside: Inside,
  childId: string,
): Promise<{ wishes: Omit<Wish, "childId" | "otherId">[]; next: SaidOfNext[] }> {
  const its = (await wishes(inside)).filter((one) => one.childId === childId || one.otherId === childId);
  const { gpc, how, until, by, since } = t.nextThings;
  return {
    wishes: its.map(({ id, kind, by: who, since: from }) => ({ id, kind, by: who, since: from })),
    next: await inside
      .select({ gpc, how, until, by, since })
      .from(t.nextThings)
      .where(eq(t.nextThings.childId, childId)),
  };
}
