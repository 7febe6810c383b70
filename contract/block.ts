import { z } from "zod";
import { byId, count, day, done, gpc, id } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { focus, way } from "./routines.ts";

/** Weeks of a block. */
export const blockWeeks = z
  .number()
  .int()
  .min(2, "A block has two weeks at least.")
  .max(8, "A block has eight weeks at most.");

const point = z.object({
  gpc,
  /** The name of the teaching point that it belongs to; null where it is taught by itself. */
  name: z.string().nullable(),
  step: z.enum(["new", "practise", "again", "differently"]),
  way: way.nullable(),
  /** Children who need it on that day, as it is foreseen. */
  for: z.array(id),
});

const blockSession = z.object({
  on: day,
  /** Minutes from midnight; null where the group has no time in the week. */
  from: count.nullable(),
  minutes: count,
  /** Points that it has time for. */
  room: count,
  points: z.array(point),
  /** What it is about in place of spellings, by ids and by name. */
  focus: z
    .object({
      ids: z.array(z.string()),
      name: z.string(),
      step: z.enum(["new", "again"]),
      /** Children who need it on that day, as it is foreseen. */
      for: z.array(id),
    })
    .nullable(),
  cards: z.array(z.object({ childId: id, gpcs: z.array(gpc) })),
  /** Children who say at sight what it teaches, and come for their cards alone. */
  cardsOnly: z.array(id),
  /** What the week taught, on the last session of a week. */
  look: z.array(gpc),
  /** Said by a teacher; follows from a session that is planned already; or worked out. */
  by: z.enum(["teacher", "session", "tool"]),
  sessionId: id.nullable(),
});
export type BlockSessionView = z.infer<typeof blockSession>;

/**
 * The sessions of a group over the next weeks, at its times in the week: points and dates, worked out from what is known today, with
 * what was taught in its last sessions. What a teacher fixed, and what is planned already, stays.
 */
export const getBlock = {
  method: "GET",
  path: "/api/groups/:id/block",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  answer: z.object({
    weeks: blockWeeks,
    /** False where the days are made up, since the group has no time in the week. */
    inTheWeek: z.boolean(),
    past: z.array(
      z.object({
        ...{ on: day, sessionId: id, taught: z.array(gpc), came: z.number().int(), of: z.number().int() },
        /** What it was about in place of spellings, by name. */
        about: z.string().nullable(),
      }),
    ),
    sessions: z.array(blockSession),
    /** What stands in the way, as sentences. */
    remarks: z.array(z.string()),
  }),
} as const satisfies Endpoint;
export type BlockView = z.infer<typeof getBlock.answer>;

/** Sets over how many weeks a group is planned ahead. */
export const setBlockWeeks = {
  method: "PUT",
  path: "/api/groups/:id/block",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({ weeks: blockWeeks }),
  answer: done,
} as const satisfies Endpoint;

/**
 * Says what a group is taught on days to come: these spellings, what is no spelling (`focus`), review alone (none of both), or what the
 * tool works out (null). All or none.
 * Days that are over are forgotten.
 */
export const fixBlockDays = {
  method: "PUT",
  path: "/api/groups/:id/block/days",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({
    days: z
      .array(
        z.object({
          on: day,
          gpcs: z.array(gpc).max(2, "A session has room for two at most.").nullable(),
          focus: focus.nullable().optional(),
        }),
      )
      .min(1)
      .max(40)
      .refine((all) => new Set(all.map(({ on }) => on)).size === all.length, "A day stands there twice."),
  }),
  answer: done,
} as const satisfies Endpoint;
