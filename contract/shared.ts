import { z } from "zod";
import { letterShapesOf } from "#core/checks";
import { item } from "./answers.ts";
import { byId, day, done, gpc, id, instant, line } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { plan, pointOfTarget, report } from "./groups.ts";
import { textRead } from "./text-read.ts";
import { ownSplit, ownWordAge } from "./words.ts";

/**
 * Makes the link under which a colleague reaches the card of a session until its last day. A link made before ends.
 */
export const shareSession = {
  method: "POST",
  path: "/api/sessions/:id/share",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  trail: { did: "shared", about: "params.id" },
  params: byId,
  body: z.object({ endsOn: day }),
  /** The token is shown once and only its hash is kept. */
  answer: z.object({ token: z.string(), endsOn: day }),
} as const satisfies Endpoint;

/** Links of sessions that lead somewhere today, the one that ends first before others. */
export const listShares = {
  method: "GET",
  path: "/api/shares",
  may: { by: "lead" },
  answer: z.array(
    z.object({ sessionId: id, groupName: z.string(), heldOn: day, endsOn: day, openedAt: instant.nullable() }),
  ),
} as const satisfies Endpoint;

/** Ends the link of a session at once. */
export const unshareSession = {
  method: "DELETE",
  path: "/api/sessions/:id/share",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  trail: { did: "shared", about: "params.id" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

const byToken = z.object({ token: z.string().regex(/^[\w-]{20,80}$/) });

/** What a colleague with the link sees: the card, first names and initials, nothing else of the school. */
export const getShared = {
  method: "GET",
  path: "/api/shared/:token",
  may: { by: "link", opens: "share", key: "token" },
  params: byToken,
  answer: z.object({
    sessionId: id,
    groupName: z.string(),
    heldOn: day,
    today: day,
    timeZone: z.string(),
    endsOn: day,
    members: z.array(z.object({ id, name: z.string(), absent: z.boolean() })),
    targets: z.array(gpc),
    plan,
    point: pointOfTarget,
    /** What all of them can read, from which more words are found; texts that the session reads; the school's own splits and ages of words. */
    known: z.array(gpc),
    texts: z.array(z.object({ id: z.string(), title: z.string(), body: z.string() })),
    splits: z.array(ownSplit),
    wordAges: z.array(ownWordAge),
    letterShapes: z.enum(letterShapesOf),
    deviceVoice: z.boolean(),
    reports: z.array(z.object({ by: z.string(), at: instant })),
  }),
} as const satisfies Endpoint;
export type SharedCard = z.infer<typeof getShared.answer>;

/** A mark of a session that was taught from a link, as an answer of its kind. */
const taughtMark = z.object({
  id,
  childId: id,
  kind: z.enum(["card", "words", "exception", "dictation"]),
  item,
  outcome: z.enum(["right", "wrong"]),
  /** What was said or written instead, where someone noted it. */
  heard: line(60).nullable(),
  help: z.enum(["none", "hint", "together"]),
  at: instant,
});
export type TaughtMark = z.infer<typeof taughtMark>;

/** A text that a child read in such a session, with what was marked at its words. */
const taughtReading = textRead.extend({ id, childId: id, textId: line(80), title: line(120), at: instant });
export type TaughtReading = z.infer<typeof taughtReading>;

/** The same by a link, with what was marked while it was taught: at most ten reports, each within fourteen days of the session (422 otherwise). */
export const reportShared = {
  method: "POST",
  path: "/api/shared/:token/report",
  may: { by: "link", opens: "share", key: "token" },
  params: byToken,
  body: report.extend({
    taught: z.array(taughtMark).max(600).optional(),
    readings: z.array(taughtReading).max(60).optional(),
  }),
  answer: done,
} as const satisfies Endpoint;
