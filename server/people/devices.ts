import { createHash } from "node:crypto";
import { and, asc, desc, eq, isNotNull, isNull, sql } from "drizzle-orm";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** What the database keeps of what a device keeps in its cookie. */
const hashed = (token: string): string => createHash("sha256").update(token).digest("hex");

/** Lets a device in under this id. @returns false when there is one of the id already */
export async function letIn(
  inside: Inside,
  device: { readonly id: string; readonly name: string; readonly token: string; readonly at: string },
): Promise<boolean> {
  const { id, name, token, at } = device;
  const made = await inside
    .insert(t.devices)
    .values({ id, name, tokenHash: hashed(token), letInAt: at })
    .onConflictDoNothing()
    .returning({ id: t.devices.id });
  return made.length > 0;
}

/** The device that keeps this token, while it is let in. */
export async function byToken(inside: Inside, token: string): Promise<{ id: string; name: string } | undefined> {
  return (
    await inside
      .select({ id: t.devices.id, name: t.devices.name })
      .from(t.devices)
      .where(eq(t.devices.tokenHash, hashed(token)))
  )[0];
}

/** All devices that are let in, the one used last first, with the number of people who have a code on each. */
export async function list(inside: Inside) {
  const people = sql<number>`(select count(*)::int from ${t.deviceCodes} c where c.device_id = ${t.devices.id})`;
  const { id, name, letInAt, usedAt } = t.devices;
  return inside
    .select({ id, name, letInAt, usedAt, people })
    .from(t.devices)
    .orderBy(desc(sql`coalesce(${usedAt}, ${letInAt})`));
}

/** Ends a device with its codes. */
export async function end(inside: Inside, id: string): Promise<void> {
  await inside.delete(t.devices).where(eq(t.devices.id, id));
}

/** Who can come in on a device by a code, by name. */
export async function peopleOn(inside: Inside, deviceId: string): Promise<{ id: string; name: string }[]> {
  return inside
    .select({ id: t.members.id, name: t.members.name })
    .from(t.deviceCodes)
    .innerJoin(t.members, eq(t.members.id, t.deviceCodes.memberId))
    .where(and(eq(t.deviceCodes.deviceId, deviceId), isNull(t.members.removedAt), isNotNull(t.members.accountId)))
    .orderBy(asc(sql`lower(${t.members.name})`));
}

/** Sets the code of a member on a device. @param hash of it */
export async function setCode(inside: Inside, deviceId: string, memberId: string, hash: string): Promise<void> {
  await inside
    .insert(t.deviceCodes)
    .values({ deviceId, memberId, hash })
    .onConflictDoUpdate({
      target: [t.deviceCodes.schoolId, t.deviceCodes.deviceId, t.deviceCodes.memberId],
      set: { hash },
    });
}

/** The hash of a member's code on a device, with their account; undefined when they have none there. */
export async function codeOf(inside: Inside, deviceId: string, memberId: string) {
  return (
    await inside
      .select({ hash: t.deviceCodes.hash, accountId: t.members.accountId, name: t.members.name })
      .from(t.deviceCodes)
      .innerJoin(t.members, eq(t.members.id, t.deviceCodes.memberId))
      .where(
        and(eq(t.deviceCodes.deviceId, deviceId), eq(t.deviceCodes.memberId, memberId), isNull(t.members.removedAt)),
      )
  )[0];
}

/** Remembers when someone came in on a device. */
export async function used(inside: Inside, id: string, at: string): Promise<void> {
  await inside.update(t.devices).set({ usedAt: at }).where(eq(t.devices.id, id));
}
