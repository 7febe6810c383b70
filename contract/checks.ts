import { z } from "zod";
import { answer, item, kindId, outcome } from "./answers.ts";
import { byId, done, gpc, id, instant, line, note } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** How this school checks. */
export const checkSettings = z.object({
  answerForm: z.enum(["sound", "nameSound", "nameKeywordSound"]),
  exceptionWay: z.enum(["wholes", "sounded"]),
  madeUp: z.boolean(),
  slowAfter: z.number().min(0).max(20),
});

export type CheckSettingsBody = z.infer<typeof checkSettings>;

export const setCheckSettings = {
  method: "PUT",
  path: "/api/school/checks",
  body: checkSettings,
  answer: done,
} as const satisfies Endpoint;

const strategy = z.enum(["inOrder", "shuffled", "missed"]);
const block = z.enum(["two", "three", "fourEnd", "fourStart", "five", "twoSyllables", "endings", "longer"]);
const task = z.enum(["compound", "syllables", "rest", "sounds", "apart", "where", "alike"]);

/** One part of a plan: which kind of check, over what, and how. */
export const section = z.object({
  kind: kindId,
  scope: z.enum(["due", "all", "recent", "picked"]),
  most: z.number().int().min(1).max(60),
  recentSteps: z.number().int().min(1).max(40),
  picked: z.array(item).max(200),
  strategy,
  stopAfter: z.number().int().min(0).max(20),
  form: z.enum(["deck", "minute"]),
  cases: z.enum(["small", "capital", "both"]),
  blocks: z.array(block).min(1).max(8),
  madeUp: z.boolean(),
  tasks: z.array(task).min(1).max(7),
  choices: z.number().int().min(4).max(9),
  sentence: z.boolean(),
});
export type SectionBody = z.infer<typeof section>;

const sections = z.array(section).min(1, "Put at least one part into it.").max(8, "At most 8 parts.");

const preset = z.object({ id, shipped: z.boolean(), name: z.string(), purpose: z.string(), sections });
export type PresetView = z.infer<typeof preset>;

/** Plans to begin from: those that ship, then the school's own by name. */
export const listPresets = {
  method: "GET",
  path: "/api/presets",
  answer: z.array(preset),
} as const satisfies Endpoint;

export const savePreset = {
  method: "PUT",
  path: "/api/presets/:id",
  params: byId,
  body: z.object({ name: line(60), purpose: note(200), sections }),
  answer: preset,
} as const satisfies Endpoint;

export const removePreset = {
  method: "DELETE",
  path: "/api/presets/:id",
  params: byId,
  answer: done,
} as const satisfies Endpoint;

const choice = z.object({ text: z.string(), from: gpc.optional(), to: gpc.optional() });
const setup = z.object({
  strategy,
  stopAfter: z.number().int(),
  form: z.enum(["deck", "minute"]),
  pool: z.array(gpc),
  choices: z.number().int(),
  sheet: z.record(z.string(), z.array(choice)),
  version: z.enum(["A", "B"]),
});

export type SetupBody = z.infer<typeof setup>;

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
  children: z.array(z.object({ id, name: z.string(), note: z.string(), classId: id, className: z.string() })),
  /** A child's checks stand in the order of the plan's parts. */
  checks: z.array(checkView),
  settings: checkSettings,
  /** Under which another device shows the child's face; null while no one asked for it. */
  faceCode: z.string().nullable(),
});
export type SittingView = z.infer<typeof sittingView>;

export const MOST_CHILDREN = 60;
export const startSitting = {
  method: "POST",
  path: "/api/sittings",
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

export const getSitting = {
  method: "GET",
  path: "/api/sittings/:id",
  params: byId,
  answer: sittingView,
} as const satisfies Endpoint;

/** How many items a plan has for each child, and how long it takes. Nothing is kept. */
export const previewSitting = {
  method: "POST",
  path: "/api/sittings/preview",
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

/** What the child's face shows. It never holds a mark. */
export const face = z.discriminatedUnion("show", [
  z.object({ show: z.literal("nothing") }),
  z.object({ show: z.literal("text"), text: z.string().max(120), size: z.enum(["letters", "word"]) }),
  z.object({ show: z.literal("choices"), item, choices: z.array(z.string().max(20)).max(9) }),
]);
export type FaceBody = z.infer<typeof face>;

/** Gives the code under which another device shows the child's face until this sitting ends. */
export const openFace = {
  method: "POST",
  path: "/api/sittings/:id/face",
  params: byId,
  answer: z.object({ code: z.string() }),
} as const satisfies Endpoint;

export const showFace = {
  method: "PUT",
  path: "/api/sittings/:id/face",
  params: byId,
  body: z.object({ face }),
  answer: done,
} as const satisfies Endpoint;

const byCode = z.object({ code: z.string().regex(/^\d{6}$/, "A code has six figures.") });

export const getFace = {
  method: "GET",
  path: "/api/faces/:code",
  params: byCode,
  answer: z.object({ face }),
} as const satisfies Endpoint;

/** The child tapped a choice. */
export const tapFace = {
  method: "POST",
  path: "/api/faces/:code/tap",
  params: byCode,
  body: z.object({ item, choice: z.string().max(20) }),
  answer: done,
} as const satisfies Endpoint;

/** Addresses of the two streams of server-sent events. */
export const livePaths = {
  desk: (sittingId: string) => `/api/sittings/${sittingId}/live`,
  face: (code: string) => `/api/faces/${code}/live`,
};

/** What a desk is told: marks of another device, a tap on the child's face. */
export const deskEvent = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("answers"), answers: z.array(answer) }),
  z.object({ kind: z.literal("tap"), item, choice: z.string() }),
]);
export type DeskEvent = z.infer<typeof deskEvent>;

/** What a child's face is told. */
export const faceEvent = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("face"), face }),
  z.object({ kind: z.literal("end") }),
]);
export type FaceEvent = z.infer<typeof faceEvent>;
