import { z } from "zod";
import { letterShapesOf } from "#core/checks";
import { answer, item } from "./answers.ts";
import { byId, done, letters } from "./common.ts";
import type { Endpoint, Stream } from "./endpoint.ts";

const MOST_TILES = 60;
/** Where each tile of a board lies: its place from 0, or null beside the board. */
const laid = z.array(z.number().int().min(0).max(39).nullable()).max(MOST_TILES);

/** How letters stand for the child whose turn it is; as for all where it is left out. */
const forChild = { look: z.object(letters).optional() };

/** What the child's face shows. It never holds a mark. */
export const face = z.discriminatedUnion("show", [
  z.object({ show: z.literal("nothing") }),
  z.object({ show: z.literal("text"), text: z.string().max(120), size: z.enum(["letters", "word"]), ...forChild }),
  /** A word of which one spelling is asked, or a word or a line with a mark under each of its sounds. */
  z.object({
    show: z.literal("within"),
    text: z.string().max(200),
    letters: z
      .array(
        z.object({
          text: z.string().max(12),
          as: z.enum(["asked", "open", "under", "underAsked", "close", "other", "hidden"]),
        }),
      )
      .max(300),
    /** How far its sounds stand apart, 1 at most, for a child to slide them together; left out they stand together. */
    apart: z.number().min(0).max(1).optional(),
    ...forChild,
  }),
  /** Looking as words, or as three boxes of which one is meant: where in a word a sound is. */
  z.object({
    show: z.literal("choices"),
    item,
    choices: z.array(z.string().max(20)).max(9),
    look: z.literal("places").optional(),
    /** The word that they are for: its letters before and after a gap. */
    gapped: z.tuple([z.string().max(20), z.string().max(20)]).optional(),
  }),
  /** Tiles to lay into boxes or columns. `at` is where each lies, and `as` whether that is right, once it was looked at. */
  z.object({
    show: z.literal("board"),
    item,
    look: z.enum(["boxes", "columns"]),
    places: z.array(z.object({ name: z.string().max(40), has: z.array(z.string().max(60)).max(40) })).max(40),
    tiles: z.array(z.object({ text: z.string().max(60), as: z.enum(["right", "wrong"]).nullable() })).max(MOST_TILES),
    at: laid,
  }),
  /** A text or a line of one: size in pixels, spacing in lines. */
  z.object({
    show: z.literal("passage"),
    text: z.string().max(20_000),
    size: z.number().min(12).max(120),
    spacing: z.number().min(1).max(4),
    ...forChild,
    /** What can be answered to it. */
    answers: z.array(z.string().max(20)).max(4).optional(),
  }),
]);
export type FaceBody = z.infer<typeof face>;

/**
 * Gives the code under which another device shows the child's face of a desk, which is a sitting or a reading. A
 * sitting's code ends with it; any other is closed, or ends after a day.
 */
export const openFace = {
  method: "POST",
  path: "/api/desks/:id/face",
  may: { by: "assistant", theirs: { "params.id": "desk" } },
  params: byId,
  answer: z.object({ code: z.string() }),
} as const satisfies Endpoint;

/** Shows something on the faces of a desk, and on one that comes later. */
export const showFace = {
  method: "PUT",
  path: "/api/desks/:id/face",
  may: { by: "assistant", theirs: { "params.id": "desk" } },
  params: byId,
  body: z.object({ face }),
  answer: done,
} as const satisfies Endpoint;

/** The desk is left: its code leads nowhere any more, and faces are told. */
export const closeFace = {
  method: "DELETE",
  path: "/api/desks/:id/face",
  may: { by: "assistant", theirs: { "params.id": "desk" } },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

const byCode = z.object({ code: z.string().regex(/^\d{6}$/, "A code has six figures.") });

/** What the child's face shows now. */
export const getFace = {
  method: "GET",
  path: "/api/faces/:code",
  may: { by: "link", opens: "face", key: "code" },
  params: byCode,
  /** With the letters that children read in this school. */
  answer: z.object({ face, letterShapes: z.enum(letterShapesOf) }),
} as const satisfies Endpoint;

/** How far the sounds of a word stand apart: 0 together, 1 as far as they go. */
const apart = z.number().min(0).max(1);

/** What a child did at its face: a choice that was tapped, where the tiles of a board lie now, how far sounds stand apart. */
const faceDeed = z.union([
  z.object({ item, choice: z.string().max(20) }),
  z.object({ item, laid }),
  z.object({ item, apart }),
]);
export type FaceDeed = z.infer<typeof faceDeed>;

/** The child tapped a choice, or laid a tile. */
export const tapFace = {
  method: "POST",
  path: "/api/faces/:code/tap",
  may: { by: "link", opens: "face", key: "code" },
  params: byCode,
  body: faceDeed,
  answer: done,
} as const satisfies Endpoint;

/** Tells a desk of marks that others made at it, and of what children do at its faces. */
export const deskStream = {
  path: "/api/sittings/:id/live",
  may: { by: "assistant", theirs: { "params.id": "desk" } },
  params: byId,
} as const satisfies Stream;

/** Tells a child's face what to show. */
export const faceStream = {
  path: "/api/faces/:code/live",
  may: { by: "link", opens: "face", key: "code" },
  params: byCode,
} as const satisfies Stream;

/** Addresses of the two streams of server-sent events. */
export const livePaths = {
  desk: (sittingId: string) => deskStream.path.replace(":id", sittingId),
  face: (code: string) => faceStream.path.replace(":code", code),
};

/** What a desk is told: marks of another device, a tap on the child's face. */
export const deskEvent = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("answers"), answers: z.array(answer) }),
  z.object({ kind: z.literal("tap"), item, choice: z.string() }),
  z.object({ kind: z.literal("laid"), item, laid }),
  z.object({ kind: z.literal("slid"), item, apart }),
  /** Another device began to show what children see, or does so no more: it was closed, or has no line. */
  z.object({ kind: z.literal("screen"), isOpen: z.boolean() }),
]);
export type DeskEvent = z.infer<typeof deskEvent>;

/** What a child's face is told. */
export const faceEvent = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("face"), face }),
  z.object({ kind: z.literal("end") }),
]);
export type FaceEvent = z.infer<typeof faceEvent>;
