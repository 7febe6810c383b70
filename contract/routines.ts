import { z } from "zod";
import {
  doers,
  kindOfFocus,
  MOST_IN_FOCUS,
  MOST_PART_MINUTES,
  MOST_PARTS,
  partKinds,
  routineFaults,
  shippedIds,
  ways,
} from "#core/plans";
import { byId, count, done, id, line, note, onto } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** How a session is held: parts with their minutes, in an order of the school's own. */
export const routine = z
  .object({
    name: line(60),
    about: note(200),
    parts: z
      .array(
        z.object({
          kind: z.enum(partKinds),
          minutes: z.number().int().min(0).max(MOST_PART_MINUTES),
          who: z.enum(doers),
          how: note(400),
          /** Marks under the sounds of its words; as its kind has it where it is left out. */
          marks: z.boolean().optional(),
        }),
      )
      .max(MOST_PARTS, `A routine has at most ${MOST_PARTS} parts.`),
  })
  .superRefine((value, context) => {
    for (const message of routineFaults(value)) context.addIssue({ code: "custom", message });
  });
export type RoutineBody = z.infer<typeof routine>;

/** How a spelling is taught again that was taught and is not there. */
export const way = z.enum(ways);

/** What a session is about in place of a new spelling: needs of one kind, by their ids (`contrast sound b/d`). */
export const focus = z
  .array(line(80))
  .min(1)
  .max(MOST_IN_FOCUS)
  .refine(
    (ids) => kindOfFocus(ids) !== undefined,
    "A session can be about needs of one kind. Choose them from the list.",
  );

/** One that ships, or the id of a school's own. */
export const routineId = z.union([z.enum(shippedIds), id]);

/** The school's own routines, by name; those that ship stand in the program. */
export const listRoutines = {
  method: "GET",
  path: "/api/routines",
  may: { by: "assistant" },
  answer: z.array(z.object({ id, version: count, routine })),
} as const satisfies Endpoint;

/** Keeps a routine of the school's own, over the version that it was made from; 0 for a new one (409 with both when it was changed). */
export const saveRoutine = {
  method: "PUT",
  path: "/api/routines/:id",
  may: { by: "teacher" },
  params: byId,
  body: z.object({ version: onto, routine }),
  answer: done.extend({ version: count }),
} as const satisfies Endpoint;

/** Takes a routine away. Groups that had it go by the usual one; sessions that were planned by it stay. */
export const removeRoutine = {
  method: "DELETE",
  path: "/api/routines/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** Sets how the sessions of a group are held. Plans from now on follow it; those that are made stay. */
export const setGroupRoutine = {
  method: "PUT",
  path: "/api/groups/:id/routine",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({ routine: routineId }),
  answer: done,
} as const satisfies Endpoint;
