import { z } from "zod";
import { answer, outcome } from "./children.ts";
import { byId, day, done, gpc, id, instant, line } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

export const scope = z.enum(["due", "all", "recent", "picked"]);

const checkView = z.object({
  id,
  childId: id,
  childName: z.string(),
  classId: id,
  scope,
  items: z.array(gpc),
  seed: z.number().int(),
  startedAt: instant,
  endedAt: instant.nullable(),
  answers: z.array(answer),
  /** Outcome of each card the last time it was asked before this check. */
  before: z.array(z.object({ item: gpc, outcome })),
});
export type CheckView = z.infer<typeof checkView>;

export const startCheck = {
  method: "POST",
  path: "/api/checks",
  body: z.object({
    id,
    childId: id,
    scope,
    recentSteps: z.number().int().min(1).max(40).default(3),
    picked: z.array(gpc).max(200).default([]),
    seed: z.number().int().min(0).max(2_147_483_647),
    startedAt: instant,
  }),
  answer: checkView,
} as const satisfies Endpoint;

/** How many cards a check would have, before it begins. */
export const countCards = {
  method: "GET",
  path: "/api/children/:id/cards",
  params: byId,
  query: z.object({ recentSteps: z.coerce.number().int().min(1).max(40).default(3) }),
  answer: z.object({
    due: z.array(gpc),
    all: z.array(gpc),
    recent: z.array(gpc),
    /** Median milliseconds a card in this child's past checks, or null. */
    msPerCard: z.number().nullable(),
    openCheck: id.nullable(),
  }),
} as const satisfies Endpoint;

export const getCheck = {
  method: "GET",
  path: "/api/checks/:id",
  params: byId,
  answer: checkView,
} as const satisfies Endpoint;

export const endCheck = {
  method: "POST",
  path: "/api/checks/:id/end",
  params: byId,
  body: z.object({ at: instant }),
  answer: done,
} as const satisfies Endpoint;

export const getGaps = {
  method: "GET",
  path: "/api/gaps",
  query: z.object({ classId: id.optional() }),
  answer: z.object({
    today: day,
    columns: z.array(z.object({ gpc, stepId: z.string(), step: z.number().int(), title: z.string() })),
    rows: z.array(
      z.object({
        id,
        name: z.string(),
        classId: id,
        /** One letter a column, read by `core/mastery`. */
        cells: z.string(),
      }),
    ),
  }),
} as const satisfies Endpoint;
export type Gaps = z.infer<typeof getGaps.answer>;

export const getToday = {
  method: "GET",
  path: "/api/today",
  answer: z.object({
    today: day,
    openChecks: z.array(
      z.object({
        id,
        childId: id,
        childName: z.string(),
        asked: z.number().int(),
        cards: z.number().int(),
        startedAt: instant,
      }),
    ),
    sessions: z.array(
      z.object({
        id,
        groupId: id,
        groupName: z.string(),
        heldOn: day,
        target: gpc,
        state: z.enum(["planned", "held"]),
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
        lastHeld: day.nullable(),
        next: z.object({ id, heldOn: day }).nullable(),
      }),
    ),
    /** Children by how long ago they were last checked, longest first, never checked first of all. */
    toCheck: z.array(z.object({ id, name: z.string(), className: z.string(), lastChecked: day.nullable() })),
    lastDone: z.array(z.object({ what: line(200), at: instant, link: z.string() })),
  }),
} as const satisfies Endpoint;
export type Today = z.infer<typeof getToday.answer>;
