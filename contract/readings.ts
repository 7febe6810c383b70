import { z } from "zod";
import { byId, day, id, instant, line, note } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

const mark = z.object({
  at: z.number().int().min(0).max(5000),
  kind: z.enum([
    "misread",
    "leftOut",
    "skipped",
    "told",
    "putIn",
    "putRight",
    "sounded",
    "again",
    "waited",
    "ownWay",
    "endMark",
  ]),
  heard: line(60).nullable(),
});

const step = z.number().int().min(1).max(4).nullable();

/** One reading of a text by one child, whole: the text as it was read, and everything that was marked. */
const readingBody = z.object({
  childId: id,
  textId: line(80),
  title: line(120),
  /** The version that was read, kept with the reading. */
  text: z.string().min(1).max(20_000),
  marks: z.array(mark).max(3000),
  stoppedAt: z.number().int().min(0).max(5000).nullable(),
  ms: z.number().int().min(0).max(3_600_000).nullable(),
  /** Four things from 1 to 4; null where no one gave one. */
  voice: z.object({ phrases: step, stops: step, pace: step, expression: step }),
  understanding: z
    .array(z.object({ ask: line(200), mark: z.enum(["right", "partly", "not"]), lookedBack: z.boolean() }))
    .max(10),
  note: note(300),
  readAt: instant,
  day,
  markedBy: line(60),
});
export type ReadingBody = z.infer<typeof readingBody>;

export const readingView = readingBody.extend({ id });
export type ReadingView = z.infer<typeof readingView>;

/** Keeps a reading; the same id again is written over, so that what was said can be typed in later. */
export const saveReading = {
  method: "PUT",
  path: "/api/readings/:id",
  params: byId,
  body: readingBody,
  answer: readingView,
} as const satisfies Endpoint;

/** A child's readings, the newest first. */
export const listReadings = {
  method: "GET",
  path: "/api/children/:id/readings",
  params: byId,
  answer: z.array(readingView),
} as const satisfies Endpoint;
