import { z } from "zod";
import { count, day, id, instant } from "./common.ts";
import { type Did, deeds } from "./deeds.ts";
import type { Endpoint } from "./endpoint.ts";

const did = z.enum(Object.keys(deeds) as [Did, ...Did[]]);

/** Rows of the trail that are told at once. */
export const TRAIL_AT_ONCE = 200;

/** Who saw and did what, the newest first; `more` when there are older ones than are told. */
export const readTrail = {
  method: "GET",
  path: "/api/trail",
  may: { by: "lead" },
  query: z.object({
    memberId: id.optional(),
    did: did.optional(),
    about: id.optional(),
    from: day.optional(),
    to: day.optional(),
  }),
  answer: z.object({
    rows: z.array(
      z.object({
        id,
        at: instant,
        by: z.string(),
        did,
        about: z.string(),
        /** What `about` is called today; empty when it is gone, or of no one. */
        name: z.string(),
        count,
      }),
    ),
    more: z.boolean(),
  }),
} as const satisfies Endpoint;
