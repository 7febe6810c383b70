import { z } from "zod";
import { byId, count, day, done, gpc, id, line, needFamily, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** An adult who takes groups: a person of the school, with an account here or without. */
const adult = z.object({
  id,
  name: line(60),
  /** Sessions that they can hold in a week. */
  sessions: z.number().int().min(0).max(60),
});
const weight = z.number().int().min(0).max(10);

/** How a school makes its groups. */
export const grouping = z
  .object({
    /** Children in a group. */
    least: z.number().int().min(1).max(12),
    most: z.number().int().min(1).max(12),
    /** Targets of a group. */
    targets: z.number().int().min(1).max(8),
    /** Sessions that a group has in a week: with those that the adults can hold, how many groups there may be. */
    sessionsAWeek: z.number().int().min(1).max(10),
    /** Who takes groups; none leaves their number open. */
    adults: z.array(adult).max(60),
    withinClasses: z.boolean(),
    /** Year groups in one group at most apart; null where they do not matter. */
    yearsApart: z.number().int().min(0).max(10).nullable(),
    /** What it is worth that a child stays with those it is with, in whole needs. */
    stay: z.number().min(0).max(3),
    /** What counts for what is worth teaching, beside each other. */
    weights: z.object({
      ...{ words: weight, texts: weight, next: weight },
      ...{ fades: weight.default(0), mixed: weight.default(1) },
    }),
    leaving: z.discriminatedUnion("by", [
      z.object({ by: z.literal("targets") }),
      z.object({ by: z.literal("share"), percent: z.number().int().min(50).max(100) }),
    ]),
  })
  .refine(({ least, most }) => least <= most, "The smallest group is larger than the largest.")
  .refine(
    ({ adults }) => new Set(adults.map((one) => one.id)).size === adults.length,
    "Each adult stands there once.",
  );
export type Grouping = z.infer<typeof grouping>;

/** Pairs to keep apart or together, and children who are taught alone. */
const wish = z.object({
  id,
  kind: z.enum(["apart", "together", "alone"]),
  childId: id,
  /** The other of a pair; null for a child who is taught alone. */
  otherId: id.nullable(),
  by: z.string(),
  since: day,
});
export type Wish = z.infer<typeof wish>;

/** How groups are made here, and what has been asked for of single children. */
export const getGrouping = {
  method: "GET",
  path: "/api/grouping",
  may: { by: "teacher", shows: { "wishes.*.childId": "child" } },
  answer: z.object({ version: onto, grouping, wishes: z.array(wish) }),
} as const satisfies Endpoint;
export type GroupingView = z.infer<typeof getGrouping.answer>;

/** Sets how groups are made. Groups that there are stay as they are. */
export const setGrouping = {
  method: "PUT",
  path: "/api/school/grouping",
  may: { by: "teacher" },
  trail: { did: "settings" },
  body: z.object({ version: onto, grouping }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/**
 * Asks for two children to be apart or together, or for one to be taught alone. The same once more is told as success; of a pair
 * the newer wish takes the place of the one before.
 */
export const addWish = {
  method: "POST",
  path: "/api/children/:id/wishes",
  may: { by: "teacher", theirs: { "params.id": "child", "body.otherId": "child" } },
  trail: { did: "child-changed", about: "params.id" },
  params: byId,
  body: z
    .object({ id, kind: wish.shape.kind, otherId: id.nullable() })
    .refine(({ kind, otherId }) => (kind === "alone") === (otherId === null), "Choose the other child of the pair."),
  answer: done,
} as const satisfies Endpoint;

/** Takes a wish back, from either child of a pair. */
export const removeWish = {
  method: "DELETE",
  path: "/api/children/:id/wishes/:wishId",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "child-changed", about: "params.id" },
  params: z.object({ id, wishId: id }),
  answer: done,
} as const satisfies Endpoint;

const thing = line(60);

/** What a teacher says of a thing that would be worth teaching next: first of all, not before a day, or not at all. */
const said = z.object({
  /** A spelling, or a need of another kind by its id. */
  gpc: thing,
  how: z.enum(["pinned", "later", "struck"]),
  /** Of what is put off: the day from which on it counts again. */
  until: day.nullable(),
  by: z.string(),
  since: day,
});
export type SaidOfNext = z.infer<typeof said>;
const saidBody = z
  .object({ gpc: thing, how: said.shape.how.nullable(), until: day.nullable() })
  .refine(({ how, until }) => (how === "later") === (until !== null), "Say until when it is put off.");

/** What was said of what is worth teaching, by child and by class; what was put off until a day that has come is left out. */
export const getNext = {
  method: "GET",
  path: "/api/next",
  may: { by: "teacher", shows: { "children.*.id": "child", "classes.*.id": "class" } },
  answer: z.object({
    children: z.array(z.object({ id, said: z.array(said) })),
    classes: z.array(z.object({ id, said: z.array(said) })),
  }),
} as const satisfies Endpoint;
export type NextView = z.infer<typeof getNext.answer>;

/** Pins, puts off or strikes out a spelling for a child; with null what was said of it is taken back. */
export const sayNextOfChild = {
  method: "PUT",
  path: "/api/children/:id/next",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  trail: { did: "child-changed", about: "params.id" },
  params: byId,
  body: saidBody,
  answer: done,
} as const satisfies Endpoint;

/** The same for all children of a class; what is said of a child itself comes first. */
export const sayNextOfClass = {
  method: "PUT",
  path: "/api/classes/:id/next",
  may: { by: "teacher", theirs: { "params.id": "class" } },
  params: byId,
  body: saidBody,
  answer: done,
} as const satisfies Endpoint;

/** A change of groups that the evidence speaks for. */
const move = z.object({
  kind: z.enum(["leave", "move", "join", "again"]),
  childId: id,
  name: z.string(),
  /** The group that the child is in or was in; null when it is in none. */
  groupId: id.nullable(),
  groupName: z.string(),
  /** Where it would go; null when it leaves. */
  toId: id.nullable(),
  toName: z.string(),
  /** What there is to it: targets that are secure, needed there, or going again. */
  gpcs: z.array(gpc),
  besides: z.array(needFamily),
  /** Of `leave`: targets in all; of `move`: targets that are needed here. */
  count: z.number().int(),
});
export type MoveView = z.infer<typeof move>;

/** A child who left a group and is to be looked at. */
const look = z.object({
  childId: id,
  name: z.string(),
  groupName: z.string(),
  leftOn: day,
  weeks: z.number().int(),
  due: day,
  gpcs: z.array(gpc),
});
export type LookView = z.infer<typeof look>;

/** Who may leave, move, join or come back by today's answers, without what was put off; and looks due at those who left. */
export const getMoves = {
  method: "GET",
  path: "/api/moves",
  may: { by: "teacher", shows: { "moves.*.childId": "child", "looks.*.childId": "child" } },
  answer: z.object({ moves: z.array(move), looks: z.array(look) }),
} as const satisfies Endpoint;
export type MovesView = z.infer<typeof getMoves.answer>;

/** Puts a proposed move of a child off until a day. */
export const putMoveOff = {
  method: "PUT",
  path: "/api/children/:id/move-off",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  params: byId,
  body: z.object({ kind: move.shape.kind, until: day }),
  answer: done,
} as const satisfies Endpoint;

/** A group of the school over the last weeks, in counts. */
const overGroup = z.object({
  id,
  name: z.string(),
  children: count,
  /** Sessions that were held, and planned ones whose day is past and of which no one said what happened. */
  held: count,
  missed: count,
  /** Minutes of the sessions that were held, by their plans. */
  minutes: count,
  /** What was taught to whom in them: children times spellings; and of these what the child reads today. */
  taught: count,
  read: count,
});

/** The whole school: who is in a group, sessions held and missed, what came of them. Counts only, no child. */
export const getOverview = {
  method: "GET",
  path: "/api/groups-overview",
  may: { by: "lead" },
  answer: z.object({
    from: day,
    classes: z.array(z.object({ id, name: z.string(), children: count, inGroup: count })),
    groups: z.array(overGroup),
  }),
} as const satisfies Endpoint;
export type Overview = z.infer<typeof getOverview.answer>;

/** A group as it was on a day. */
const groupThen = z.object({
  id,
  name: z.string(),
  members: z.array(z.object({ childId: id, name: z.string() })),
  targets: z.array(gpc),
  besides: z.array(needFamily),
  /** The day of the state that held, and why it was made. */
  since: day,
  why: z.string(),
});

/** All groups as they were at the end of a day; a group that no one was in is left out. */
export const getGroupsOn = {
  method: "GET",
  path: "/api/groups-on/:day",
  may: { by: "teacher", shows: { "groups.*.id": "group" } },
  params: z.object({ day }),
  answer: z.object({ groups: z.array(groupThen) }),
} as const satisfies Endpoint;
export type GroupsOn = z.infer<typeof getGroupsOn.answer>;
