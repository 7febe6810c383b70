import { createHash } from "node:crypto";
import { and, between, eq, isNull } from "drizzle-orm";
import { LRUCache } from "lru-cache";
import type { PlanBody } from "#contract";
import { targetsOf, teachesNew } from "#core/plans";
import { row } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** A session in which a child was, with what it taught and what it revisited. */
interface Held {
  readonly day: string;
  readonly taught: readonly string[];
  readonly revisited: readonly string[];
}

/** The sessions of one child in order of days, and a text that is another when they are others. */
export interface HeldWith {
  readonly sessions: readonly Held[];
  readonly key: string;
}

/** Of so many schools it is kept in memory. */
const MOST_SCHOOLS = 50;
const kept = new LRUCache<string, { readonly number: number; readonly byChild: ReadonlyMap<string, HeldWith> }>({
  max: MOST_SCHOOLS,
});

/**
 * The sessions that were held, by the children who came: read once, until a transaction somewhere writes into sessions or
 * reports. A session of which no one has said who came is not held.
 */
export async function heldByChild(inside: Inside): Promise<ReadonlyMap<string, HeldWith>> {
  if (inside.taughtHere) return read(inside);
  const { held: number } = await row(inside);
  const known = kept.get(inside.memoryKey);
  if (known?.number === number) return known.byChild;
  const byChild = await read(inside);
  kept.set(inside.memoryKey, { number, byChild });
  return byChild;
}

async function read(inside: Inside): Promise<ReadonlyMap<string, HeldWith>> {
  const held = await inside
    .select({ id: t.sessions.id, day: t.sessions.heldOn, plan: t.sessions.plan })
    .from(t.sessions)
    .where(isNull(t.sessions.removedAt));
  const came = await inside
    .selectDistinct({ sessionId: t.reports.sessionId, childId: t.reportCame.childId })
    .from(t.reportCame)
    .innerJoin(t.reports, eq(t.reports.id, t.reportCame.reportId));
  const sessions = new Map(held.map((one) => [one.id, one]));
  const byChild = new Map<string, Held[]>();
  for (const { sessionId, childId } of came) {
    const one = sessions.get(sessionId);
    if (one) byChild.set(childId, [...(byChild.get(childId) ?? []), heldFor(childId, one)]);
  }
  return new Map(
    [...byChild].map(([id, list]) => {
      const inOrder = list
        .map((one) => ({ one, text: [one.day, ...one.taught, "|", ...one.revisited].join(" ") }))
        .sort((a, b) => (a.text < b.text ? -1 : 1));
      const key = createHash("sha256")
        .update(inOrder.map(({ text }) => text).join("\n"))
        .digest("base64url");
      return [id, { sessions: inOrder.map(({ one }) => one), key }];
    }),
  );
}

/** What a session was for one child: its own cards where it had some, else those of all. */
function heldFor(childId: string, { day, plan }: { readonly day: string; readonly plan: PlanBody }): Held {
  // About shapes or whole words, its spelling is only what it practises.
  const taught = plan.focus && !teachesNew(plan) ? [] : targetsOf(plan);
  const revisited = plan.parts.flatMap(({ kind, items, each }) =>
    kind === "revisit" ? (each ? (each.find((one) => one.childId === childId)?.items ?? []) : items) : [],
  );
  return { day, taught, revisited: revisited.filter((gpc) => !taught.includes(gpc)) };
}

/** The groups of the sessions that were held between two days, both included; a group once for each of them. */
export async function groupsHeldBetween(inside: Inside, from: string, to: string): Promise<string[]> {
  const rows = await inside
    .selectDistinct({ id: t.sessions.id, groupId: t.sessions.groupId })
    .from(t.sessions)
    .innerJoin(t.reports, eq(t.reports.sessionId, t.sessions.id))
    .where(and(isNull(t.sessions.removedAt), between(t.sessions.heldOn, from, to)));
  return rows.map(({ groupId }) => groupId);
}
