import { z } from "zod";
import type { State } from "#core/mastery";
import { byId, day, id, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

const percent = z.number().int().min(50).max(99);

/** When a school calls a spelling secure; `core/mastery` says it in words. */
export const secureWhen = z.discriminatedUnion("by", [
  z.object({ by: z.literal("model"), percent }),
  z.object({ by: z.literal("days"), days: z.number().int().min(1).max(5) }),
  z.object({ by: z.literal("share"), percent, of: z.number().int().min(3).max(10) }),
  z.object({ by: z.literal("pass") }),
]);
export type SecureWhenBody = z.infer<typeof secureWhen>;

/** Sets when a spelling counts as secure. All that was marked before follows it; no mark is changed. */
export const setSecureWhen = {
  method: "PUT",
  path: "/api/school/secure",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, secureWhen }),
  answer: settingsSaved,
} as const satisfies Endpoint;

const share = z.number().min(0).max(1);

/** How well a way of judging foretold answers, each before it was heard. */
const foresight = z.object({
  name: z.enum(["model", "days", "last", "share"]),
  /** Mean log loss in nats, and mean square error; less is better. */
  logLoss: z.number(),
  brier: z.number(),
});

/**
 * How sure the tool is, measured on the school's own answers: each is foretold from those before it. Children who have
 * answered most are taken, up to a bound; counts only, no child.
 */
export const getForesight = {
  method: "GET",
  path: "/api/foresight",
  may: { by: "teacher" },
  answer: z.object({
    today: day,
    children: z.number().int(),
    answers: z.number().int(),
    ways: z.array(foresight),
    /** In bands of what was said: how often, what was said in the mean, how often it came right. */
    bands: z.array(z.object({ said: share, right: share, count: z.number().int() })),
  }),
} as const satisfies Endpoint;
export type Foresight = z.infer<typeof getForesight.answer>;

/** One skill of a child that it would be worth asking about soon. */
const worthAsking = z.object({
  gpc: z.string(),
  chance: share,
  why: z.enum(["fading", "unsure", "slipped"]),
  /** How doubtful it is, by how much depends on it. */
  worth: z.number(),
});

/** Whom to look at again: what is fading or doubtful, a few cards a child, at most three minutes. */
export const getSecondLooks = {
  method: "GET",
  path: "/api/second-looks",
  may: { by: "teacher", shows: { "*.id": "child" } },
  answer: z.array(z.object({ id, name: z.string(), className: z.string(), cards: z.array(worthAsking) })),
} as const satisfies Endpoint;
export type SecondLook = z.infer<typeof getSecondLooks.answer>[number];

/** A word on the map; null for a skill that has none there, as writing. */
const state = z.custom<State>((sent) => typeof sent === "string").nullable();
const stood = z.object({ chance: share, state });

/**
 * What a check or a reading changed on the map of a child, as of today: what stands elsewhere with its answers than without
 * them, what moved most first.
 */
export const getChanges = {
  method: "GET",
  path: "/api/children/:id/changes",
  may: {
    by: "teacher",
    theirs: { "params.id": "child", "query.sittingId": "sitting", "query.readingId": "reading" },
  },
  params: byId,
  query: z.object({ sittingId: id.optional(), readingId: id.optional() }),
  answer: z.object({
    changes: z.array(z.object({ skill: z.string(), before: stood, after: stood })),
    /** Skills that its answers spoke of. */
    skills: z.number().int(),
  }),
} as const satisfies Endpoint;
export type Changes = z.infer<typeof getChanges.answer>;
