import { z } from "zod";
import { answer, kindId } from "./answers.ts";
import { seekFrom } from "./checks.ts";
import {
  byId,
  count,
  day,
  done,
  gpc,
  id,
  instant,
  LONGEST_GPC,
  letters,
  line,
  needFamily,
  note,
  onto,
} from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { readingView } from "./readings.ts";
import { mapsOf } from "./views.ts";
import { ownHours } from "./week.ts";

/** First name and initial: the least that tells the children of a class apart. */
export const childName = line(60);
/** Only what changes the session, `glasses are due`. */
export const childNote = note(200);

/** A child as lists and forms have it. */
const childView = z.object({
  id,
  classId: id,
  name: z.string(),
  note: z.string(),
  archived: z.boolean(),
  /** How letters stand for this child. */
  ...letters,
  /** The day for which the child was said to be absent last: absent today when it is today. */
  absentOn: day.nullable(),
  /** Goes up with every change; marks do not count. */
  version: count,
  lastChecked: day.nullable(),
});
export type ChildView = z.infer<typeof childView>;

/** A child to add: its id is made on the device, so that adding twice adds once. */
const newChild = z.object({ id, classId: id, name: childName, note: childNote });

/**
 * The children of a class, or of all classes, by name; archived ones too.
 * @example call(listChildren, { query: { classId } })
 */
export const listChildren = {
  method: "GET",
  path: "/api/children",
  may: { by: "assistant", theirs: { "query.classId": "class" }, shows: { "*.id": "child" } },
  query: z.object({ classId: id.optional() }),
  answer: z.array(childView),
} as const satisfies Endpoint;

/**
 * Adds a child to a class. The same child once more is told as success; another under its id is refused (409), and so is a
 * second child of the name in the class (422).
 */
export const addChild = {
  method: "POST",
  path: "/api/children",
  may: { by: "teacher", theirs: { "body.classId": "class" } },
  trail: { did: "child-changed", about: "body.id" },
  body: newChild,
  answer: childView,
} as const satisfies Endpoint;

/** Children that come into a class in one go. */
export const MOST_IMPORTED = 250;
/**
 * Adds a list of children. Each is looked at by itself: one whose class is gone or whose name is taken is among `refused`, with
 * the reason, and the others are added. Sent again, those that are there are neither added nor refused.
 */
export const importChildren = {
  method: "POST",
  path: "/api/children/import",
  may: { by: "teacher", theirs: { "body.children.*.classId": "class" } },
  trail: { did: "child-changed", about: "body.children.*.id" },
  body: z.object({ children: z.array(newChild).min(1).max(MOST_IMPORTED) }),
  answer: z.object({ added: z.number().int(), refused: z.array(z.object({ id, says: z.string() })) }),
} as const satisfies Endpoint;

/**
 * Changes what is given of a child; what is left out stays. Made from an older `version` it is answered with both (409).
 */
export const editChild = {
  method: "PATCH",
  path: "/api/children/:id",
  may: { by: "teacher", theirs: { "params.id": "child", "body.classId": "class" } },
  trail: { did: "child-changed", about: "params.id" },
  params: byId,
  body: z
    .object({ classId: id, name: childName, note: childNote, archived: z.boolean(), ...letters })
    .partial()
    .extend({ version: onto }),
  answer: childView,
} as const satisfies Endpoint;

/**
 * Says that a child is absent, or here after all, today or on a day before. Of today checks, sessions and lists follow; tomorrow the
 * child is here. What its class was taught on a day on which it was away it has missed. Said again it changes nothing.
 */
export const setAbsent = {
  method: "PUT",
  path: "/api/children/:id/absent",
  may: { by: "assistant", theirs: { "params.id": "child" } },
  params: byId,
  body: z.object({ absent: z.boolean(), day: day.optional() }),
  answer: childView,
} as const satisfies Endpoint;

/** A check of a child in one line: how many cards it had, and of those asked how many were right at last. */
const checkSummary = z.object({
  id,
  sittingId: id,
  kind: kindId,
  startedAt: instant,
  endedAt: instant.nullable(),
  cards: z.number().int(),
  asked: z.number().int(),
  right: z.number().int(),
});

/** A child's page: its checks, the newest first, the open groups that it is in, and what it takes for what. */
export const getChild = {
  method: "GET",
  path: "/api/children/:id",
  may: { by: "teacher", theirs: { "params.id": "child" }, shows: { "groups.*.id": "group" } },
  trail: { did: "child-seen", about: "params.id" },
  params: byId,
  answer: z.object({
    child: childView,
    checks: z.array(checkSummary),
    groups: z.array(z.object({ id, name: z.string() })),
    /** Days on which it was away, the newest first, and what its class was taught on them: spellings and exception words. */
    away: z.array(z.object({ day, gpcs: z.array(gpc), words: z.array(z.string()) })),
    /** Answers that are in the log and not in what is believed, the newest first, and why. */
    leftOut: z.array(z.object({ id: z.string(), day, by: z.string(), why: z.string() })),
    confusions: z.array(
      z.object({
        asked: z.string(),
        given: z.string(),
        of: z.enum(["sound", "spelling"]),
        count: z.number().int(),
        lastDay: day,
        /** How often in the last four weeks, and in the four before. */
        lately: z.number().int(),
        before: z.number().int(),
        items: z.array(z.string()),
      }),
    ),
  }),
} as const satisfies Endpoint;

const share = z.number().min(0).max(1);
/** An answer that spoke of a spelling, and what it changed. */
const piece = z.object({
  id: z.string(),
  day,
  by: z.string(),
  /** What it was, in a few words: `read in “rain”`. */
  says: z.string(),
  right: z.boolean(),
  /** The reading of which it was a word; null for all else. */
  readingId: z.string().nullable(),
  /** The chance on that day, before it was heard and after. */
  before: share,
  after: share,
  low: share,
  high: share,
  ms: z.number().nullable(),
});

/**
 * Why a spelling stands as it does for a child: its state today, the reason in sentences, the pieces of evidence that moved it
 * most, and every answer that spoke of it, the newest first. Cards that were taken back stand by themselves.
 */
export const evidence = {
  method: "GET",
  path: "/api/children/:id/evidence",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "child-seen", about: "params.id" },
  params: byId,
  /** `gpc` is the shape of words where it is about blending. */
  query: z.object({ gpc: line(LONGEST_GPC), of: z.enum(mapsOf).optional() }),
  answer: z.object({
    state: z.string(),
    why: z.string(),
    chance: share,
    low: share,
    high: share,
    answers: z.number().int(),
    /** Days in which the odds are halved if no one asks. */
    halfLife: z.number(),
    /** That a teacher says it is known, or not, if no answer since went against it; else null. */
    judged: z.boolean().nullable(),
    /** The three that moved it most, the newest first, as ids of `pieces`. */
    moved: z.array(z.string()),
    pieces: z.array(piece),
    takenBack: z.array(answer),
  }),
} as const satisfies Endpoint;
export type Evidence = z.infer<typeof evidence.answer>;

/** What erasing would take away, counted. */
export const traces = {
  method: "GET",
  path: "/api/children/:id/traces",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  params: byId,
  answer: z.object({
    answers: z.number().int(),
    checks: z.number().int(),
    readings: z.number().int(),
    groups: z.number().int(),
    sessions: z.number().int(),
    notesNaming: z.number().int(),
  }),
} as const satisfies Endpoint;

/** Everything kept about one child. */
export const exportChild = {
  method: "GET",
  path: "/api/children/:id/export",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "exported", about: "params.id" },
  params: byId,
  answer: z.object({
    format: z.literal("keen-sapling child 3"),
    exportedAt: instant,
    child: childView,
    className: z.string(),
    answers: z.array(answer),
    checks: z.array(
      z.object({
        id,
        kind: kindId,
        scope: z.string(),
        items: z.array(z.string()),
        startedAt: instant,
        endedAt: instant.nullable(),
        /** What was taken for known of the child when it began, in a check that asks only what is in doubt; else null. */
        belief: seekFrom.nullable(),
      }),
    ),
    awayOn: z.array(day),
    groups: z.array(
      z.object({ name: z.string(), savedAt: instant, targets: z.array(gpc), besides: z.array(needFamily) }),
    ),
    readings: z.array(readingView),
    sessions: z.array(z.object({ heldOn: day, group: z.string(), came: z.boolean(), by: z.string() })),
    /** Places of its own in an order; without a step it went along with its class again. */
    places: z.array(z.object({ order: z.string(), step: z.string().nullable(), again: z.boolean(), since: day })),
    /** What was asked for when groups are made, and said of what it should be taught next. */
    wishes: z.array(z.object({ id, kind: z.string(), by: z.string(), since: day })),
    /** What colleagues wrote about it, also for themselves. */
    notes: z.array(z.object({ text: z.string(), by: z.string(), at: instant, until: day.nullable() })),
    /** When it is not as its class is; null where it is. */
    hours: ownHours.nullable(),
    next: z.array(z.object({ gpc: z.string(), how: z.string(), until: day.nullable(), by: z.string(), since: day })),
  }),
} as const satisfies Endpoint;

/**
 * Erases a child with every row that names it, for good. Notes of sessions in which it was keep their words, with "this child"
 * for its name.
 */
export const eraseChild = {
  method: "DELETE",
  path: "/api/children/:id",
  may: { by: "lead" },
  trail: { did: "child-erased", about: "params.id" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;
