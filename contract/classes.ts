import { z } from "zod";
import { keeping } from "./care.ts";
import { checkSettings } from "./checks.ts";
import { byId, count, day, done, gpc, id, instant, line, note, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { readingSettings } from "./readings.ts";
import { secureWhen } from "./standings.ts";

/** A step of a teaching order: what is taught in it, and the exception words that come with it. */
export const step = z.object({
  id: line(40),
  title: line(80),
  gpcs: z.array(gpc).max(60).readonly(),
  exceptionWords: z.array(line(30)).max(40).readonly(),
});
/** A teaching order: what it is for and its steps, from the first. */
export const orderContent = z.object({
  name: line(80),
  kind: note(200),
  why: note(400),
  steps: z.array(step).max(120).readonly(),
  /** What is taught as one thing here by a name of its own; the rest follows from rules. */
  points: z
    .array(z.object({ name: line(60), gpcs: z.array(gpc).min(1).max(20).readonly() }))
    .max(80)
    .readonly()
    .optional(),
});
export type OrderBody = z.infer<typeof orderContent>;

/** A teaching order with the classes that follow it. */
const orderView = z.object({
  id,
  /** Shipped orders stay as they are; a school edits a copy. */
  shipped: z.boolean(),
  version: count,
  content: orderContent,
  usedBy: z.array(z.object({ id, name: z.string(), stepId: z.string().nullable() })),
});
export type OrderView = z.infer<typeof orderView>;

/** A class: what it follows, how far it is, how many children are in it. */
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

/** What every page asks first: the school, its settings, its classes and orders, and what waits. */
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
    /** When a spelling counts as secure. */
    secureWhen,
    /** Of the settings; goes up with every change of them. */
    version: count,
    /** The IANA name of the zone by which days are reckoned; the server's own until the school has chosen. */
    timeZone: z.string(),
    zoneChosen: z.boolean(),
    /** When a backup that holds the school was last made; null when there was none. */
    backedUpAt: instant.nullable(),
    /** For how long it keeps what it need not. */
    keeping,
    /** How many children were ever erased: a device that knows of fewer drops what it holds of the others. */
    erased: count,
    today: day,
    /** Checks that were begun and not ended, and sessions that are due and of which no one has said what happened. */
    waiting: z.object({ checks: count, sessions: count }),
    classes: z.array(classView),
    orders: z.array(orderView),
  }),
} as const satisfies Endpoint;
export type School = z.infer<typeof getSchool.answer>;

/** Names the school. The name stands on what is printed and shared. */
export const nameSchool = {
  method: "PUT",
  path: "/api/school",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, name: line(80) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Days of marks from now on follow it; days that are stored stay as they are. */
export const setTimeZone = {
  method: "PUT",
  path: "/api/school/time-zone",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, timeZone: line(60) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Adds a class. The same once more is told as success; another class of the name is refused (422). */
export const addClass = {
  method: "POST",
  path: "/api/classes",
  may: { by: "lead" },
  body: z.object({ id, name: line(60), yearGroup: note(30), orderId: id }),
  answer: classView,
} as const satisfies Endpoint;

/** Changes what is given of a class; what is left out stays. */
export const editClass = {
  method: "PATCH",
  path: "/api/classes/:id",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  body: z.object({ name: line(60), yearGroup: note(30), orderId: id, archived: z.boolean() }).partial(),
  answer: classView,
} as const satisfies Endpoint;

/**
 * Says how far a class has been taught, from which day on: up to a step of its order, or nothing yet (null). The mark that came
 * last counts, whatever the clock of its device says.
 */
export const markTaught = {
  method: "POST",
  path: "/api/classes/:id/taught",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  body: z.object({ id, stepId: line(40).nullable(), taughtOn: day, at: instant }),
  answer: classView,
} as const satisfies Endpoint;

/** Every mark of how far a class has been taught, the newest first. */
export const taughtHistory = {
  method: "GET",
  path: "/api/classes/:id/taught",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  answer: z.array(z.object({ id, stepId: z.string().nullable(), taughtOn: day })),
} as const satisfies Endpoint;

/**
 * Adds a teaching order of the school's own. One that does not hold (a spelling twice, an empty step) is refused with every reason
 * (422).
 */
export const addOrder = {
  method: "POST",
  path: "/api/orders",
  may: { by: "lead" },
  body: z.object({ id, content: orderContent }),
  answer: orderView,
} as const satisfies Endpoint;

/**
 * Changes an order of the school's own; those that ship stay as they are (422), and a step up to which a class is taught cannot
 * go (422). Made from an older `version` it is answered with both (409).
 */
export const editOrder = {
  method: "PUT",
  path: "/api/orders/:id",
  may: { by: "lead" },
  params: byId,
  body: z.object({ version: onto, content: orderContent }),
  answer: orderView,
} as const satisfies Endpoint;

/** Removes an order that no class follows. */
export const removeOrder = {
  method: "DELETE",
  path: "/api/orders/:id",
  may: { by: "lead" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;
