import { z } from "zod";
import { otherNeedKinds } from "#core/mastery";
import { count, day, gpc, id, instant, needFamily } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { givenTo } from "./given.ts";

/** What a map is of: saying spellings at sight, writing them, or blending words by their shape. */
export const mapsOf = ["reading", "spelling", "blending"] as const;
export type MapOf = (typeof mapsOf)[number];

/** Views over all that is known: the gap map, the day, numbers. */
export const getGaps = {
  method: "GET",
  path: "/api/gaps",
  may: { by: "teacher", theirs: { "query.classId": "class" }, shows: { "rows.*.id": "child" } },
  query: z.object({ classId: id.optional(), of: z.enum(mapsOf).optional() }),
  answer: z.object({
    today: day,
    /** `gpc` is the shape of words, as `CCVC`, on a map of blending. */
    columns: z.array(z.object({ gpc: z.string(), stepId: z.string(), step: z.number().int(), title: z.string() })),
    /** The teaching points that the columns belong to, each with its columns; none on a map of blending. */
    points: z.array(z.object({ name: z.string(), gpcs: z.array(z.string()) })),
    rows: z.array(
      z.object({
        id,
        name: z.string(),
        classId: id,
        /** Three characters a column, the state and the chance, read by `core/mastery`. */
        cells: z.string(),
      }),
    ),
  }),
} as const satisfies Endpoint;
export type Gaps = z.infer<typeof getGaps.answer>;

/**
 * The day: what is open, what is due, what was handed back, what each group has next, and whom no one has checked for long.
 */
export const getToday = {
  method: "GET",
  path: "/api/today",
  may: {
    by: "assistant",
    shows: {
      "openSittings.*.id": "sitting",
      "sessions.*.groupId": "group",
      "meetings.*.groupId": "group",
      "reports.*.sessionId": "session",
      "groups.*.id": "group",
      "toCheck.*.id": "child",
      "lastDone.*.sittingId": "sitting",
      "lastDone.*.sessionId": "session",
    },
  },
  answer: z.object({
    today: day,
    /** Sittings that were begun and not ended. */
    openSittings: z.array(
      z.object({
        id,
        name: z.string(),
        children: z.array(z.string()),
        asked: z.number().int(),
        items: z.number().int(),
        startedAt: instant,
        /** The person to whom it was given; null for whoever comes to it. */
        givenTo,
      }),
    ),
    sessions: z.array(
      z.object({
        id,
        groupId: id,
        groupName: z.string(),
        heldOn: day,
        target: gpc,
        /** What it is about in place of a spelling, by name. */
        about: z.string().nullable(),
        state: z.enum(["planned", "held"]),
        /** The person to whom it was given; null for whoever takes its group. */
        givenTo,
      }),
    ),
    /** The sessions of the week that are today, in order; those that were cancelled are not here. */
    meetings: z.array(
      z.object({
        id,
        groupId: id,
        groupName: z.string(),
        /** Minutes from midnight. */
        from: z.number().int(),
        to: z.number().int(),
        adultName: z.string(),
        roomName: z.string(),
        /** Whoever asks takes it: it was given to them, or else stands so in the week. */
        mine: z.boolean(),
        children: z.array(z.object({ name: z.string(), absent: z.boolean() })),
        /** What is planned for it; null where nothing is yet. */
        sessionId: id.nullable(),
        held: z.boolean(),
      }),
    ),
    reports: z.array(
      z.object({
        sessionId: id,
        groupName: z.string(),
        by: z.string(),
        at: instant,
        came: z.number().int(),
        of: z.number().int(),
        note: z.string(),
      }),
    ),
    groups: z.array(
      z.object({
        id,
        name: z.string(),
        members: z.number().int(),
        targets: z.array(gpc),
        besides: z.array(needFamily),
        lastHeld: day.nullable(),
        next: z.object({ id, heldOn: day }).nullable(),
      }),
    ),
    /** Children by how long ago they were last checked, longest first, never checked first of all. */
    toCheck: z.array(z.object({ id, name: z.string(), className: z.string(), lastChecked: day.nullable() })),
    /** What was done last, the newest first; the web says it and leads there. */
    lastDone: z.array(
      z.discriminatedUnion("kind", [
        z.object({ kind: z.literal("check"), sittingId: id, childId: id, childName: z.string(), at: instant }),
        z.object({ kind: z.literal("session"), sessionId: id, groupName: z.string(), by: z.string(), at: instant }),
      ]),
    ),
  }),
} as const satisfies Endpoint;
export type Today = z.infer<typeof getToday.answer>;

/**
 * What each spelling would open for each child: common words that would come right with it and do not come right now, weighed
 * by how often they are met; with examples. Nothing is asked of children for it.
 */
export const getWorth = {
  method: "GET",
  path: "/api/worth",
  may: { by: "teacher", theirs: { "query.classId": "class" }, shows: { "rows.*.id": "child" } },
  query: z.object({ classId: id.optional() }),
  answer: z.object({
    gpcs: z.array(z.string()),
    /** In the order of `gpcs`: weighed common words, texts of the shelf, and of the words those with what the class is taught next. */
    rows: z.array(
      z.object({
        id,
        opens: z.array(z.number().int()),
        texts: z.array(z.number().int()),
        next: z.array(z.number().int()),
        /** How much of its chance goes in four weeks, in hundredths, and how often it was mixed up in the last four. */
        fades: z.array(z.number().int()),
        mixed: z.array(z.number().int()),
      }),
    ),
    examples: z.record(z.string(), z.array(z.string())),
    /** By spelling, titles of texts that it opens for some of these children. */
    titles: z.record(z.string(), z.array(z.string())),
  }),
} as const satisfies Endpoint;
export type WorthView = z.infer<typeof getWorth.answer>;

/** A need besides reading single spellings: a pair that is mixed up, blending by shape, an exception word, writing, the rate in texts. */
const otherNeed = z.object({
  /** As core names it: `contrast sound b/d`, `blend CCVC`, `read said`, `write said`, `spell ai=ai`, `rate texts`. */
  id: z.string(),
  kind: z.enum(otherNeedKinds),
  name: z.string(),
  /** Answers against it, of so many that spoke of it. */
  misses: count,
  answers: count,
  need: z.number(),
  lastDay: day,
  items: z.array(z.string()),
  /** Of blending: words of the last four weeks that lost the first sound of a cluster. */
  lostFirst: count,
});
export type OtherNeedView = z.infer<typeof otherNeed>;

/** What the children of a class, or all, need besides reading single spellings, with the evidence. What was not asked is no need. */
export const getOtherNeeds = {
  method: "GET",
  path: "/api/other-needs",
  may: { by: "teacher", theirs: { "query.classId": "class" }, shows: { "children.*.id": "child" } },
  query: z.object({ classId: id.optional() }),
  answer: z.object({ children: z.array(z.object({ id, name: z.string(), needs: z.array(otherNeed) })) }),
} as const satisfies Endpoint;
export type OtherNeedsView = z.infer<typeof getOtherNeeds.answer>;

/** Children as they are counted without names: in fives; null for fewer than five. */
const inFives = z.number().int().min(5).multipleOf(5).nullable();

/**
 * Numbers of the school and of each class with five children or more, without names: no number of children under five is told, nor
 * two that differ by fewer than five.
 */
export const getNumbers = {
  method: "GET",
  path: "/api/numbers",
  may: { by: "observer" },
  answer: z.object({
    today: day,
    /** The first day of what is counted of the last weeks. */
    since: day,
    /** The whole school first. */
    rows: z.array(
      z.object({
        /** Null for the whole school. */
        className: z.string().nullable(),
        children: inFives,
        /** Of them checked since that day, in a group now, with half of what they were taught secure, with five gaps or more. */
        checked: inFives,
        inGroup: inFives,
        mostSecure: inFives,
        manyGaps: inFives,
        /** Sessions that were held since that day, for groups with a child of the class. */
        sessions: z.number().int(),
      }),
    ),
  }),
} as const satisfies Endpoint;
export type Numbers = z.infer<typeof getNumbers.answer>;
