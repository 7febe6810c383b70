import { z } from "zod";
import { answer, item } from "./answers.ts";
import { byId, done } from "./common.ts";
import type { Endpoint, Stream } from "./endpoint.ts";

/** What the child's face shows. It never holds a mark. */
export const face = z.discriminatedUnion("show", [
  z.object({ show: z.literal("nothing") }),
  z.object({ show: z.literal("text"), text: z.string().max(120), size: z.enum(["letters", "word"]) }),
  /** A word of which one spelling is asked, or with a mark under each of its sounds. */
  z.object({
    show: z.literal("within"),
    text: z.string().max(60),
    letters: z
      .array(
        z.object({
          text: z.string().max(12),
          as: z.enum(["asked", "open", "under", "underAsked", "close", "other", "hidden"]),
        }),
      )
      .max(60),
    /** How far its sounds stand apart, 1 at most; left out they stand together. */
    apart: z.number().min(0).max(1).optional(),
  }),
  z.object({ show: z.literal("choices"), item, choices: z.array(z.string().max(20)).max(9) }),
  /** A text or a line of one: size in pixels, spacing in lines. */
  z.object({
    show: z.literal("passage"),
    text: z.string().max(20_000),
    size: z.number().min(12).max(120),
    spacing: z.number().min(1).max(4),
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
  answer: z.object({ face }),
} as const satisfies Endpoint;

/** The child tapped a choice. */
export const tapFace = {
  method: "POST",
  path: "/api/faces/:code/tap",
  may: { by: "link", opens: "face", key: "code" },
  params: byCode,
  body: z.object({ item, choice: z.string().max(20) }),
  answer: done,
} as const satisfies Endpoint;

/** Tells a desk of marks that others made at it. */
export const deskStream = {
  path: "/api/sittings/:id/live",
  may: { by: "assistant", theirs: { "params.id": "sitting" } },
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
]);
export type DeskEvent = z.infer<typeof deskEvent>;

/** What a child's face is told. */
export const faceEvent = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("face"), face }),
  z.object({ kind: z.literal("end") }),
]);
export type FaceEvent = z.infer<typeof faceEvent>;
