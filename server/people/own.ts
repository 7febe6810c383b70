import { addDays, formatISO, subDays } from "date-fns";
import { and, between, eq, gte, inArray, isNotNull, isNull, ne, sql } from "drizzle-orm";
import type { Thing } from "#contract";
import type { Actor } from "../frame/actor.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** What is a member's own: classes, and what follows from them and from the groups that are given to them. */
interface Own {
  readonly classes: ReadonlySet<string>;
  readonly groups: ReadonlySet<string>;
  readonly children: ReadonlySet<string>;
}

const dayOf = (at: Date) => formatISO(at, { representation: "date" });
const setOf = (rows: readonly { readonly id: string }[]): Set<string> => new Set(rows.map((row) => row.id));

/** The version of each group that counts now, as a table to join. */
const newestVersions = (inside: Inside) =>
  inside
    .selectDistinctOn([t.groupVersions.groupId], { id: t.groupVersions.id, groupId: t.groupVersions.groupId })
    .from(t.groupVersions)
    .orderBy(t.groupVersions.groupId, sql`${t.groupVersions.number} desc`)
    .as("newest");

/**
 * A member's own: their classes; groups that are given to them, that they take in the timetable, in a session of these days or in one
 * that was given to them, and those that have a child of their classes; the children of all of these.
 */
async function ownOf(inside: Inside, memberId: string, now: Date): Promise<Own> {
  const classes = await inside
    .select({ id: t.memberClasses.classId })
    .from(t.memberClasses)
    .where(eq(t.memberClasses.memberId, memberId));
  const classIds = classes.map((row) => row.id);
  const mine =
    classIds.length === 0
      ? []
      : await inside.select({ id: t.children.id }).from(t.children).where(inArray(t.children.classId, classIds));
  const children = setOf(mine);
  const given = setOf(
    await inside
      .select({ id: t.memberGroups.groupId })
      .from(t.memberGroups)
      .where(eq(t.memberGroups.memberId, memberId)),
  );
  const newest = newestVersions(inside);
  const places = await inside
    .select({ groupId: newest.groupId, childId: t.groupMembers.childId })
    .from(newest)
    .innerJoin(t.groupMembers, eq(t.groupMembers.versionId, newest.id));
  const groups = new Set([...given, ...(await takenBy(inside, memberId, now))]);
  for (const { groupId, childId } of places) if (children.has(childId)) groups.add(groupId);
  for (const { groupId, childId } of places) if (groups.has(groupId)) children.add(childId);
  return { classes: new Set(classIds), groups, children };
}

/** Days before and after a session within which its group is theirs who take it: to look at the card, and to say how it was. */
const STANDS_IN_DAYS = 7;

/** To whom sessions were given, and of which group, until some days after they were to be held. */
const sessionsGiven = (inside: Inside, now: Date) =>
  inside
    .selectDistinct({ to: t.sessions.givenTo, groupId: t.sessions.groupId })
    .from(t.sessions)
    .where(
      and(
        isNotNull(t.sessions.givenTo),
        isNull(t.sessions.removedAt),
        gte(t.sessions.heldOn, dayOf(subDays(now, STANDS_IN_DAYS))),
      ),
    );

/** Groups that a member takes: in a session that was given to them, in every week, or in a session that stands in the week as theirs. */
async function takenBy(inside: Inside, memberId: string, now: Date): Promise<readonly string[]> {
  const given = (await sessionsGiven(inside, now)).flatMap(({ to, groupId }) => (to === memberId ? [groupId] : []));
  const [member] = await inside
    .select({ adultId: t.members.adultId })
    .from(t.members)
    .where(eq(t.members.id, memberId));
  if (!member?.adultId) return given;
  const { placements, meetings } = t;
  const weekly = await inside
    .selectDistinct({ id: placements.groupId })
    .from(placements)
    .where(eq(placements.adultId, member.adultId));
  const standsIn = await inside
    .selectDistinct({ id: meetings.groupId })
    .from(meetings)
    .where(
      and(
        eq(meetings.adultId, member.adultId),
        eq(meetings.cancelled, false),
        between(meetings.on, dayOf(subDays(now, STANDS_IN_DAYS)), dayOf(addDays(now, STANDS_IN_DAYS))),
      ),
    );
  return [...given, ...setOf([...weekly, ...standsIn])];
}

/**
 * Of these ids of things, those that are here and not the member's own. What is not here is no one's, and left to the
 * handler, which says that it is not here.
 * @returns an empty list for the lead, whose is everything
 */
export async function notTheirs(
  inside: Inside,
  actor: Actor,
  { thing, ids, now }: { readonly thing: Thing; readonly ids: readonly string[]; readonly now: Date },
): Promise<string[]> {
  if (actor.as === "lead" || ids.length === 0) return [];
  const own =
    actor.memberId === null
      ? { classes: new Set(), groups: new Set(), children: new Set() }
      : await ownOf(inside, actor.memberId, now);
  const wanted = [...new Set(ids)];
  const refused = new Set<string>();
  const refuse = async (rows: Promise<readonly { id: string; of: string }[]>, theirs: ReadonlySet<unknown>) => {
    for (const { id, of } of await rows) if (!theirs.has(of)) refused.add(id);
  };
  const { classes, children, groups, sessions, checks, readings } = t;
  if (thing === "class")
    await refuse(
      inside.select({ id: classes.id, of: classes.id }).from(classes).where(inArray(classes.id, wanted)),
      own.classes,
    );
  if (thing === "child")
    await refuse(
      inside.select({ id: children.id, of: children.id }).from(children).where(inArray(children.id, wanted)),
      own.children,
    );
  if (thing === "group")
    await refuse(
      inside.select({ id: groups.id, of: groups.id }).from(groups).where(inArray(groups.id, wanted)),
      own.groups,
    );
  if (thing === "session" || thing === "desk")
    await refuse(
      inside.select({ id: sessions.id, of: sessions.groupId }).from(sessions).where(inArray(sessions.id, wanted)),
      own.groups,
    );
  if (thing === "sitting" || thing === "desk")
    await refuse(
      inside
        .select({ id: checks.sittingId, of: checks.childId })
        .from(checks)
        .where(inArray(checks.sittingId, wanted)),
      own.children,
    );
  if (thing === "reading" || thing === "desk")
    await refuse(
      inside.select({ id: readings.id, of: readings.childId }).from(readings).where(inArray(readings.id, wanted)),
      own.children,
    );
  if (thing === "readers")
    for (const one of wanted) {
      const [kind, id = ""] = one.split(":");
      if (kind !== "class" && kind !== "group" && kind !== "child") continue;
      if ((await notTheirs(inside, actor, { thing: kind, ids: [id], now })).length > 0) refused.add(one);
    }
  return [...refused];
}

/** Someone of the school, with what is theirs. */
interface Holder {
  readonly id: string;
  readonly name: string;
  hasGroup(groupId: string): boolean;
  hasChild(child: { readonly id: string; readonly classId: string }): boolean;
}

/** Everyone of the school who is to know of children, by name, with what is theirs as `notTheirs` has it: of leads all. */
async function holders(inside: Inside, now: Date): Promise<readonly Holder[]> {
  const newest = newestVersions(inside);
  const places = await inside
    .select({ groupId: newest.groupId, childId: t.groupMembers.childId, classId: t.children.classId })
    .from(newest)
    .innerJoin(t.groupMembers, eq(t.groupMembers.versionId, newest.id))
    .innerJoin(t.children, eq(t.children.id, t.groupMembers.childId));
  const classes = await inside.select().from(t.memberClasses);
  const given = await inside.select().from(t.memberGroups);
  const { placements, meetings, members } = t;
  const weekly = await inside
    .selectDistinct({ of: placements.adultId, groupId: placements.groupId })
    .from(placements);
  const standIn = await inside
    .selectDistinct({ of: meetings.adultId, groupId: meetings.groupId })
    .from(meetings)
    .where(
      and(
        eq(meetings.cancelled, false),
        between(meetings.on, dayOf(subDays(now, STANDS_IN_DAYS)), dayOf(addDays(now, STANDS_IN_DAYS))),
      ),
    );
  const sessions = await sessionsGiven(inside, now);
  const all = await inside
    .select({ id: members.id, name: members.name, role: members.role, adultId: members.adultId })
    .from(members)
    .where(and(isNull(members.removedAt), ne(members.role, "observer")))
    .orderBy(members.name);
  return all.map(({ id, name, role, adultId }): Holder => {
    const theirs = new Set(classes.flatMap(({ memberId, classId }) => (memberId === id ? [classId] : [])));
    const groups = new Set([
      ...given.flatMap(({ memberId, groupId }) => (memberId === id ? [groupId] : [])),
      ...sessions.flatMap(({ to, groupId }) => (to === id ? [groupId] : [])),
      ...[...weekly, ...standIn].flatMap(({ of, groupId }) => (adultId !== null && of === adultId ? [groupId] : [])),
      ...places.flatMap(({ groupId, classId }) => (theirs.has(classId) ? [groupId] : [])),
    ]);
    const inGroups = new Set(places.flatMap(({ groupId, childId }) => (groups.has(groupId) ? [childId] : [])));
    return {
      ...{ id, name },
      hasGroup: (groupId) => role === "lead" || groups.has(groupId),
      hasChild: (child) => role === "lead" || theirs.has(child.classId) || inGroups.has(child.id),
    };
  });
}

const named = ({ id, name }: Holder) => ({ id, name });
const childrenOf = (inside: Inside, ids: readonly string[]) =>
  inside
    .select({ id: t.children.id, classId: t.children.classId })
    .from(t.children)
    .where(inArray(t.children.id, [...ids]));

/**
 * To whom a child, a group or a session belongs: the leads, and members for whom `notTheirs` would not name it.
 * @returns members who are in the school, by name
 */
export async function ownersOf(
  inside: Inside,
  { thing, id, now }: { readonly thing: "child" | "group" | "session"; readonly id: string; readonly now: Date },
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  if (thing === "child") return ownersOfAll(inside, { childIds: [id], now });
  const [session] =
    thing === "session"
      ? await inside.select({ groupId: t.sessions.groupId }).from(t.sessions).where(eq(t.sessions.id, id))
      : [];
  const groupId = session?.groupId ?? id;
  return (await holders(inside, now)).filter((one) => one.hasGroup(groupId)).map(named);
}

/** The members who have each of these children: leads, and those to whom all of them belong; by name. */
export async function ownersOfAll(
  inside: Inside,
  { childIds, now }: { readonly childIds: readonly string[]; readonly now: Date },
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  const children = await childrenOf(inside, childIds);
  // What is not here is no one's.
  if (children.length < new Set(childIds).size) return [];
  return (await holders(inside, now)).filter((one) => children.every(one.hasChild)).map(named);
}
