import { and, eq, inArray, lt, notInArray } from "drizzle-orm";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** The desk whose face this code shows, or undefined. */
export async function deskOf(inside: Inside, code: string): Promise<string | undefined> {
  return (await inside.select().from(t.faces).where(eq(t.faces.code, code)))[0]?.deskId;
}

/** The code of a desk; null while no one asked for one. */
export async function codeOf(inside: Inside, deskId: string): Promise<string | null> {
  return (await inside.select().from(t.faces).where(eq(t.faces.deskId, deskId)))[0]?.code ?? null;
}

/**
 * Opens a face under a code, unless its desk has one or another face of any school has the code.
 * @returns the code under which the desk's face is open now; null when this code is taken
 */
export async function open(
  inside: Inside,
  face: { readonly deskId: string; readonly code: string; readonly openedAt: string },
): Promise<string | null> {
  const here = await codeOf(inside, face.deskId);
  if (here) return here;
  const door = await inside
    .insert(t.doors)
    .values({ kind: "face", key: face.code })
    .onConflictDoNothing()
    .returning({ key: t.doors.key });
  if (door.length === 0) return null;
  await inside.insert(t.faces).values(face);
  return face.code;
}

/** Closes the faces of these desks, where one is open. */
export async function close(inside: Inside, deskIds: readonly string[]): Promise<void> {
  if (deskIds.length === 0) return;
  const open = inArray(t.faces.deskId, [...deskIds]);
  await shut(inside, await inside.delete(t.faces).where(open).returning({ code: t.faces.code }));
}

/** Closes faces that were opened before `instant` and belong to no sitting: no one came to close them. */
export async function closeBefore(inside: Inside, instant: string): Promise<void> {
  const sittings = inside.select({ id: t.sittings.id }).from(t.sittings);
  const old = and(lt(t.faces.openedAt, instant), notInArray(t.faces.deskId, sittings));
  await shut(inside, await inside.delete(t.faces).where(old).returning({ code: t.faces.code }));
}

/** The codes lead nowhere any more. */
async function shut(inside: Inside, faces: readonly { readonly code: string }[]): Promise<void> {
  if (faces.length === 0) return;
  const codes = faces.map((face) => face.code);
  await inside.delete(t.doors).where(and(eq(t.doors.kind, "face"), inArray(t.doors.key, codes)));
}
