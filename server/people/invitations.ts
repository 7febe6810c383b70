import { randomBytes, randomUUID } from "node:crypto";
import { addDays } from "date-fns";
import { and, eq, inArray, isNull } from "drizzle-orm";
import { INVITATION_DAYS } from "#contract";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";
import { keptKey } from "./door.ts";

/**
 * Makes a link for a member, or with null for whoever sets the school up; one that was open before ends.
 * @returns the token, which is kept nowhere
 */
export async function invite(
  inside: Inside,
  memberId: string | null,
  now: Date,
): Promise<{ token: string; endsAt: string }> {
  await endFor(inside, memberId);
  const token = randomBytes(24).toString("base64url");
  const tokenHash = keptKey("invitation", token);
  const endsAt = addDays(now, INVITATION_DAYS).toISOString();
  await inside
    .insert(t.invitations)
    .values({ id: randomUUID(), tokenHash, memberId, madeAt: now.toISOString(), endsAt });
  await inside.insert(t.doors).values({ kind: "invitation", key: tokenHash });
  return { token, endsAt };
}

/** Ends the links of a member that were not used, or with null those that set the school up. */
export async function endFor(inside: Inside, memberId: string | null): Promise<void> {
  const gone = await inside
    .delete(t.invitations)
    .where(
      and(
        memberId === null ? isNull(t.invitations.memberId) : eq(t.invitations.memberId, memberId),
        isNull(t.invitations.usedAt),
      ),
    )
    .returning({ key: t.invitations.tokenHash });
  const keys = gone.map(({ key }) => key);
  if (keys.length > 0)
    await inside.delete(t.doors).where(and(eq(t.doors.kind, "invitation"), inArray(t.doors.key, keys)));
}

/** The invitation of a link, used or not. */
export async function byToken(inside: Inside, token: string) {
  return (
    await inside
      .select()
      .from(t.invitations)
      .where(eq(t.invitations.tokenHash, keptKey("invitation", token)))
  )[0];
}

/** Uses an invitation. @returns false when someone else has meanwhile */
export async function use(inside: Inside, id: string, at: string): Promise<boolean> {
  const used = await inside
    .update(t.invitations)
    .set({ usedAt: at })
    .where(and(eq(t.invitations.id, id), isNull(t.invitations.usedAt)))
    .returning({ id: t.invitations.id });
  return used.length > 0;
}

/** The members for whom a link is open. */
export async function openFor(inside: Inside, now: Date): Promise<ReadonlySet<string>> {
  const open = await inside.select().from(t.invitations).where(isNull(t.invitations.usedAt));
  return new Set(
    open.flatMap(({ memberId, endsAt }) => (memberId !== null && endsAt > now.toISOString() ? [memberId] : [])),
  );
}
