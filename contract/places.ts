import { z } from "zod";
import { byId, day, id, instant, line } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** Whose place in the order counts for a child or a group: its own, that of its group, or that of the class. */
const place = z.object({
  of: z.enum(["child", "group", "class"]),
  /** The group whose place it is; empty for the others. */
  groupName: z.string(),
  orderId: id.nullable(),
  stepId: z.string().nullable(),
  /** A second time through: what lies beyond was taught the first time. */
  again: z.boolean(),
  since: day.nullable(),
});
export type PlaceView = z.infer<typeof place>;

/** Up to a step of an order, from a day on; null goes along with the class again (a child: with its group, if that has one). */
const body = z.object({
  id,
  orderId: id.nullable(),
  stepId: line(40).nullable(),
  again: z.boolean(),
  since: day,
  at: instant,
});

/** Where a child is in the order, and whose place that is. */
export const getPlaceOfChild = {
  method: "GET",
  path: "/api/children/:id/place",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  params: byId,
  answer: place,
} as const satisfies Endpoint;

/** Gives a child a place of its own in an order, or ends that. Checks, lists, texts and the map follow it. */
export const setPlaceOfChild = {
  method: "PUT",
  path: "/api/children/:id/place",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "child-changed", about: "params.id" },
  params: byId,
  body,
  answer: place,
} as const satisfies Endpoint;

/** Where a group is in the order; `class` where its children go along with their classes. */
export const getPlaceOfGroup = {
  method: "GET",
  path: "/api/groups/:id/place",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  answer: place,
} as const satisfies Endpoint;

/** Gives a group a place of its own in an order, or ends that; a child with a place of its own keeps it. */
export const setPlaceOfGroup = {
  method: "PUT",
  path: "/api/groups/:id/place",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body,
  answer: place,
} as const satisfies Endpoint;
