import { z } from "zod";
import { byId, count, done, gpc, instant, line, note, onto } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** A question about a text: whether its answer is found in it or between the lines, and the answers that count. */
const question = z.object({
  kind: z.enum(["who", "what", "where", "when", "why", "how"]),
  depth: z.enum(["found", "between"]),
  ask: line(200),
  answers: z.array(line(200)).max(8).readonly(),
  /** Where in the text the answer stands, word for word; may be empty. */
  where: note(300),
});
/** A word of the text in a child's words. */
const meaning = z.object({ word: line(40), means: line(200) });

/** A text as it is written, with all that goes with it. */
export const textContent = z.object({
  title: line(120),
  /** Words that are read as wholes in this text. */
  exceptions: z.array(line(40)).max(60).readonly(),
  body: note(20_000).pipe(z.string().min(1, "Write or paste at least one sentence.")),
  questions: z.array(question).max(10).readonly(),
  words: z.array(meaning).max(40).readonly(),
});
export type TextContentBody = z.infer<typeof textContent>;

const textId = z.string().regex(/^[a-z0-9-]{1,80}$/, "Not the name of a text.");

/** A text of the library: one that ships, or the school's own in its newest version. */
const textView = textContent.extend({
  /** Its name in an address. */
  id: textId,
  /** The school's own: it can be changed and removed. A text that ships can be copied. */
  own: z.boolean(),
  version: z.number().int(),
});
export type TextView = z.infer<typeof textView>;

/** The texts that ship, in the order in which they climb, then the school's own by title. */
export const listTexts = {
  method: "GET",
  path: "/api/texts",
  may: { by: "assistant" },
  answer: z.array(textView),
} as const satisfies Endpoint;

/** Keeps a text of the school's own, as its first or its next version. Sending the same words again changes nothing. */
export const saveText = {
  method: "PUT",
  path: "/api/texts/:id",
  may: { by: "teacher" },
  params: byId,
  body: z.object({ content: textContent, version: onto, savedAt: instant, savedBy: line(60) }),
  answer: textView,
} as const satisfies Endpoint;

/** Removes a text of the school's own with its versions. Readings of it keep what was read. */
export const removeText = {
  method: "DELETE",
  path: "/api/texts/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** Brings back an own text that was removed a moment ago, with its versions. */
export const restoreText = {
  method: "POST",
  path: "/api/texts/:id/restore",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** A kept state of an own text. */
const textVersion = z.object({
  version: z.number().int(),
  content: textContent,
  savedAt: instant,
  savedBy: z.string(),
});
export type TextVersion = z.infer<typeof textVersion>;

/** Every kept state of an own text, the newest first. */
export const textVersions = {
  method: "GET",
  path: "/api/texts/:id/versions",
  may: { by: "assistant" },
  params: byId,
  answer: z.array(textVersion),
} as const satisfies Endpoint;

/** A whole library in a file: docs/texts.md. Each text is checked on its own, so that a bad one stops no other. */
export const libraryFile = z.object({
  format: z.literal("keen-sapling texts 1"),
  texts: z.array(z.unknown()).max(2000, "At most 2,000 texts."),
});
/** A text in a library file; without an id it is a new one. */
export const libraryEntry = textContent.extend({
  id: textId.optional(),
  exceptions: textContent.shape.exceptions.default([]),
  questions: textContent.shape.questions.default([]),
  words: textContent.shape.words.default([]),
});

/** Whose preparation: `all`, or a class, a group or a child by its id. */
const forKey = z.string().regex(/^(all|(class|group|child):[0-9a-f-]{36})$/, "Not a class, group or child.");
/**
 * What is looked at before a text is read: spellings, words with them, words as wholes, meanings, what to watch for.
 */
export const preparation = z.object({
  focus: z.array(gpc).max(20).readonly(),
  first: z.array(line(40)).max(40).readonly(),
  longer: z.array(line(40)).max(40).readonly(),
  wholes: z.array(line(40)).max(40).readonly(),
  meanings: z.array(meaning).max(40).readonly(),
  watch: z.array(line(200)).max(12).readonly(),
  note: note(500),
});
export type PreparationBody = z.infer<typeof preparation>;

/** What an adult made of the preparation of a text for these readers; null where no one changed what the engine proposes. */
export const getPreparation = {
  method: "GET",
  path: "/api/texts/:textId/preparations/:forKey",
  may: { by: "assistant", theirs: { "params.forKey": "readers" } },
  params: z.object({ textId, forKey }),
  /** `version` is 0 when no one has changed it yet. */
  answer: z.object({ preparation: preparation.nullable(), version: count }),
} as const satisfies Endpoint;

/**
 * Keeps what an adult made of a preparation, for these readers. Made from an older `version` it is answered with both (409).
 */
export const savePreparation = {
  method: "PUT",
  path: "/api/texts/:textId/preparations/:forKey",
  may: { by: "teacher", theirs: { "params.forKey": "readers" } },
  params: z.object({ textId, forKey }),
  /** Null takes the changes back. */
  body: z.object({ version: onto, preparation: preparation.nullable() }),
  answer: done,
} as const satisfies Endpoint;
