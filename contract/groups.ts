import { z } from "zod";
import { doers, MOST_PARTS, partKinds, readingLimits } from "#core/plans";
import { byId, count, day, done, gpc, id, instant, letters, line, needFamily, note, onto } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { givenTo } from "./given.ts";
import { focus, routineId, way } from "./routines.ts";

/** How a child did with a spelling in a session. */
const outcome = z.enum(["right", "slow", "ownWay", "wrong", "none"]);
/** A place in a group; `locked` keeps the child there when groups are proposed anew. */
const member = z.object({ childId: id, locked: z.boolean() });
/** A state that was saved of a group. */
const version = z.object({
  id,
  version: count,
  savedAt: instant,
  name: z.string(),
  members: z.array(member),
  targets: z.array(gpc),
  besides: z.array(needFamily),
  /** Why it was changed, in a sentence; empty where no one said. */
  why: z.string(),
});
/** A group in its newest state, with the names of its children. */
const groupView = z.object({
  id,
  name: z.string(),
  closed: z.boolean(),
  /** Of its newest state; goes up with every one that is saved. */
  version: count,
  savedAt: instant,
  members: z.array(member.extend({ name: z.string(), classId: id })),
  targets: z.array(gpc),
  besides: z.array(needFamily),
  /** Who of it must be able to read what it is given; the others are helped, and a plan says with what. */
  reads: z.enum(readingLimits),
  /** How its sessions are held. */
  routine: routineId,
});
export type GroupView = z.infer<typeof groupView>;

/** Every group in its newest state, open ones first, then by when they were made. */
export const listGroups = {
  method: "GET",
  path: "/api/groups",
  may: { by: "assistant", shows: { "*.id": "group" } },
  answer: z.array(groupView),
} as const satisfies Endpoint;

/** One group with all its states, the newest first. */
export const getGroup = {
  method: "GET",
  path: "/api/groups/:id",
  may: { by: "assistant", theirs: { "params.id": "group" } },
  params: byId,
  answer: groupView.extend({ history: z.array(version) }),
} as const satisfies Endpoint;

/** Saves a new version; the versions before are kept. */
export const saveGroup = {
  method: "PUT",
  path: "/api/groups/:id",
  may: { by: "teacher", theirs: { "params.id": "group", "body.members.*.childId": "child" } },
  params: byId,
  body: z.object({
    versionId: id,
    version: onto,
    name: line(60),
    members: z.array(member).max(40),
    targets: z.array(gpc).max(12),
    besides: z.array(needFamily).max(12).default([]),
    why: note(200).default(""),
    at: instant,
  }),
  answer: groupView,
} as const satisfies Endpoint;

/** Closes a group, which keeps its history and leaves the day, or opens it again. */
export const closeGroup = {
  method: "POST",
  path: "/api/groups/:id/close",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({ closed: z.boolean() }),
  answer: groupView,
} as const satisfies Endpoint;

/** Sets who of a group must be able to read what it is given. Plans from now on follow it; those that are made stay. */
export const setGroupReads = {
  method: "PUT",
  path: "/api/groups/:id/reads",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({ reads: z.enum(readingLimits) }),
  answer: groupView,
} as const satisfies Endpoint;

/** The parts of a session, in the order in which it has them. */
export const partKind = z.enum(partKinds);
/** A part of a session: minutes, what is asked or read in it, and how. */
const part = z.object({
  kind: partKind,
  minutes: z.number().int().min(0).max(60),
  items: z.array(line(200)).max(40).readonly(),
  /** Cards of single children, where each has its own. */
  each: z
    .array(z.object({ childId: id, items: z.array(gpc).max(12).readonly() }))
    .max(40)
    .readonly()
    .optional(),
  how: note(400),
  /** Who does it, and marks under the sounds of its words; as its kind has it where they are left out. */
  who: z.enum(doers).optional(),
  marks: z.boolean().optional(),
});
/** A session as it is planned: the spelling or the two that it teaches, its parts, and what the tool remarks about it. */
export const plan = z.object({
  target: gpc,
  /** Taught beside it, where there was room for two. */
  second: gpc.optional(),
  /** What it is about in place of a new spelling. */
  focus: focus.readonly().optional(),
  parts: z.array(part).max(MOST_PARTS).readonly(),
  /** Children who say at sight what it teaches: they are asked their cards alone. */
  cardsOnly: z.array(id).readonly().optional(),
  remarks: z.array(note(400)).max(12).readonly(),
});
export type PlanBody = z.infer<typeof plan>;

/** What happened in a session: who came, how far it got, who did how with which spelling. */
export const report = z.object({
  id,
  by: line(60),
  at: instant,
  came: z.array(id).max(40),
  /** The last part that was reached, or null. */
  reached: partKind.nullable(),
  marks: z.array(z.object({ id, childId: id, gpc, outcome })).max(200),
  note: note(1000),
});
export type ReportBody = z.infer<typeof report>;

/** What a session's spelling is taught with as one thing; null where it is taught by itself. */
export const pointOfTarget = z.object({ name: z.string(), gpcs: z.array(gpc) }).nullable();

/** A session with all that its page and its card need. */
const sessionView = z.object({
  id,
  groupId: id,
  groupName: z.string(),
  heldOn: day,
  state: z.enum(["planned", "held"]),
  version: count,
  members: z.array(
    z.object({
      id,
      name: z.string(),
      note: z.string(),
      /** Said to be absent on the day of the session. */
      absent: z.boolean(),
      ...letters,
    }),
  ),
  targets: z.array(gpc),
  plan,
  /** The person to whom it was given; null for whoever takes its group. */
  givenTo,
  point: pointOfTarget,
  /** What every child of the group can read, and the exception words taught so far. */
  known: z.array(gpc),
  wholes: z.array(z.string()),
  /** Its link, with when it was opened last. */
  share: z.object({ endsOn: day, createdAt: instant, openedAt: instant.nullable() }).nullable(),
  reports: z.array(report),
  /** The group is closed: nothing new is planned for it. */
  closed: z.boolean(),
  /** A later report of another session of the group than that from which this was filled; null where there is none, or this was held. */
  since: z.object({ sessionId: id, heldOn: day, by: z.string() }).nullable(),
});
export type SessionView = z.infer<typeof sessionView>;

/** Sessions of a group, or of all, the latest day first, without their plans. */
export const listSessions = {
  method: "GET",
  path: "/api/sessions",
  may: { by: "assistant", theirs: { "query.groupId": "group" }, shows: { "*.groupId": "group" } },
  query: z.object({ groupId: id.optional() }),
  answer: z.array(
    z.object({
      id,
      groupId: id,
      groupName: z.string(),
      heldOn: day,
      target: gpc,
      second: gpc.nullable(),
      /** What it is about in place of a new spelling, by name. */
      about: z.string().nullable(),
      /** The name of the point that it belongs to; null where it is taught by itself. */
      point: z.string().nullable(),
      state: z.enum(["planned", "held"]),
      /** The person to whom it was given; null for whoever takes its group. */
      givenTo,
      shared: z.boolean(),
      reports: z.number().int(),
      /** What was handed back last, or null. */
      last: z.object({ by: z.string(), came: z.number().int(), note: z.string() }).nullable(),
    }),
  ),
} as const satisfies Endpoint;

/**
 * Plans a session for the children who are in the group now. Without a `target` the tool chooses what is worth most to them that day,
 * two spellings where the minutes allow. Refused (422) when the group is empty or has nothing to learn; the same asking once more is told as
 * success.
 */
export const planNewSession = {
  method: "POST",
  path: "/api/sessions",
  may: { by: "teacher", theirs: { "body.id": "session", "body.groupId": "group" } },
  body: z.object({
    id,
    groupId: id,
    heldOn: day,
    target: gpc.nullable(),
    /** Another beside a target that is asked for. */
    second: gpc.nullable().optional(),
    /** What it is about in place of a spelling; then no target is asked for. */
    focus: focus.nullable().optional(),
    /** How it is taught again, where it was taught and is not there. */
    way: way.nullable().optional(),
    /** Another than the group's, for this session. */
    routine: routineId.optional(),
    seed: z.number().int().min(0).max(2_147_483_647),
  }),
  answer: sessionView,
} as const satisfies Endpoint;

/** One session; one that was removed is not here (404). */
export const getSession = {
  method: "GET",
  path: "/api/sessions/:id",
  may: { by: "assistant", theirs: { "params.id": "session" } },
  params: byId,
  answer: sessionView,
} as const satisfies Endpoint;

/**
 * Moves a session to another day or changes its plan. Made from an older `version` it is answered with both (409).
 */
export const editSession = {
  method: "PATCH",
  path: "/api/sessions/:id",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  body: z.object({ version: onto, heldOn: day.optional(), plan: plan.optional() }),
  answer: sessionView,
} as const satisfies Endpoint;

/**
 * Fills a session anew for a target, from what its children can read today. What was changed by hand in it is gone; made from
 * an older `version` it is answered with both (409).
 */
export const replanSession = {
  method: "POST",
  path: "/api/sessions/:id/replan",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  body: z.object({
    version: onto,
    target: gpc,
    /** Another beside it. */
    second: gpc.nullable().optional(),
    /** What it is about in place of a new spelling; the target is what its words practise where that says none. */
    focus: focus.nullable().optional(),
    /** Another than the group's, for this session. */
    routine: routineId.optional(),
    seed: z.number().int().min(0).max(2_147_483_647),
  }),
  answer: sessionView,
} as const satisfies Endpoint;

/**
 * What a session would be if it were filled today, with what was marked since: what it would be about, and what would be other, as
 * sentences. Nothing is changed; `replanSession` with the same seed makes it so.
 */
export const getAfresh = {
  method: "GET",
  path: "/api/sessions/:id/afresh",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  query: z.object({ seed: z.coerce.number().int().min(0).max(2_147_483_647) }),
  answer: z.object({
    target: gpc,
    second: gpc.nullable(),
    focus: focus.nullable(),
    changes: z.array(z.string()),
  }),
} as const satisfies Endpoint;

/**
 * Fills one part of a session anew, with other words than those that stand in it. Made from an older `version` it is answered
 * with both (409); there is no such part, or nothing to fill it with (422).
 */
export const otherPart = {
  method: "POST",
  path: "/api/sessions/:id/parts/:at/others",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: z.object({ id, at: z.coerce.number().int().min(0).max(MOST_PARTS) }),
  body: z.object({ version: onto, seed: z.number().int().min(0).max(2_147_483_647) }),
  answer: sessionView,
} as const satisfies Endpoint;

/** Another session of the same group with the same plan, for whoever is in the group now. */
export const copySession = {
  method: "POST",
  path: "/api/sessions/:id/copy",
  may: { by: "teacher", theirs: { "params.id": "session", "body.id": "session" } },
  params: byId,
  body: z.object({ id, heldOn: day }),
  answer: sessionView,
} as const satisfies Endpoint;

/** Takes a session out of sight; for a day it can be brought back. One that was held and reported stays (422). */
export const removeSession = {
  method: "DELETE",
  path: "/api/sessions/:id",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** Brings back a session that was removed a moment ago. */
export const restoreSession = {
  method: "POST",
  path: "/api/sessions/:id/restore",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  answer: sessionView,
} as const satisfies Endpoint;

/**
 * Says what happened in a session. Its marks become answers of the children; one that the ledger refuses takes the whole report
 * back (422). The same report once more is told as success.
 */
export const reportSession = {
  method: "POST",
  path: "/api/sessions/:id/report",
  may: { by: "assistant", theirs: { "params.id": "session" } },
  params: byId,
  body: report,
  answer: done,
} as const satisfies Endpoint;

/** Takes a report out of a session, and its marks back out of the children's answers. */
export const removeReport = {
  method: "DELETE",
  path: "/api/sessions/:id/reports/:reportId",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: z.object({ id, reportId: id }),
  answer: done,
} as const satisfies Endpoint;
