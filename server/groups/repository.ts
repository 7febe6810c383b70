import { desc, eq, inArray, type SQL, sql } from "drizzle-orm";
import type { GroupView } from "#contract";
import type { BlockFixed, Focus, ReadingLimit } from "#core/plans";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

interface Version {
  readonly id: string;
  readonly name: string;
  readonly targets: string[];
  /** What it works on that is no spelling. */
  readonly besides: string[];
  readonly savedAt: string;
  /** In which order the states of a group were saved, from 1; a device's clock has no say in it. */
  readonly number: number;
  readonly groupId: string;
  readonly why: string;
}

async function membersOf(inside: Inside, versionIds: readonly string[]) {
  if (versionIds.length === 0) return [];
  return inside
    .select({
      versionId: t.groupMembers.versionId,
      childId: t.groupMembers.childId,
      locked: t.groupMembers.locked,
      name: t.children.name,
      classId: t.children.classId,
    })
    .from(t.groupMembers)
    .innerJoin(t.children, eq(t.children.id, t.groupMembers.childId))
    .where(inArray(t.groupMembers.versionId, [...versionIds]))
    .orderBy(t.groupMembers.place);
}

/** Every group in its newest version, open ones first, by name. */
export async function list(inside: Inside): Promise<GroupView[]> {
  const rows = await inside.select().from(t.groups).orderBy(t.groups.closed, t.groups.createdAt);
  const newest = await inside
    .selectDistinctOn([t.groupVersions.groupId])
    .from(t.groupVersions)
    .orderBy(t.groupVersions.groupId, desc(t.groupVersions.number));
  const members = await membersOf(
    inside,
    newest.map((version) => version.id),
  );
  return rows.flatMap((row) => {
    const version = newest.find((one) => one.groupId === row.id);
    if (!version) return [];
    return {
      id: row.id,
      name: version.name,
      closed: row.closed,
      reads: row.reads,
      routine: row.routine,
      version: version.number,
      savedAt: version.savedAt,
      targets: version.targets,
      besides: version.besides,
      members: members
        .filter((member) => member.versionId === version.id)
        .map(({ childId, locked, name, classId }) => ({ childId, locked, name, classId })),
    };
  });
}

/** One group in its newest state, or undefined. */
export async function find(inside: Inside, id: string): Promise<GroupView | undefined> {
  return (await list(inside)).find((group) => group.id === id);
}

/** All versions of a group, newest first. */
export async function history(inside: Inside, groupId: string) {
  return versionsWhere(inside, eq(t.groupVersions.groupId, groupId));
}

/** Every state of every group, group by group, the newest first. */
export async function everyState(inside: Inside) {
  return versionsWhere(inside, sql`true`);
}

/** The versions of groups in which a child was, group by group, newest first. */
export async function historyOfChild(inside: Inside, childId: string) {
  const his = inside
    .select({ id: t.groupMembers.versionId })
    .from(t.groupMembers)
    .where(eq(t.groupMembers.childId, childId));
  return versionsWhere(inside, inArray(t.groupVersions.id, his));
}

async function versionsWhere(inside: Inside, which: SQL) {
  const versions: Version[] = await inside
    .select()
    .from(t.groupVersions)
    .where(which)
    .orderBy(t.groupVersions.groupId, desc(t.groupVersions.number));
  const members = await membersOf(
    inside,
    versions.map((version) => version.id),
  );
  return versions.map(({ id, groupId, name, targets, besides, savedAt, number, why }) => ({
    id,
    groupId,
    version: number,
    name,
    targets,
    besides,
    savedAt,
    why,
    members: members.filter((member) => member.versionId === id).map(({ childId, locked }) => ({ childId, locked })),
  }));
}

export interface NewVersion extends Omit<Version, "number"> {
  readonly members: readonly { readonly childId: string; readonly locked: boolean }[];
}

/**
 * Saves the next state of a group, and the group when it is new. The same state sent again changes nothing.
 * @param onto the number of the state that it was made from, 0 for a new group; null to put it on whatever is newest
 * @returns false when the group was saved meanwhile; then nothing was written
 */
export async function save(inside: Inside, version: NewVersion, onto: number | null): Promise<boolean> {
  const { members, ...state } = version;
  const { id, groupId } = state;
  await inside.insert(t.groups).values({ id: groupId }).onConflictDoNothing();
  // Held, so that of two who save at once one comes second.
  await inside.select({ id: t.groups.id }).from(t.groups).where(eq(t.groups.id, groupId)).for("update");
  const before = await inside
    .select({ id: t.groupVersions.id, number: t.groupVersions.number })
    .from(t.groupVersions)
    .where(eq(t.groupVersions.groupId, groupId));
  if (before.some((one) => one.id === id)) return true;
  const newest = Math.max(0, ...before.map((one) => one.number));
  if (onto !== null && onto !== newest) return false;
  await inside.insert(t.groupVersions).values({ ...state, number: newest + 1 });
  if (members.length > 0)
    await inside
      .insert(t.groupMembers)
      .values(members.map(({ childId, locked }, place) => ({ versionId: id, childId, locked, place })));
  return true;
}

/** Sets who of a group must be able to read what it is given. */
export async function setReads(inside: Inside, id: string, reads: ReadingLimit): Promise<void> {
  await inside.update(t.groups).set({ reads }).where(eq(t.groups.id, id));
}

/** Closes a group, or opens it again. */
export async function setClosed(inside: Inside, id: string, closed: boolean): Promise<void> {
  await inside.update(t.groups).set({ closed }).where(eq(t.groups.id, id));
}

/** Sets how the sessions of a group are held. */
export async function setRoutine(inside: Inside, id: string, routine: string): Promise<void> {
  await inside.update(t.groups).set({ routine }).where(eq(t.groups.id, id));
}

/** Over how many weeks a group is planned ahead, and what a teacher fixed of days. A group that is not here has the usual ones. */
export async function block(inside: Inside, id: string): Promise<{ weeks: number; fixed: readonly BlockFixed[] }> {
  const [row] = await inside
    .select({ weeks: t.groups.blockWeeks, fixed: t.groups.blockFixed })
    .from(t.groups)
    .where(eq(t.groups.id, id));
  return row ?? { weeks: 6, fixed: [] };
}

/** Sets over how many weeks it is planned ahead. */
export async function setBlockWeeks(inside: Inside, id: string, weeks: number): Promise<void> {
  await inside.update(t.groups).set({ blockWeeks: weeks }).where(eq(t.groups.id, id));
}

/**
 * Fixes what days to come teach; null gives a day back to the tool, and days before today are forgotten. Two who fix other days at
 * the same time wait for each other, so that neither is lost.
 */
export async function fixBlock(
  inside: Inside,
  id: string,
  {
    today,
    days,
  }: {
    readonly today: string;
    readonly days: readonly { on: string; gpcs: readonly string[] | null; focus?: Focus | null | undefined }[];
  },
): Promise<void> {
  const [row] = await inside
    .select({ fixed: t.groups.blockFixed })
    .from(t.groups)
    .where(eq(t.groups.id, id))
    .for("update");
  const said = new Set(days.map(({ on }) => on));
  const kept = (row?.fixed ?? []).filter(({ on }) => on >= today && !said.has(on));
  const added = days.flatMap(({ on, gpcs, focus }) => {
    if (focus) return [{ on, gpcs: [], focus: [...focus] }];
    return gpcs ? [{ on, gpcs: [...new Set(gpcs)] }] : [];
  });
  await inside
    .update(t.groups)
    .set({ blockFixed: [...kept, ...added] })
    .where(eq(t.groups.id, id));
}
