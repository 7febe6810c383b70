import { z } from "zod";
import { byId, count, day, done, gpc, id, instant, line, note, onto } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** How a child did with a spelling in a session. */
const outcome = z.enum(["right", "slow", "ownWay", "wrong", "none"]);
const member = z.object({ childId: id, locked: z.boolean() });
const version = z.object({
  id,
  version: count,
  savedAt: instant,
  name: z.string(),
  members: z.array(member),
  targets: z.array(gpc),
});
const groupView = z.object({
  id,
  name: z.string(),
  closed: z.boolean(),
  /** Of its newest state; goes up with every one that is saved. */
  version: count,
  savedAt: instant,
  members: z.array(member.extend({ name: z.string(), classId: id })),
  targets: z.array(gpc),
});
export type GroupView = z.infer<typeof groupView>;

export const listGroups = {
  method: "GET",
  path: "/api/groups",
  may: { by: "assistant", shows: { "*.id": "group" } },
  answer: z.array(groupView),
} as const satisfies Endpoint;

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
    at: instant,
  }),
  answer: groupView,
} as const satisfies Endpoint;

export const closeGroup = {
  method: "POST",
  path: "/api/groups/:id/close",
  may: { by: "teacher", theirs: { "params.id": "group" } },
  params: byId,
  body: z.object({ closed: z.boolean() }),
  answer: groupView,
} as const satisfies Endpoint;

export const partKind = z.enum([
  "revisit",
  "teach",
  "readWords",
  "exceptionWords",
  "writeWords",
  "sentence",
  "lastLook",
]);
const part = z.object({
  kind: partKind,
  minutes: z.number().int().min(0).max(60),
  items: z.array(line(200)).max(40).readonly(),
  how: note(400),
});
const plan = z.object({
  target: gpc,
  parts: z.array(part).max(12).readonly(),
  remarks: z.array(note(400)).max(12).readonly(),
});
export type PlanBody = z.infer<typeof plan>;

const report = z.object({
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

const sessionView = z.object({
  id,
  groupId: id,
  groupName: z.string(),
  heldOn: day,
  state: z.enum(["planned", "held"]),
  version: count,
  members: z.array(z.object({ id, name: z.string(), note: z.string() })),
  targets: z.array(gpc),
  plan,
  /** What every child of the group can read, and the exception words taught so far. */
  known: z.array(gpc),
  wholes: z.array(z.string()),
  share: z.object({ endsOn: day, createdAt: instant }).nullable(),
  reports: z.array(report),
});
export type SessionView = z.infer<typeof sessionView>;

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
      state: z.enum(["planned", "held"]),
      shared: z.boolean(),
      reports: z.number().int(),
      /** What was handed back last, or null. */
      last: z.object({ by: z.string(), came: z.number().int(), note: z.string() }).nullable(),
    }),
  ),
} as const satisfies Endpoint;

export const planNewSession = {
  method: "POST",
  path: "/api/sessions",
  may: { by: "teacher", theirs: { "body.id": "session", "body.groupId": "group" } },
  body: z.object({
    id,
    groupId: id,
    heldOn: day,
    target: gpc.nullable(),
    seed: z.number().int().min(0).max(2_147_483_647),
  }),
  answer: sessionView,
} as const satisfies Endpoint;

export const getSession = {
  method: "GET",
  path: "/api/sessions/:id",
  may: { by: "assistant", theirs: { "params.id": "session" } },
  params: byId,
  answer: sessionView,
} as const satisfies Endpoint;

export const editSession = {
  method: "PATCH",
  path: "/api/sessions/:id",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  body: z.object({ version: onto, heldOn: day.optional(), plan: plan.optional() }),
  answer: sessionView,
} as const satisfies Endpoint;

export const replanSession = {
  method: "POST",
  path: "/api/sessions/:id/replan",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  body: z.object({ version: onto, target: gpc, seed: z.number().int().min(0).max(2_147_483_647) }),
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

export const shareSession = {
  method: "POST",
  path: "/api/sessions/:id/share",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  body: z.object({ endsOn: day }),
  /** The token is shown once and only its hash is kept. */
  answer: z.object({ token: z.string(), endsOn: day }),
} as const satisfies Endpoint;

export const unshareSession = {
  method: "DELETE",
  path: "/api/sessions/:id/share",
  may: { by: "teacher", theirs: { "params.id": "session" } },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

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

const byToken = z.object({ token: z.string().regex(/^[\w-]{20,80}$/) });

/** What a colleague with the link sees: the card, first names and initials, nothing else of the school. */
export const getShared = {
  method: "GET",
  path: "/api/shared/:token",
  may: { by: "link", opens: "share", key: "token" },
  params: byToken,
  answer: z.object({
    groupName: z.string(),
    heldOn: day,
    today: day,
    timeZone: z.string(),
    endsOn: day,
    members: z.array(z.object({ id, name: z.string() })),
    targets: z.array(gpc),
    plan,
    reports: z.array(z.object({ by: z.string(), at: instant })),
  }),
} as const satisfies Endpoint;
export type SharedCard = z.infer<typeof getShared.answer>;

export const reportShared = {
  method: "POST",
  path: "/api/shared/:token/report",
  may: { by: "link", opens: "share", key: "token" },
  params: byToken,
  body: report,
  answer: done,
} as const satisfies Endpoint;
