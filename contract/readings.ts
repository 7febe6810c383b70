import { z } from "zod";
import { byId, day, id, instant, line, note, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { textRead } from "./text-read.ts";

/** One of four steps from word by word to like speech; null where no one gave one. */
const step = z.number().int().min(1).max(4).nullable();

/** One reading of a text by one child, whole: the text as it was read, and everything that was marked. */
const readingBody = z.object({
  childId: id,
  /** Alone, or together with a group: then marks are the group's, and there is no time. */
  how: z.enum(["alone", "together"]),
  textId: line(80),
  title: line(120),
  ...textRead.shape,
  ms: z.number().int().min(0).max(3_600_000).nullable(),
  /** When lines were turned, for a text that was shown line by line: the word a line begins with, and when. */
  turns: z
    .array(z.object({ at: z.number().int().min(0).max(5000), ms: z.number().int().min(0).max(3_600_000) }))
    .max(1000),
  /** Share of the words, 0 to 1, that this child could read when the text was begun; null where no one knew. */
  fit: z.number().min(0).max(1).nullable(),
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

/** A reading as it is kept. */
export const readingView = readingBody.extend({ id });
export type ReadingView = z.infer<typeof readingView>;

/** Keeps a reading; the same id again is written over, so that what was said can be typed in later. */
export const saveReading = {
  method: "PUT",
  path: "/api/readings/:id",
  may: { by: "assistant", theirs: { "params.id": "reading", "body.childId": "child" } },
  params: byId,
  body: readingBody,
  answer: readingView,
} as const satisfies Endpoint;

/** A child's readings, the newest first. */
export const listReadings = {
  method: "GET",
  path: "/api/children/:id/readings",
  may: { by: "teacher", theirs: { "params.id": "child" } },
  params: byId,
  answer: z.array(readingView),
} as const satisfies Endpoint;

/** The readings of a class or a group, without their texts and marks: the figures of each, the newest first. */
export const readingFigures = {
  method: "GET",
  path: "/api/readings",
  may: {
    by: "teacher",
    theirs: { "query.classId": "class", "query.groupId": "group" },
    shows: { "*.childId": "child" },
  },
  query: z.object({ classId: id, groupId: id }).partial(),
  answer: z.array(
    z.object({
      id,
      childId: id,
      name: z.string(),
      title: z.string(),
      day,
      how: z.enum(["alone", "together"]),
      correctPerMinute: z.number().nullable(),
      accuracy: z.number().nullable(),
      fit: z.number().nullable(),
    }),
  ),
} as const satisfies Endpoint;
export type ReadingFigures = z.infer<typeof readingFigures.answer>[number];

/** Words correct in a minute. */
const aim = z.number().int().min(0).max(400);
/** What the school measures readings against. */
export const readingSettings = z
  .object({
    teaching: z.number().int().min(50).max(100),
    easy: z.number().int().min(50).max(100),
    wait: z.number().int().min(0).max(20),
    yearBegins: z.number().int().min(1).max(12),
    aims: z.array(z.object({ yearGroup: line(30), start: aim, middle: aim, end: aim })).max(20),
  })
  .refine(({ teaching, easy }) => teaching <= easy, "Easy begins where right for teaching ends, or above.")
  .refine(
    ({ aims }) => new Set(aims.map((one) => one.yearGroup.toLowerCase())).size === aims.length,
    "Each year group has one line of aims.",
  );
export type ReadingSettingsBody = z.infer<typeof readingSettings>;

/** Sets what readings are measured against; readings of before follow it too. */
export const setReadingSettings = {
  method: "PUT",
  path: "/api/school/reading",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, reading: readingSettings }),
  answer: settingsSaved,
} as const satisfies Endpoint;
