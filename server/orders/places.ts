import { eq } from "drizzle-orm";
import type { PlaceView } from "#contract";
import { outlineOf, type PlaceMark } from "../classes/outline.ts";
import { list as listGroups } from "../groups/repository.ts";
import * as t from "../store/schema.ts";
import type { Inside } from "../store/scope.ts";

/** A place of a child's or a group's own: all marks of it, the newest last. */
export interface OwnPlace {
  readonly of: "child" | "group";
  readonly groupName: string;
  readonly now: PlaceMark & { readonly orderId: string; readonly stepId: string };
  readonly marks: readonly PlaceMark[];
}

/** The marks since the place was last ended, where it stands. */
function standingMarks(marks: readonly PlaceMark[] | undefined): readonly PlaceMark[] {
  const all = marks ?? [];
  const ended = all.findLastIndex(({ stepId }) => stepId === null);
  return all.slice(ended + 1);
}

function placeFrom(marks: readonly PlaceMark[], of: "child" | "group", groupName: string): OwnPlace | undefined {
  const now = marks.at(-1);
  if (!now?.stepId || !now.orderId) return undefined;
  const { orderId, stepId } = now;
  // Marks in another order say nothing of this one.
  return { of, groupName, now: { ...now, orderId, stepId }, marks: marks.filter((mark) => mark.orderId === orderId) };
}

/** The place that counts for a child beside its class's: its own, else that of an open group it is in (the latest marked). */
export async function placesIn(inside: Inside): Promise<(childId: string) => OwnPlace | undefined> {
  const { placesOfChildren, placesOfGroups } = await outlineOf(inside);
  const byGroup = new Map<string, OwnPlace>();
  if (placesOfGroups.size > 0)
    for (const group of await listGroups(inside)) {
      const place = group.closed
        ? undefined
        : placeFrom(standingMarks(placesOfGroups.get(group.id)), "group", group.name);
      if (!place) continue;
      for (const { childId } of group.members) {
        const before = byGroup.get(childId);
        if (!before || before.now.markedAt < place.now.markedAt) byGroup.set(childId, place);
      }
    }
  return (childId) => placeFrom(standingMarks(placesOfChildren.get(childId)), "child", "") ?? byGroup.get(childId);
}

/** Steps up to which places of children and groups of their own stand in an order, each with whose it is in a few words. */
export async function standingIn(
  inside: Inside,
  orderId: string,
): Promise<{ id: string; name: string; stepId: string }[]> {
  const { placesOfChildren, placesOfGroups } = await outlineOf(inside);
  const standing = (marks: ReadonlyMap<string, readonly PlaceMark[]>, of: "child" | "group", name: string) =>
    [...marks].flatMap(([id, all]) => {
      const place = placeFrom(standingMarks(all), of, "");
      return place?.now.orderId === orderId ? [{ id, name, stepId: place.now.stepId }] : [];
    });
  return [
    ...standing(placesOfGroups, "group", "A group with a place of its own"),
    ...standing(placesOfChildren, "child", "A child with a place of its own"),
  ];
}

/** Forgets places that once stood in an order, before it goes. */
export async function forgetOrder(inside: Inside, orderId: string): Promise<void> {
  await inside.delete(t.places).where(eq(t.places.orderId, orderId));
}

/** As the contract has it; without one of its own it is the class's. */
function viewOf(
  place: OwnPlace | undefined,
  ofClass: { orderId: string; stepId: string | null } | undefined,
): PlaceView {
  if (!place) {
    const { orderId = null, stepId = null } = ofClass ?? {};
    return { of: "class", groupName: "", orderId, stepId, again: false, since: null };
  }
  const { orderId, stepId, again, taughtOn } = place.now;
  return { of: place.of, groupName: place.groupName, orderId, stepId, again, since: taughtOn };
}

/** Where a child of this class is, and whose place that is. */
export async function placeOfChild(inside: Inside, childId: string, classId: string): Promise<PlaceView> {
  const { classes } = await outlineOf(inside);
  const place = (await placesIn(inside))(childId);
  return viewOf(
    place,
    classes.find((one) => one.id === classId),
  );
}

/** Every place that a child had of its own, in words, the oldest first. */
export async function historyOfChild(
  inside: Inside,
  childId: string,
): Promise<{ order: string; step: string | null; again: boolean; since: string }[]> {
  const { placesOfChildren, orders } = await outlineOf(inside);
  return (placesOfChildren.get(childId) ?? []).map(({ orderId, stepId, again, taughtOn }) => {
    const order = orders.get(orderId ?? "");
    const step = order?.steps.find((one) => one.id === stepId)?.title ?? null;
    return { order: order?.name ?? "", step, again, since: taughtOn };
  });
}

/** Where a group is; `class` where its children go along with theirs. */
export async function placeOfGroup(inside: Inside, groupId: string): Promise<PlaceView> {
  const { placesOfGroups } = await outlineOf(inside);
  return viewOf(placeFrom(standingMarks(placesOfGroups.get(groupId)), "group", ""), undefined);
}

/** Whose place is marked. */
export type PlaceOwner = { readonly childId: string } | { readonly groupId: string };

/** Marks a place; the mark that came last counts. One that is there already stays as it was. */
export async function insertPlace(
  inside: Inside,
  owner: PlaceOwner,
  mark: Pick<typeof t.places.$inferInsert, "id" | "orderId" | "stepId" | "again" | "taughtOn" | "markedAt">,
): Promise<void> {
  const { placesOfChildren, placesOfGroups } = await outlineOf(inside);
  const before = "childId" in owner ? placesOfChildren.get(owner.childId) : placesOfGroups.get(owner.groupId);
  const number = (before?.at(-1)?.number ?? 0) + 1;
  await inside
    .insert(t.places)
    .values({ ...owner, ...mark, number })
    .onConflictDoNothing({ target: [t.places.schoolId, t.places.id] });
}
