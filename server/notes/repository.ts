import { and, desc, eq, inArray, isNotNull, isNull, lt, or, type SQL, sql } from "drizzle-orm";
import type { Actor } from "../frame/actor.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { type About, thingOf } from "./about.ts";

/** A note as it is kept. */
export interface NoteRow extends About {
  readonly id: string;
  readonly text: string;
  readonly who: "all" | "me" | "one";
  readonly forId: string | null;
  readonly byId: string | null;
  readonly by: string;
  readonly at: string;
  readonly until: string | null;
  readonly removedAt: string | null;
}

/** A note as someone sees it. */
export interface NoteSeen extends NoteRow {
  /** The child, the group, or the group of the session; and the day of that. */
  readonly aboutName: string;
  readonly heldOn: string | null;
  readonly forName: string;
  readonly isRead: boolean;
}

/** Notes that are shown at most. */
const MOST = 200;
/** The lead of this machine has no account. */
const readerOf = ({ memberId }: Pick<Actor, "memberId">) => memberId ?? "here";

/** Those of this actor: for all, of their own, for them. */
function seenBy({ memberId }: Pick<Actor, "memberId">): SQL | undefined {
  const mine = memberId === null ? isNull(t.notes.byId) : eq(t.notes.byId, memberId);
  return or(eq(t.notes.who, "all"), mine, memberId === null ? undefined : eq(t.notes.forId, memberId));
}

async function seen(inside: Inside, actor: Actor, today: string, which: SQL | undefined): Promise<NoteSeen[]> {
  const { notes, noteReads, children, groupVersions, sessions, members } = t;
  const groupOf = sql<string | null>`coalesce(${notes.groupId}, ${sessions.groupId})`;
  const groupName = inside
    .select({ name: groupVersions.name })
    .from(groupVersions)
    .where(sql`${groupVersions.groupId} = ${groupOf}`)
    .orderBy(desc(groupVersions.number))
    .limit(1);
  const rows = await inside
    .select({
      note: notes,
      childName: children.name,
      groupName: sql<string | null>`(${groupName})`,
      heldOn: sessions.heldOn,
      forName: members.name,
      readBy: noteReads.reader,
    })
    .from(notes)
    .leftJoin(children, eq(children.id, notes.childId))
    .leftJoin(sessions, eq(sessions.id, notes.sessionId))
    .leftJoin(members, eq(members.id, notes.forId))
    .leftJoin(noteReads, and(eq(noteReads.noteId, notes.id), eq(noteReads.reader, readerOf(actor))))
    .where(
      and(
        isNull(notes.removedAt),
        or(isNull(notes.until), sql`${notes.until} >= ${today}`),
        // What was removed itself is not here to be written about.
        isNull(sessions.removedAt),
        seenBy(actor),
        which,
      ),
    )
    .orderBy(desc(notes.at), notes.id)
    .limit(MOST);
  return rows.map(({ note: { schoolId: _, ...note }, childName, groupName: group, heldOn, forName, readBy }) => ({
    ...note,
    ...{ aboutName: childName ?? group ?? "", heldOn },
    forName: forName ?? "",
    isRead: readBy !== null || note.byId === actor.memberId,
  }));
}

/**
 * The notes on something that an actor may read and that have not ended, the newest first, 200 at most; with a group or a session
 * those on its children, since they are not seen elsewhere by whoever stands in.
 */
export function on(inside: Inside, actor: Actor, today: string, about: About): Promise<NoteSeen[]> {
  const { thing, id } = thingOf(about);
  const column = { child: t.notes.childId, group: t.notes.groupId, session: t.notes.sessionId }[thing];
  const { groupVersions, groupMembers, sessionMembers } = t;
  const newest = inside
    .select({ id: groupVersions.id })
    .from(groupVersions)
    .where(eq(groupVersions.groupId, id))
    .orderBy(desc(groupVersions.number))
    .limit(1);
  const children = {
    child: undefined,
    group: inside
      .select({ id: groupMembers.childId })
      .from(groupMembers)
      .where(eq(groupMembers.versionId, sql`(${newest})`)),
    session: inside
      .select({ id: sessionMembers.childId })
      .from(sessionMembers)
      .where(eq(sessionMembers.sessionId, id)),
  }[thing];
  return seen(inside, actor, today, or(eq(column, id), children && inArray(t.notes.childId, children)));
}

/** Those that an actor has not read, of the whole school. */
export async function unread(inside: Inside, actor: Actor, today: string): Promise<NoteSeen[]> {
  return (await seen(inside, actor, today, undefined)).filter(({ isRead }) => !isRead);
}

/** One note, also one that was taken away; or undefined. */
export async function find(inside: Inside, id: string): Promise<NoteRow | undefined> {
  const [row] = await inside.select().from(t.notes).where(eq(t.notes.id, id));
  return row;
}

/** Keeps a note; one that was taken away is there again. */
export async function put(inside: Inside, note: Omit<NoteRow, "removedAt">): Promise<void> {
  await inside
    .insert(t.notes)
    .values(note)
    .onConflictDoUpdate({ target: [t.notes.schoolId, t.notes.id], set: { removedAt: null } });
}

/** Takes a note away. */
export async function takeAway(inside: Inside, id: string, at: string): Promise<void> {
  await inside.update(t.notes).set({ removedAt: at }).where(eq(t.notes.id, id));
}

/** An actor has read these, of those that they may read. */
export async function haveRead(inside: Inside, actor: Actor, ids: readonly string[]): Promise<void> {
  const rows = await inside
    .select({ id: t.notes.id })
    .from(t.notes)
    .where(and(inArray(t.notes.id, [...ids]), seenBy(actor)));
  if (rows.length === 0) return;
  const reader = readerOf(actor);
  await inside
    .insert(t.noteReads)
    .values(rows.map(({ id }) => ({ noteId: id, reader })))
    .onConflictDoNothing();
}

/** Everything that was written about a child, also for oneself, what was taken away left out: for its export. */
export async function ofChild(inside: Inside, childId: string) {
  return inside
    .select({ text: t.notes.text, by: t.notes.by, at: t.notes.at, until: t.notes.until })
    .from(t.notes)
    .where(and(eq(t.notes.childId, childId), isNull(t.notes.removedAt)))
    .orderBy(t.notes.at);
}

/** Lets go for good of notes that were taken away before this instant, or whose last day was before that day. */
export async function forgetGone(
  inside: Inside,
  before: { readonly at: string; readonly day: string },
): Promise<void> {
  await inside
    .delete(t.notes)
    .where(
      or(
        and(isNotNull(t.notes.removedAt), lt(t.notes.removedAt, before.at)),
        and(isNotNull(t.notes.until), lt(t.notes.until, before.day)),
      ),
    );
}
