import { z } from "zod";
import { byId, day, done, id, instant, line } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** What a note is about: a child, a group or a session; the two others are null. */
const about = { childId: id.nullable(), groupId: id.nullable(), sessionId: id.nullable() };
const isAboutOne = (one: { readonly [Key in keyof typeof about]?: string | undefined }) =>
  [one.childId, one.groupId, one.sessionId].filter((it) => it !== undefined).length === 1;

/** Who reads it: everyone who has to do with the child, group or session; whoever wrote it alone; or one colleague too. */
const forWhom = z.discriminatedUnion("who", [
  z.object({ who: z.literal("all") }),
  z.object({ who: z.literal("me") }),
  z.object({ who: z.literal("one"), memberId: id }),
]);

const MOST_LETTERS = 500;
const text = z.string().trim().min(1, "Write something first.").max(MOST_LETTERS);

const noteView = z.object({
  id,
  ...about,
  /** The child, the group, or the group of the session; and the day of that. */
  aboutName: z.string(),
  heldOn: day.nullable(),
  text,
  forWhom,
  /** The colleague for whom it is; empty where it is for no single one. */
  forName: z.string(),
  by: z.string(),
  /** Written by whoever asks, who alone can take it away, or the lead. */
  isMine: z.boolean(),
  at: instant,
  /** The last day on which it is shown; null shows it until it is taken away. */
  until: day.nullable(),
  /** Whoever asks has read it, or wrote it. */
  isRead: z.boolean(),
});
export type NoteView = z.infer<typeof noteView>;

/** One child, one group or one session. */
const aboutOne = z
  .object({ childId: id, groupId: id, sessionId: id })
  .partial()
  .refine(isAboutOne, "A note is on one child, one group or one session.");
export type NoteAbout = z.infer<typeof aboutOne>;
const theirs = { "query.childId": "child", "query.groupId": "group", "query.sessionId": "session" } as const;

/**
 * Notes on a child, a group or a session that whoever asks may read, the newest first, with a group or a session those on its
 * children; and for whom one could be.
 */
export const listNotes = {
  method: "GET",
  path: "/api/notes",
  may: { by: "assistant", theirs },
  query: aboutOne,
  answer: z.object({
    notes: z.array(noteView),
    /** Others to whom the child, group or session belongs. */
    colleagues: z.array(z.object({ id, name: z.string() })),
  }),
} as const satisfies Endpoint;

/** What whoever asks has not read yet of everything that is theirs, the newest first. */
export const unreadNotes = {
  method: "GET",
  path: "/api/notes/unread",
  may: {
    by: "assistant",
    shows: { "*.childId": "child", "*.groupId": "group", "*.sessionId": "session" },
  },
  answer: z.array(noteView),
} as const satisfies Endpoint;

/**
 * Writes a note. Sent again it is the same one; one that was taken away by whoever wrote it is there again. A colleague to whom the
 * child, group or session does not belong is a 422.
 */
export const writeNote = {
  method: "PUT",
  path: "/api/notes/:id",
  may: { by: "assistant", theirs },
  params: byId,
  query: aboutOne,
  /** `by` counts where no one is signed in. */
  body: z.object({ text, forWhom, until: day.nullable(), by: line(60).optional() }),
  answer: done,
} as const satisfies Endpoint;

/** Takes a note away: whoever wrote it, or the lead one that is for all; 403 for others. */
export const takeNoteAway = {
  method: "DELETE",
  path: "/api/notes/:id",
  may: { by: "assistant" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** Says that whoever asks has read these; those that they may not read are passed over. */
export const readNotes = {
  method: "POST",
  path: "/api/notes/read",
  may: { by: "assistant" },
  body: z.object({ ids: z.array(id).min(1).max(200) }),
  answer: done,
} as const satisfies Endpoint;
