import { and, eq, gte, inArray, lte, or, type SQL } from "drizzle-orm";
import { type CalendarOf, type OwnHours, startingWeek, type Week, whoseOf } from "#contract";
import type { Meeting, MeetingsDue, Placement } from "#core/groups";
import { row } from "../settings/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** The school's week, with what ships where it has said nothing. */
export async function read(inside: Inside): Promise<Week> {
  return { ...startingWeek, ...(await row(inside)).week };
}

/** Children who have hours of their own. */
export async function ownHours(inside: Inside): Promise<(OwnHours & { id: string; version: number })[]> {
  const rows = await inside.select().from(t.childHours).orderBy(t.childHours.childId);
  return rows.map(({ childId, version, hours }) => ({ id: childId, version, ...hours }));
}

/** The hours of one child, or undefined where it goes by its class. */
export async function ownHoursOf(inside: Inside, childId: string) {
  return (await inside.select().from(t.childHours).where(eq(t.childHours.childId, childId)))[0];
}

/**
 * Sets the hours of a child over a version, 0 where it has none; null takes them away.
 * @returns the version now (0 where there are none), or null when they were changed meanwhile
 */
export async function putOwnHours(
  inside: Inside,
  { childId, version, hours }: { childId: string; version: number; hours: OwnHours | null },
): Promise<number | null> {
  const here = and(eq(t.childHours.childId, childId), eq(t.childHours.version, version));
  if (hours === null) {
    const gone = await inside.delete(t.childHours).where(here).returning({ version: t.childHours.version });
    return gone.length > 0 || !(await ownHoursOf(inside, childId)) ? 0 : null;
  }
  const next = { hours, version: version + 1 };
  const written =
    version === 0
      ? await inside
          .insert(t.childHours)
          .values({ childId, ...next })
          .onConflictDoNothing()
          .returning()
      : await inside.update(t.childHours).set(next).where(here).returning();
  return written[0]?.version ?? null;
}

/** The timetable that runs, through the week. */
export async function placements(inside: Inside): Promise<Placement[]> {
  const rows = await inside.select().from(t.placements).orderBy(t.placements.day, t.placements.from, t.placements.id);
  return rows.map(({ schoolId: _, ...one }) => ({ ...one, day: one.day as Placement["day"] }));
}

/** Puts a timetable in the place of the one that runs. */
export async function putPlacements(inside: Inside, list: readonly Placement[]): Promise<void> {
  await inside.delete(t.placements);
  if (list.length > 0) await inside.insert(t.placements).values([...list]);
}

/** A session on its day, with when it was last changed. */
export type KeptMeeting = Meeting & { readonly changedAt: string };

/** Sessions on days from one to another, both in it, cancelled ones too. */
export async function meetingsOn(inside: Inside, from: string, to: string): Promise<KeptMeeting[]> {
  const rows = await inside
    .select()
    .from(t.meetings)
    .where(and(gte(t.meetings.on, from), lte(t.meetings.on, to)))
    .orderBy(t.meetings.on, t.meetings.from, t.meetings.id);
  return rows.map(({ schoolId: _, ...one }) => one);
}

/** Sessions that are due, or held, from a day on. */
export async function meetingsFrom(inside: Inside, day: string): Promise<KeptMeeting[]> {
  const rows = await inside
    .select()
    .from(t.meetings)
    .where(or(gte(t.meetings.dueOn, day), gte(t.meetings.on, day)));
  return rows.map(({ schoolId: _, ...one }) => one);
}

/** All sessions that one calendar shows: of an adult, a room, or groups. */
export async function meetingsOf(
  inside: Inside,
  { of, about, groupIds }: { of: CalendarOf; about: string; groupIds: readonly string[] },
): Promise<KeptMeeting[]> {
  if ((of === "class" || of === "child") && groupIds.length === 0) return [];
  const theirs =
    of === "adult"
      ? eq(t.meetings.adultId, about)
      : of === "room"
        ? eq(t.meetings.roomId, about)
        : inArray(t.meetings.groupId, [...groupIds]);
  const rows = await inside.select().from(t.meetings).where(theirs).orderBy(t.meetings.on, t.meetings.from);
  return rows.map(({ schoolId: _, ...one }) => one);
}

/** Rows that are written at once. */
const AT_ONCE = 500;

/** Keeps sessions that are added and changed by a timetable. */
export async function putMeetings(inside: Inside, { added, changed }: MeetingsDue, changedAt: string): Promise<void> {
  for (let at = 0; at < added.length; at += AT_ONCE)
    await inside.insert(t.meetings).values(added.slice(at, at + AT_ONCE).map((one) => ({ ...one, changedAt })));
  for (const one of changed)
    await inside
      .update(t.meetings)
      .set({ ...one, changedAt })
      .where(eq(t.meetings.id, one.id));
}

/** The sessions with these ids. */
export async function findMeetings(inside: Inside, ids: readonly string[]): Promise<KeptMeeting[]> {
  const rows = await inside
    .select()
    .from(t.meetings)
    .where(inArray(t.meetings.id, [...ids]));
  return rows.map(({ schoolId: _, ...one }) => one);
}

/** Takes a group out of the timetable, and cancels its sessions from a day on. */
export async function endGroup(
  inside: Inside,
  groupId: string,
  { from, changedAt }: { readonly from: string; readonly changedAt: string },
): Promise<void> {
  await inside.delete(t.placements).where(eq(t.placements.groupId, groupId));
  const ahead = (await meetingsFrom(inside, from)).filter((one) => one.groupId === groupId && !one.cancelled);
  const changed = ahead.map(({ changedAt: _, ...one }) => ({ ...one, cancelled: true, sequence: one.sequence + 1 }));
  await putMeetings(inside, { added: [], changed }, changedAt);
}

/** A private address of a week. */
export interface Feed {
  readonly id: string;
  readonly whose: string;
  readonly madeAt: string;
}

/** All private addresses, the oldest first. */
export async function feeds(inside: Inside): Promise<Feed[]> {
  const rows = await inside.select().from(t.feeds).orderBy(t.feeds.madeAt, t.feeds.id);
  return rows.map(({ id, of, about, madeAt }) => ({ id, whose: `${of}:${about}`, madeAt }));
}

/** Keeps an address under the hash of its token. @returns false when there is one with this id */
export async function addFeed(inside: Inside, feed: Omit<Feed, "madeAt">, tokenHash: string): Promise<boolean> {
  const { of, about } = whoseOf(feed.whose);
  const made = await inside
    .insert(t.feeds)
    .values({
      ...{ id: feed.id, of, about, tokenHash },
      // It ends with them.
      childId: of === "child" ? about : null,
      classId: of === "class" ? about : null,
    })
    .onConflictDoNothing()
    .returning();
  if (made.length > 0) await inside.insert(t.doors).values({ kind: "feed", key: tokenHash });
  return made.length > 0;
}

/** Whose week the address with this hashed token is of, or undefined. */
export async function feedByHash(inside: Inside, tokenHash: string): Promise<string | undefined> {
  const [found] = await inside.select().from(t.feeds).where(eq(t.feeds.tokenHash, tokenHash));
  return found && `${found.of}:${found.about}`;
}

/** Ends all addresses of these children's weeks. */
export async function endFeedsOf(inside: Inside, childIds: readonly string[]): Promise<void> {
  await end(inside, inArray(t.feeds.childId, [...childIds]));
}

/** Ends an address, when there is one. */
export async function endFeed(inside: Inside, id: string): Promise<void> {
  await end(inside, eq(t.feeds.id, id));
}

async function end(inside: Inside, which: SQL): Promise<void> {
  const gone = await inside.delete(t.feeds).where(which).returning();
  const keys = gone.map((feed) => feed.tokenHash);
  if (keys.length > 0) await inside.delete(t.doors).where(and(eq(t.doors.kind, "feed"), inArray(t.doors.key, keys)));
}
