import { z } from "zod";
import { answer, item } from "./answers.ts";
import { byId, done } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** What the child's face shows. It never holds a mark. */
export const face = z.discriminatedUnion("show", [
  z.object({ show: z.literal("nothing") }),
  z.object({ show: z.literal("text"), text: z.string().max(120), size: z.enum(["letters", "word"]) }),
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
  params: byId,
  answer: z.object({ code: z.string() }),
} as const satisfies Endpoint;

export const showFace = {
  method: "PUT",
  path: "/api/desks/:id/face",
  params: byId,
  body: z.object({ face }),
  answer: done,
} as const satisfies Endpoint;

export const closeFace = {
  method: "DELETE",
  path: "/api/desks/:id/face",
  params: byId,
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

/** What stands in the addresses of the two streams. */
export const deskStream = { params: byId };
export const faceStream = { params: byCode };

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
