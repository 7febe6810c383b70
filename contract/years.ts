import { z } from "zod";
import { count, done, id, instant, line, note } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** Classes of a school at most, as far as one plan of a year goes. */
export const MOST_CLASSES = 100;
/** Children who change class or leave by themselves, in one plan of a year. */
export const MOST_MOVES = 2000;

const yearClass = z.object({ id, name: line(60), yearGroup: note(30) });

/** What becomes of each class, which are new, and who does not go with its class. */
export const yearPlan = z.object({
  id,
  classes: z.array(yearClass.extend({ leaves: z.boolean() })).max(MOST_CLASSES),
  added: z.array(yearClass.extend({ orderId: id })).max(MOST_CLASSES),
  children: z.array(z.object({ id, from: id, to: id.nullable() })).max(MOST_MOVES),
});

/** A school year that was begun here. */
const yearView = z.object({
  id,
  begunAt: instant,
  /** Until when it can be taken back; null once it was, or when it is too late. */
  until: instant.nullable(),
  undoneAt: instant.nullable(),
  counts: z.object({ classes: count, added: count, moved: count, left: count }),
});
export type YearView = z.infer<typeof yearView>;

/** The school year that was begun last; null when none was. */
export const lastYear = {
  method: "GET",
  path: "/api/years/last",
  may: { by: "lead" },
  answer: z.object({ year: yearView.nullable() }),
} as const satisfies Endpoint;

/**
 * Begins a new school year, as a whole or not at all: classes go on under their new names with their orders and what they
 * were taught, or leave with their children, who are archived; children change class. What was marked, read and planned stays.
 * The same once more is told as success. Refused (422) with each class and child that stands in the way, and (409) when a
 * child is meanwhile in another class than the plan says.
 */
export const beginYear = {
  method: "POST",
  path: "/api/years",
  may: { by: "lead" },
  trail: { did: "year" },
  body: yearPlan,
  answer: yearView,
} as const satisfies Endpoint;

/**
 * Takes a school year back, for a day after it was begun. What someone changed since stays as they left it and is told. Said
 * again it changes nothing.
 */
export const undoYear = {
  method: "POST",
  path: "/api/years/:id/undo",
  may: { by: "lead" },
  trail: { did: "year" },
  params: z.object({ id }),
  answer: done.extend({ kept: z.array(z.string()) }),
} as const satisfies Endpoint;
