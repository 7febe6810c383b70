import { z } from "zod";
import { checkSettings } from "./checks.ts";
import { byId, count, day, done, gpc, id, instant, line, note, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { readingSettings } from "./readings.ts";

export const step = z.object({
  id: line(40),
  title: line(80),
  gpcs: z.array(gpc).max(60).readonly(),
  exceptionWords: z.array(line(30)).max(40).readonly(),
});
export const orderContent = z.object({
  name: line(80),
  kind: note(200),
  why: note(400),
  steps: z.array(step).max(120).readonly(),
});
export type OrderBody = z.infer<typeof orderContent>;

const orderView = z.object({
  id,
  /** Shipped orders stay as they are; a school edits a copy. */
  shipped: z.boolean(),
  version: count,
  content: orderContent,
  usedBy: z.array(z.object({ id, name: z.string(), stepId: z.string().nullable() })),
});
export type OrderView = z.infer<typeof orderView>;

const classView = z.object({
  id,
  name: z.string(),
  yearGroup: z.string(),
  orderId: id,
  /** The step the class has been taught up to, or null. */
  stepId: z.string().nullable(),
  taughtOn: day.nullable(),
  children: z.number().int(),
  archived: z.boolean(),
});
export type ClassView = z.infer<typeof classView>;

export const getSchool = {
  method: "GET",
  path: "/api/school",
  may: { by: "assistant", shows: { "classes.*.id": "class", "orders.*.usedBy.*.id": "class" } },
  answer: z.object({
    name: z.string(),
    /** Id of the accent whose sounds count as right. */
    accent: z.string(),
    checks: checkSettings,
    reading: readingSettings,
    /** Of the settings; goes up with every change of them. */
    version: count,
    /** The IANA name of the zone by which days are reckoned; the server's own until the school has chosen. */
    timeZone: z.string(),
    zoneChosen: z.boolean(),
    today: day,
    /** Checks that were begun and not ended, and sessions that are due and of which no one has said what happened. */
    waiting: z.object({ checks: count, sessions: count }),
    classes: z.array(classView),
    orders: z.array(orderView),
  }),
} as const satisfies Endpoint;
export type School = z.infer<typeof getSchool.answer>;

export const nameSchool = {
  method: "PUT",
  path: "/api/school",
  may: { by: "lead" },
  body: z.object({ version: onto, name: line(80) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Days of marks from now on follow it; days that are stored stay as they are. */
export const setTimeZone = {
  method: "PUT",
  path: "/api/school/time-zone",
  may: { by: "lead" },
  body: z.object({ version: onto, timeZone: line(60) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

export const addClass = {
  method: "POST",
  path: "/api/classes",
  may: { by: "lead" },
  body: z.object({ id, name: line(60), yearGroup: note(30), orderId: id }),
  answer: classView,
} as const satisfies Endpoint;

export const editClass = {
  method: "PATCH",
  path: "/api/classes/:id",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  body: z.object({ name: line(60), yearGroup: note(30), orderId: id, archived: z.boolean() }).partial(),
  answer: classView,
} as const satisfies Endpoint;

export const markTaught = {
  method: "POST",
  path: "/api/classes/:id/taught",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  body: z.object({ id, stepId: line(40).nullable(), taughtOn: day, at: instant }),
  answer: classView,
} as const satisfies Endpoint;

export const taughtHistory = {
  method: "GET",
  path: "/api/classes/:id/taught",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  answer: z.array(z.object({ id, stepId: z.string().nullable(), taughtOn: day })),
} as const satisfies Endpoint;

export const addOrder = {
  method: "POST",
  path: "/api/orders",
  may: { by: "lead" },
  body: z.object({ id, content: orderContent }),
  answer: orderView,
} as const satisfies Endpoint;

export const editOrder = {
  method: "PUT",
  path: "/api/orders/:id",
  may: { by: "lead" },
  params: byId,
  body: z.object({ version: onto, content: orderContent }),
  answer: orderView,
} as const satisfies Endpoint;

export const removeOrder = {
  method: "DELETE",
  path: "/api/orders/:id",
  may: { by: "lead" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;
