import { z } from "zod";
import {
  answerForms,
  blockIds,
  exceptionWays,
  forms,
  letterCases,
  letterShapesOf,
  scopes,
  seekMixes,
  severalSoundsWays,
  strategyNames,
  tasks,
} from "#core/checks";
import { type KindId, kindIds } from "#core/ledger";
import type { Skill } from "#core/mastery";
import { answer, item, kindId, outcome } from "./answers.ts";
import { byId, count, day, done, gpc, id, instant, letters, line, note, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { ownValues } from "./standings.ts";

/** How this school checks. */
export const checkSettings = z.object({
  answerForm: z.enum(answerForms),
  exceptionWay: z.enum(exceptionWays),
  severalSounds: z.enum(severalSoundsWays),
  madeUp: z.boolean(),
  slowAfter: z.number().min(0).max(20),
  /** Left out by a device that does not know of it yet. */
  letterShapes: z.enum(letterShapesOf).default("written"),
  deviceVoice: z.boolean().default(false),
});

export type CheckSettingsBody = z.infer<typeof checkSettings>;

/** Sets how this school checks. Checks that are open keep what they were begun with; results follow at once. */
export const setCheckSettings = {
  method: "PUT",
  path: "/api/school/checks",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, checks: checkSettings }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** A device that kept a plan before spelling cards had their code still says `say`. */
function asNamedNow(sent: unknown): unknown {
  const { kind } = (sent ?? {}) as { kind?: unknown };
  return kind === "say" ? { ...(sent as object), kind: "card" } : sent;
}

const strategy = z.enum(strategyNames);

const ofAll = {
  scope: z.enum(scopes),
  most: z.number().int().min(1).max(60),
  recentSteps: z.number().int().min(1).max(40),
  picked: z.array(item).max(200).readonly(),
  strategy,
  stopAfter: z.number().int().min(0).max(20),
  form: z.enum(forms),
};
const blocks = z.array(z.enum(blockIds)).min(1).max(8).readonly();

/** Parts of the kinds that say more than all do, a line a kind; the other kinds say what all do. */
const ownSections = [
  z.object({ kind: z.literal("words"), ...ofAll, blocks, madeUp: z.boolean() }),
  z.object({ kind: z.literal("dictation"), ...ofAll, blocks, sentence: z.boolean() }),
  z.object({ kind: z.literal("find"), ...ofAll, choices: z.number().int().min(4).max(9) }),
  z.object({ kind: z.literal("listen"), ...ofAll, tasks: z.array(z.enum(tasks)).min(1).max(7).readonly() }),
  // A plan that was kept before there was a choice asked for one way.
  z.object({ kind: z.literal("write"), ...ofAll, every: z.boolean().default(false) }),
  z.object({ kind: z.literal("names"), ...ofAll, cases: z.enum(letterCases) }),
  z.object({
    kind: z.literal("seek"),
    ...ofAll,
    mix: z.array(z.enum(seekMixes)).min(1).max(seekMixes.length).readonly(),
    blocks,
    madeUp: z.boolean(),
    minutes: z.number().int().min(1).max(20),
  }),
] as const;

/** Schemas of some kinds, each with the kind's name in it. */
type ForKinds = readonly { readonly shape: { readonly kind: { readonly value: KindId } } }[];
/** The kinds that are not among these. */
function kindsBeside<S extends ForKinds>(some: S) {
  const named = new Set<KindId>(some.map(({ shape }) => shape.kind.value));
  return z.enum(kindIds.filter((id) => !named.has(id)) as Exclude<KindId, S[number]["shape"]["kind"]["value"]>[]);
}

/**
 * One part of a plan: which kind of check, over what, and how. A plan that was kept before a kind had only what is its own
 * says more; what is not of the kind is left out.
 */
export const section = z.preprocess(
  asNamedNow,
  z.discriminatedUnion("kind", [z.object({ kind: kindsBeside(ownSections), ...ofAll }), ...ownSections]),
);
export type SectionBody = z.infer<typeof section>;

const sections = z.array(section).min(1, "Put at least one part into it.").max(8, "At most 8 parts.").readonly();

/** A plan of checks that can be begun from; those that ship stay as they are. */
const preset = z.object({
  id,
  shipped: z.boolean(),
  version: count,
  name: z.string(),
  purpose: z.string(),
  sections,
});
export type PresetView = z.infer<typeof preset>;

/** Plans to begin from: those that ship, then the school's own by name. */
export const listPresets = {
  method: "GET",
  path: "/api/presets",
  may: { by: "assistant" },
  answer: z.array(preset),
} as const satisfies Endpoint;

/**
 * Keeps a plan, as a new one (`version` 0) or over the one that it was made from; made from an older one it is answered with
 * both (409).
 */
export const savePreset = {
  method: "PUT",
  path: "/api/presets/:id",
  may: { by: "teacher" },
  params: byId,
  body: z.object({ version: onto, name: line(60), purpose: note(200), sections }),
  answer: preset,
} as const satisfies Endpoint;

/** Removes a plan of the school's own; checks that were begun from it stay. */
export const removePreset = {
  method: "DELETE",
  path: "/api/presets/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** A choice on a sheet: its text, and for a wrong one what was taken for what. */
const choice = z.object({ text: z.string(), from: gpc.optional(), to: gpc.optional() });
/** How cards ask a spelling with several taught sounds; by item. */
const faces = z.object({
  way: z.enum(severalSoundsWays),
  also: z.record(z.string(), z.array(gpc).readonly()),
  inWord: z.record(z.string(), item),
});
const ofSetup = { strategy, stopAfter: z.number().int(), form: z.enum(forms) };
/** Setups of the kinds whose checks keep more than all do, a line a kind. */
const ownSetups = [
  z.object({ kind: z.literal("card"), ...ofSetup, faces }),
  z.object({ kind: z.literal("write"), ...ofSetup, faces }),
  z.object({ kind: z.literal("find"), ...ofSetup, pool: z.array(gpc).readonly(), choices: z.number().int() }),
  z.object({
    kind: z.literal("choose"),
    ...ofSetup,
    words: z.record(z.string(), item),
    ways: z.record(z.string(), z.array(gpc).readonly()),
  }),
  z.object({
    kind: z.literal("paper"),
    ...ofSetup,
    sheet: z.record(z.string(), z.array(choice).readonly()),
    version: z.enum(["A", "B"]),
  }),
  z.object({ kind: z.literal("seek"), ...ofSetup, minutes: z.number().int(), faces }),
] as const;
const setup = z.discriminatedUnion("kind", [z.object({ kind: kindsBeside(ownSetups), ...ofSetup }), ...ownSetups]);

export type SetupBody = z.infer<typeof setup>;

/** A skill as `core/mastery` names it, `say ai=ai`. */
const skill = z.custom<Skill>((sent) => typeof sent === "string");
const belief = z.object({ mean: z.number(), variance: z.number() });
const trace = belief.extend({
  day: z.number(),
  halfLife: z.number(),
  answers: count,
  misses: count,
  days: count,
  judged: z.boolean().optional(),
});
const sessions = z.array(z.object({ day: z.number(), taught: z.boolean() }));
/** What a device needs of a child to choose what it asks, as it was when the check began; `core/mastery` says it in words. */
export const seekFrom = z.object({
  day,
  mind: z.object({
    traits: z.object({ ability: belief, fading: belief, spelling: belief, blending: belief }),
    right: z.number(),
    slow: z.number(),
    pace: z.object({ count: z.number(), mean: z.number(), squares: z.number() }),
    traces: z.record(skill, trace),
  }),
  taughtOn: z.record(z.string(), z.number()),
  sessions: z.record(z.string(), sessions),
  weights: z.record(skill, z.number()),
  fresh: z.array(gpc).readonly(),
  own: ownValues.nullable(),
  read: z.record(z.string(), z.object({ words: count, texts: count, since: day })),
});
export type SeekFromBody = z.infer<typeof seekFrom>;

/** A check of one kind with one child, with everything that a desk needs to go on with it without a line. */
const checkView = z.object({
  id,
  childId: id,
  kind: kindId,
  setup,
  items: z.array(item),
  seed: z.number().int(),
  startedAt: instant,
  endedAt: instant.nullable(),
  answers: z.array(answer),
  /** Outcome of each item the last time it was asked before this check. */
  before: z.array(z.object({ item, outcome })),
  /** From what the device chooses what comes next, in a check that asks only what is in doubt; else null. */
  belief: seekFrom.nullable(),
  /** Most cards right in a minute before, in checks of this kind; null when there was none. */
  best: z.number().int().nullable(),
});
export type CheckView = z.infer<typeof checkView>;

/** Checks that are done in one go: the parts of a plan for each child of a list. */
const sittingView = z.object({
  id,
  name: z.string(),
  startedAt: instant,
  /** Null while any of its checks is open. */
  endedAt: instant.nullable(),
  /** In the order in which they come. */
  children: z.array(
    z.object({ id, name: z.string(), note: z.string(), classId: id, className: z.string(), ...letters }),
  ),
  /** A child's checks stand in the order of the plan's parts. */
  checks: z.array(checkView),
  settings: checkSettings,
  /** Under which another device shows the child's face; null while no one asked for it. */
  faceCode: z.string().nullable(),
});
export type SittingView = z.infer<typeof sittingView>;

/** Children that are checked in one go. */
export const MOST_CHILDREN = 60;
/**
 * Begins checks in one go: draws the items of each part for each child. Nothing to ask is a 422 with the reason. The same asking
 * once more gives what was begun, with the answers since.
 */
export const startSitting = {
  method: "POST",
  path: "/api/sittings",
  may: { by: "teacher", theirs: { "body.id": "sitting", "body.children.*.childId": "child" } },
  body: z.object({
    id,
    name: line(60),
    sections,
    /** One id for a check of each part, made on the device like every id. */
    children: z
      .array(
        z.object({ childId: id, seed: z.number().int().min(0).max(2_147_483_647), checkIds: z.array(id).max(8) }),
      )
      .min(1, "Choose a child.")
      .max(MOST_CHILDREN, `At most ${MOST_CHILDREN} children at a time.`),
    startedAt: instant,
  }),
  answer: sittingView,
} as const satisfies Endpoint;

/** A sitting with its checks and all their answers, for a desk that was opened again or elsewhere. */
export const getSitting = {
  method: "GET",
  path: "/api/sittings/:id",
  may: { by: "assistant", theirs: { "params.id": "sitting" } },
  params: byId,
  answer: sittingView,
} as const satisfies Endpoint;

/** How many items a plan has for each child, and how long it takes. Nothing is kept. */
export const previewSitting = {
  method: "POST",
  path: "/api/sittings/preview",
  may: { by: "teacher", theirs: { "body.childIds.*": "child" } },
  body: z.object({ childIds: z.array(id).min(1).max(MOST_CHILDREN), sections }),
  answer: z.object({
    children: z.array(
      z.object({
        id,
        /** One for each part of the plan. */
        parts: z.array(z.object({ items: z.number().int(), minutes: z.number(), ownPace: z.boolean() })),
      }),
    ),
  }),
} as const satisfies Endpoint;
