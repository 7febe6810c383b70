import { desc, eq, inArray } from "drizzle-orm";
import type { GroupView } from "#contract";
import type { Db } from "./open.ts";
import * as t from "./schema.ts";

interface Version {
  readonly id: string;
  readonly name: string;
  readonly targets: string[];
  readonly savedAt: string;
}

async function membersOf(db: Db, versionIds: readonly string[]) {
  if (versionIds.length === 0) return [];
  return db
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
export async function listGroups(db: Db): Promise<GroupView[]> {
  const rows = await db.select().from(t.groups).orderBy(t.groups.closed, t.groups.createdAt);
  const newest = await db
    .selectDistinctOn([t.groupVersions.groupId])
    .from(t.groupVersions)
    .orderBy(t.groupVersions.groupId, desc(t.groupVersions.savedAt), desc(t.groupVersions.id));
  const members = await membersOf(
    db,
    newest.map((version) => version.id),
  );
  return rows.flatMap((row) => {
    const version = newest.find((one) => one.groupId === row.id);
    if (!version) return [];
    return {
      id: row.id,
      name: version.name,
      closed: row.closed,
      savedAt: version.savedAt,
      targets: version.targets,
      members: members
        .filter((member) => member.versionId === version.id)
        .map(({ childId, locked, name, classId }) => ({ childId, locked, name, classId })),
    };
  });
}

export async function findGroup(db: Db, id: string): Promise<GroupView | undefined> {
  return (await listGroups(db)).find((group) => group.id === id);
}

/** All versions of a group, newest first. */
export async function groupHistory(db: Db, groupId: string) {
  const versions: Version[] = await db
    .select()
    .from(t.groupVersions)
    .where(eq(t.groupVersions.groupId, groupId))
    .orderBy(desc(t.groupVersions.savedAt), desc(t.groupVersions.id));
  const members = await membersOf(
    db,
    versions.map((version) => version.id),
  );
  return versions.map(({ id, name, targets, savedAt }) => ({
    id,
    name,
    targets,
    savedAt,
    members: members.filter((member) => member.versionId === id).map(({ childId, locked }) => ({ childId, locked })),
  }));
}

export interface NewVersion extends Version {
  readonly groupId: string;
  readonly members: readonly { childId: string; locked: boolean }[];
}

/** Saves a version, and the group when it is new. The same version sent again changes nothing. */
export async function insertVersion(db: Db, version: NewVersion): Promise<void> {
  await db.transaction(async (inside) => {
    await inside.insert(t.groups).values({ id: version.groupId }).onConflictDoNothing();
    const { id, groupId, name, targets, savedAt } = version;
    const added = await inside
      .insert(t.groupVersions)
      .values({ id, groupId, name, targets, savedAt })
      .onConflictDoNothing()
      .returning();
    if (added.length === 0 || version.members.length === 0) return;
    await inside
      .insert(t.groupMembers)
      .values(version.members.map(({ childId, locked }, place) => ({ versionId: id, childId, locked, place })));
  });
}

export async function setClosed(db: Db, id: string, closed: boolean): Promise<void> {
  await db.update(t.groups).set({ closed }).where(eq(t.groups.id, id));
}
