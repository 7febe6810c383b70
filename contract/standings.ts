import { z } from "zod";
import { describeParameter, LEAST_TO_REFIT, type Refittable, refittable, type State } from "#core/mastery";
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

const measured = z.object({ logLoss: z.number(), brier: z.number() });
const numberOfModel = z.number();
/** Numbers of the model, each within the range that `core/mastery` gives it. */
export const ownValues = z.partialRecord(z.enum(refittable), numberOfModel).refine(
  (values) =>
    Object.entries(values).every(([name, value]) => {
      const [least, most] = describeParameter(name as Refittable).range;
      return value >= least && value <= most;
    }),
  "A number of the model lies outside its range.",
);

/** Numbers of the model that a school has of its own, and how they were found. */
const ownModel = z.object({
  values: ownValues,
  answers: z.number().int().min(LEAST_TO_REFIT),
  children: z.number().int(),
  /** On answers that were kept aside: with what the school went by, and with these. */
  asNow: measured,
  asFound: measured,
  foundOn: day,
});
export type OwnModel = z.infer<typeof ownModel>;

/**
 * Looks for numbers of the model by which this school's answers are foretold better, off the request; a minute at most. Nothing
 * is changed by it. Fewer than 2,000 answers to cards are a 422.
 */
export const findModel = {
  method: "POST",
  path: "/api/school/model/found",
  may: { by: "lead" },
  answer: ownModel.extend({
    /** What would be other, with what it means. */
    changes: z.array(z.object({ name: z.enum(refittable), means: z.string(), from: z.number(), to: z.number() })),
  }),
} as const satisfies Endpoint;

/** Goes by numbers of its own from now on, or, with null, by what ships again. All maps follow; no mark is changed. */
export const setModel = {
  method: "PUT",
  path: "/api/school/model",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, model: ownModel.nullable() }),
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
    /** The school's own numbers, which the model goes by; null while it goes by what ships. */
    ownModel: ownModel.nullable(),
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
  why: z.enum(["fading", "unsure", "slipped", "away"]),
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
 * What a check, a reading or a session changed on the map of a child, as of today: what stands elsewhere with its answers than without
 * them, what moved most first.
 */
export const getChanges = {
  method: "GET",
  path: "/api/children/:id/changes",
  may: {
    by: "teacher",
    theirs: {
      ...{ "params.id": "child", "query.sittingId": "sitting", "query.readingId": "reading" },
      "query.sessionId": "session",
    } as const,
  },
  params: byId,
  query: z.object({ sittingId: id.optional(), readingId: id.optional(), sessionId: id.optional() }),
  answer: z.object({
    changes: z.array(z.object({ skill: z.string(), before: stood, after: stood })),
    /** Skills that its answers spoke of. */
    skills: z.number().int(),
  }),
} as const satisfies Endpoint;
export type Changes = z.infer<typeof getChanges.answer>;
