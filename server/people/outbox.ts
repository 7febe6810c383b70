import { and, desc, eq, gt, inArray, isNotNull, isNull, lte, or } from "drizzle-orm";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** Puts a letter with a link into the outbox. The same letter once more changes nothing. */
export async function put(inside: Inside, letter: typeof t.outbox.$inferInsert): Promise<void> {
  await inside.insert(t.outbox).values(letter).onConflictDoNothing();
}

/** The letters whose links still work, the newest first. */
export async function list(inside: Inside, now: Date) {
  const { id, to, subject, text, madeAt } = t.outbox;
  return inside
    .select({ id, to, subject, text, madeAt, endsAt: t.invitations.endsAt, name: t.members.name })
    .from(t.outbox)
    .innerJoin(t.invitations, eq(t.invitations.id, t.outbox.invitationId))
    .innerJoin(t.members, eq(t.members.id, t.invitations.memberId))
    .where(and(isNull(t.invitations.usedAt), gt(t.invitations.endsAt, now.toISOString())))
    .orderBy(desc(madeAt), id);
}

/** Takes a letter out. @returns false when it is not there */
export async function remove(inside: Inside, id: string): Promise<boolean> {
  return (await inside.delete(t.outbox).where(eq(t.outbox.id, id)).returning({ id: t.outbox.id })).length > 0;
}

/** Forgets letters whose links were used, or are too old. */
export async function clear(inside: Inside, now: Date): Promise<void> {
  const over = inside
    .select({ id: t.invitations.id })
    .from(t.invitations)
    .where(or(isNotNull(t.invitations.usedAt), lte(t.invitations.endsAt, now.toISOString())));
  await inside.delete(t.outbox).where(inArray(t.outbox.invitationId, over));
}
