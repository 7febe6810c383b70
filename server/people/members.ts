import { and, asc, eq, inArray, isNotNull, isNull, ne, notInArray, sql } from "drizzle-orm";
import type { Role } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

export interface Member {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

/** What is given of a person, and what is theirs. */
export interface MemberBody {
  readonly name: string;
  readonly role: Role;
  readonly classIds: readonly string[];
  readonly groupIds: readonly string[];
  /** Of the adults who take groups; left out it stays as it is. */
  readonly adultId?: string | null | undefined;
  readonly typedNames: readonly string[];
}

const shown = { id: t.members.id, name: t.members.name, role: t.members.role };
const here = isNull(t.members.removedAt);

/** The member that an account is in this school, unless they were taken out. */
export async function byAccount(inside: Inside, accountId: string): Promise<Member | undefined> {
  return (
    await inside
      .select(shown)
      .from(t.members)
      .where(and(eq(t.members.accountId, accountId), here))
  )[0];
}

/** The account of the member with this name, however it is written; undefined when there is none. */
export async function accountNamed(
  inside: Inside,
  name: string,
): Promise<(Member & { accountId: string | null }) | undefined> {
  return (
    await inside
      .select({ ...shown, accountId: t.members.accountId })
      .from(t.members)
      .where(and(sql`lower(${t.members.name}) = lower(${name})`, here))
  )[0];
}

/** Whether a lead can sign in, and whether nothing in the school is real. */
export async function entrance(
  inside: Inside,
): Promise<{ ready: boolean; demo: boolean; name: string; leadsNeedSecond: boolean }> {
  const leads = inside
    .select({ id: t.members.id })
    .from(t.members)
    .where(and(eq(t.members.role, "lead"), isNotNull(t.members.accountId), here))
    .limit(1);
  const { name, demo, leadsNeedSecond } = t.schools;
  const [school] = await inside.select({ name, demo, leadsNeedSecond }).from(t.schools);
  const plain = { demo: false, name: "", leadsNeedSecond: false };
  return { ready: (await leads).length > 0, ...(school ?? plain) };
}

/** Makes a school that has no class and no one who signs in the one that is shown. @returns false when it has */
export async function markDemo(inside: Inside): Promise<boolean> {
  const classes = await inside.select({ id: t.classes.id }).from(t.classes).limit(1);
  if (classes.length > 0 || (await entrance(inside)).ready) return false;
  await inside.update(t.schools).set({ demo: true });
  return true;
}

/** All who belong to the school, by name, with what is theirs. */
export async function list(inside: Inside) {
  const members = await inside
    .select({
      ...shown,
      version: t.members.version,
      accountId: t.members.accountId,
      typedNames: t.members.typedNames,
      adultId: t.members.adultId,
    })
    .from(t.members)
    .where(here)
    .orderBy(asc(sql`lower(${t.members.name})`));
  const classes = await inside.select().from(t.memberClasses);
  const groups = await inside.select().from(t.memberGroups);
  return members.map((one) => ({
    ...one,
    classIds: classes.filter(({ memberId }) => memberId === one.id).map(({ classId }) => classId),
    groupIds: groups.filter(({ memberId }) => memberId === one.id).map(({ groupId }) => groupId),
  }));
}

/** Everyone of the school who is to know of children: all but observers, by name. */
export async function colleagues(inside: Inside): Promise<{ id: string; name: string }[]> {
  return inside
    .select({ id: t.members.id, name: t.members.name })
    .from(t.members)
    .where(and(ne(t.members.role, "observer"), here))
    .orderBy(asc(sql`lower(${t.members.name})`));
}

/** A member with their account, also one who was taken out. */
export async function find(inside: Inside, id: string) {
  return (await inside.select().from(t.members).where(eq(t.members.id, id)))[0];
}

/** Why a name cannot be someone's: marks carry names, and one stands for one person for good. */
export interface NameTaken {
  readonly name: string;
  /** Someone `here` has it, someone has it who `left`, or marks `under` it are of someone who is called otherwise now. */
  readonly by: "here" | "left" | "under";
  readonly whose: string;
}

const folded = (name: string) => name.trim().toLowerCase();

/** The first of these names that stands for someone else than this member. */
async function takenOf(inside: Inside, names: readonly string[], id: string): Promise<NameTaken | undefined> {
  const { members } = t;
  const others = await inside
    .select({ name: members.name, typedNames: members.typedNames, removedAt: members.removedAt })
    .from(members)
    .where(ne(members.id, id));
  for (const name of names)
    for (const other of others) {
      if (folded(other.name) === folded(name))
        return { name, by: other.removedAt === null ? "here" : "left", whose: other.name };
      if (other.typedNames.some((one) => folded(one) === folded(name)))
        return { name, by: "under", whose: other.name };
    }
  return undefined;
}

/** Adds a member. @returns why not, where the name or one of the typed names stands for someone else */
export async function add(
  inside: Inside,
  id: string,
  { name, role, typedNames, adultId = null, ...own }: MemberBody,
): Promise<NameTaken | undefined> {
  const taken = await takenOf(inside, [name, ...typedNames], id);
  if (taken) return taken;
  await inside.insert(t.members).values({ id, name, role, adultId, typedNames: [...typedNames] });
  await give(inside, id, own);
  return undefined;
}

/**
 * Changes a member who still stands at this version; under a new name marks of the old one stay theirs.
 * @returns `stale` when they were changed since, `last` when no lead would be left who can sign in, or which name stands for
 * someone else
 */
export async function change(
  inside: Inside,
  id: string,
  version: number,
  { name, role, typedNames, adultId, ...own }: MemberBody,
): Promise<"done" | "stale" | "last" | NameTaken> {
  const before = await find(inside, id);
  const had = new Set([before?.name ?? "", ...(before?.typedNames ?? [])].map(folded));
  const taken = await takenOf(
    inside,
    [name, ...typedNames].filter((one) => !had.has(folded(one))),
    id,
  );
  if (taken) return taken;
  const were = before && before.name !== name && !typedNames.includes(before.name) ? [before.name] : [];
  if (role !== "lead" && (await isLastLead(inside, id))) return "last";
  const changed = await inside
    .update(t.members)
    .set({
      name,
      role,
      typedNames: [...typedNames.filter((one) => one !== name), ...were],
      version: version + 1,
      ...(adultId === undefined ? {} : { adultId }),
    })
    .where(and(eq(t.members.id, id), eq(t.members.version, version), here))
    .returning({ id: t.members.id });
  if (changed.length === 0) return "stale";
  await give(inside, id, own);
  return "done";
}

/** Takes a member out; what they did keeps their name. @returns their account, or `last` for the last lead */
export async function remove(inside: Inside, id: string, at: string): Promise<{ accountId: string | null } | "last"> {
  if (await isLastLead(inside, id)) return "last";
  const before = await find(inside, id);
  await give(inside, id, { classIds: [], groupIds: [] });
  await inside
    .update(t.members)
    .set({ removedAt: at, accountId: null, adultId: null })
    .where(and(eq(t.members.id, id), here));
  return { accountId: before?.accountId ?? null };
}

/** Those who do not belong to the school any more, by name. */
export async function left(inside: Inside): Promise<(Member & { removedAt: string })[]> {
  const rows = await inside
    .select({ ...shown, removedAt: t.members.removedAt })
    .from(t.members)
    .where(isNotNull(t.members.removedAt))
    .orderBy(asc(sql`lower(${t.members.name})`));
  return rows.flatMap(({ removedAt, ...one }) => (removedAt === null ? [] : [{ ...one, removedAt }]));
}

/** Lets someone who left belong to the school again, in the role they had; nothing is theirs yet, and they come in by a new link. */
export async function bringBack(inside: Inside, id: string): Promise<void> {
  await inside
    .update(t.members)
    .set({ removedAt: null, version: sql`${t.members.version} + 1` })
    .where(and(eq(t.members.id, id), isNotNull(t.members.removedAt)));
}

/** True for a lead who can sign in, when no other lead can. Of two who would take each other out, the second waits for the first. */
async function isLastLead(inside: Inside, id: string): Promise<boolean> {
  const leads = await inside
    .select({ id: t.members.id })
    .from(t.members)
    .where(and(eq(t.members.role, "lead"), isNotNull(t.members.accountId), here))
    .for("update");
  return leads.length === 1 && leads[0]?.id === id;
}

/** What is theirs from now on; what was theirs before is not any more. */
async function give(inside: Inside, memberId: string, own: Pick<MemberBody, "classIds" | "groupIds">): Promise<void> {
  await inside.delete(t.memberClasses).where(eq(t.memberClasses.memberId, memberId));
  await inside.delete(t.memberGroups).where(eq(t.memberGroups.memberId, memberId));
  if (own.classIds.length > 0)
    await inside.insert(t.memberClasses).values(own.classIds.map((classId) => ({ memberId, classId })));
  if (own.groupIds.length > 0)
    await inside.insert(t.memberGroups).values(own.groupIds.map((groupId) => ({ memberId, groupId })));
}

/** Names that marks and reports carry, of which no one has said which person that was. */
export async function typedNames(inside: Inside): Promise<string[]> {
  const found = (await inside.execute(
    sql`select distinct marked_by as name from answers union select distinct marked_by from readings`,
  )) as unknown as { rows: { name: string | null }[] };
  const said = await inside.select({ name: t.members.name, typed: t.members.typedNames }).from(t.members);
  const known = new Set(said.flatMap(({ name, typed }) => [name, ...typed]));
  return found.rows.flatMap(({ name }) => (name && !known.has(name) ? [name] : [])).sort();
}

/** Gives an account to a member, instead of the one of before. @returns the one of before */
export async function setAccount(inside: Inside, id: string, accountId: string): Promise<string | null> {
  const before = await find(inside, id);
  await inside.update(t.members).set({ accountId }).where(eq(t.members.id, id));
  return before?.accountId ?? null;
}

/** Parts members from all accounts but these: they come in with a new link. */
export async function keepAccounts(inside: Inside, accountIds: readonly string[]): Promise<void> {
  await inside
    .update(t.members)
    .set({ accountId: null })
    .where(accountIds.length > 0 ? notInArray(t.members.accountId, [...accountIds]) : isNotNull(t.members.accountId));
}

/** What things of the trail are called today: children and people by their ids. */
export async function namesOf(inside: Inside, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map();
  const found = [
    ...(await inside
      .select({ id: t.children.id, name: t.children.name })
      .from(t.children)
      .where(inArray(t.children.id, [...ids]))),
    ...(await inside
      .select({ id: t.members.id, name: t.members.name })
      .from(t.members)
      .where(and(inArray(t.members.id, [...ids]), ne(t.members.name, "")))),
  ];
  return new Map(found.map(({ id, name }) => [id, name]));
}
