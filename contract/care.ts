import { z } from "zod";
import { count, day, id, onto, settingsSaved } from "./common.ts";
import type { Endpoint, Stream } from "./endpoint.ts";

/** All of the school in one file, which `npm run restore` puts back. */
export const backupFile = {
  path: "/api/backup",
  may: { by: "lead" },
  params: z.object({}),
} as const satisfies Stream;

/** For how long a school keeps what it need not. */
export const keeping = z.object({
  /** Months after which a child who left is to be erased. */
  leaversMonths: z.number().int().min(1).max(120),
  /** Weeks for which the school keeps its backups, wherever it does so. */
  backupWeeks: z.number().int().min(1).max(520),
  /** Months for which it keeps who saw and did what. */
  trailMonths: z.number().int().min(1).max(120),
});
export type Keeping = z.infer<typeof keeping>;

/** Says for how long the school keeps children who left, and its backups. Made from an older version: both (409). */
export const setKeeping = {
  method: "PUT",
  path: "/api/school/keeping",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: keeping.extend({ version: onto }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** Children who left: those who are archived, or whose class is; who is due first comes first. */
export const listLeavers = {
  method: "GET",
  path: "/api/leavers",
  may: { by: "lead" },
  answer: z.object({
    leavers: z.array(
      z.object({
        id,
        name: z.string(),
        className: z.string(),
        leftOn: day,
        /** From this day on the school's rule wants it erased. */
        dueOn: day,
        due: z.boolean(),
      }),
    ),
    /** The last day on which a backup from before an erasing may still be there; null when none need be. */
    inBackupsUntil: day.nullable(),
  }),
} as const satisfies Endpoint;

/** Children that are erased in one go at most. */
export const MOST_ERASED = 200;

/**
 * Erases children who left, and all that is kept about each, for good. One who is not here any more, or has come back, is left
 * as it is. @returns how many were erased
 */
export const eraseLeavers = {
  method: "POST",
  path: "/api/leavers/erase",
  may: { by: "lead" },
  trail: { did: "child-erased", about: "body.ids.*" },
  body: z.object({ ids: z.array(id).min(1).max(MOST_ERASED) }),
  answer: z.object({ erased: count }),
} as const satisfies Endpoint;

/** Ids of children who were erased, with no name: a device drops what it holds of them. */
export const listErased = {
  method: "GET",
  path: "/api/erased",
  may: { by: "assistant" },
  answer: z.object({ ids: z.array(id) }),
} as const satisfies Endpoint;
