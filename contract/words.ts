import { z } from "zod";
import { knownBys } from "#core/words";
import { byId, done, gpc, id, instant, line, note, oneGpc, onto, settingsSaved } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

/** What ships for the word engine: the lexicon and the made-up words as text in their notation, and our sentences. */
export const getLexicon = {
  method: "GET",
  path: "/api/lexicon",
  may: { by: "anyone" },
  answer: z.object({
    words: z.string(),
    madeUp: z.string(),
    sentences: z.array(z.string()),
    /** Of those of the sentences that are questions, the answer with its reason. */
    answers: z.record(z.string(), z.string()),
    /** By word, a sentence to say it in when it is dictated; of the words that stand in one of the sentences it is left out. */
    carriers: z.record(z.string(), z.string()),
    /** What words mean that are known by nine or later, or sound like another, as a child can be told. */
    meanings: z.record(z.string(), z.string()),
    /** By word, its picture as a sign of the picture font. */
    pictures: z.record(z.string(), z.string()),
  }),
} as const satisfies Endpoint;

/** How the school splits a word, where the engine does it otherwise. */
const split = z.object({
  id,
  /** The word as it is written. */
  text: line(40),
  /** Its units left to right, as spelling=sound. */
  units: z.array(oneGpc).min(1).max(40),
  /** Why the school reads it so; may be empty. */
  reason: note(200),
});
export const ownSplit = split.extend({ savedAt: instant });
export type OwnSplit = z.infer<typeof ownSplit>;

/** Splits that the school has put right by hand, in alphabetical order. */
export const listSplits = {
  method: "GET",
  path: "/api/splits",
  may: { by: "assistant" },
  answer: z.array(ownSplit),
} as const satisfies Endpoint;

/** Keeps a split; the same word again is written over, whichever id it had. */
export const saveSplit = {
  method: "PUT",
  path: "/api/splits/:id",
  may: { by: "teacher" },
  params: byId,
  body: split.omit({ id: true }),
  answer: ownSplit,
} as const satisfies Endpoint;

/** Takes a split away: the word is split as the engine does it. */
export const removeSplit = {
  method: "DELETE",
  path: "/api/splits/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** From which age a school's children know a word when they hear it, where the school says otherwise than the list; 12 is later. */
const wordAge = z.object({ id, text: line(40), knownBy: z.literal([...knownBys]) });
export const ownWordAge = wordAge.extend({ savedAt: instant });
export type OwnWordAge = z.infer<typeof ownWordAge>;

/** Ages of words that the school has said itself, in alphabetical order. */
export const listWordAges = {
  method: "GET",
  path: "/api/word-ages",
  may: { by: "assistant" },
  answer: z.array(ownWordAge),
} as const satisfies Endpoint;

/** Says from which age a word is known; the same word again is written over, whichever id it had. Refused (422) of a word that the list does not have. */
export const sayWordAge = {
  method: "PUT",
  path: "/api/word-ages/:id",
  may: { by: "teacher" },
  params: byId,
  body: wordAge.omit({ id: true }),
  answer: ownWordAge,
} as const satisfies Endpoint;

/** Takes an age away: the word is known from the age on that the list says. */
export const removeWordAge = {
  method: "DELETE",
  path: "/api/word-ages/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** A picture of a word that the school put in itself. */
const ownPicture = z.object({
  id,
  text: line(40),
  /** As it is kept: small, of grey tones, without anything that was in the file beside the picture. */
  image: z.string().startsWith("data:image/png;base64,"),
  madeBy: line(80),
  savedAt: instant,
});
export type OwnPicture = z.infer<typeof ownPicture>;

/** So many pictures of its own a school can have. */
export const MOST_PICTURES = 200;

/** The school's own pictures of words, by word; each stands in the place of one that ships. */
export const listPictures = {
  method: "GET",
  path: "/api/pictures",
  may: { by: "assistant" },
  answer: z.array(ownPicture),
} as const satisfies Endpoint;

/**
 * Keeps a picture of a word: a PNG, JPEG or WebP, in base64. The same word again is written over, whichever id it had. Refused (422)
 * where it is no such picture, or where the school has as many as it can have.
 */
export const savePicture = {
  method: "PUT",
  path: "/api/pictures/:id",
  may: { by: "teacher" },
  params: byId,
  body: z.object({
    text: line(40).regex(/^[\p{L}'’-]+$/u, "One word."),
    image: z.base64().min(1, "Choose a picture.").max(400_000, "The picture is too large."),
    madeBy: line(80),
  }),
  answer: ownPicture,
} as const satisfies Endpoint;

/** Takes a picture away: the word has the one that ships, or none. */
export const removePicture = {
  method: "DELETE",
  path: "/api/pictures/:id",
  may: { by: "teacher" },
  params: byId,
  answer: done,
} as const satisfies Endpoint;

/** Which sounds the school's accent tells apart; ids are those of `core/phonics`. */
export const setAccent = {
  method: "PUT",
  path: "/api/school/accent",
  may: { by: "lead" },
  trail: { did: "settings" },
  body: z.object({ version: onto, accent: line(40) }),
  answer: settingsSaved,
} as const satisfies Endpoint;

/** What a child can read: spellings it had right the last time, and exception words it was taught. */
const canRead = z.object({ id, name: z.string(), known: z.array(gpc), wholes: z.array(z.string()) });
export type CanRead = z.infer<typeof canRead>;

/** Who may be asked about: one class, one group or one child. */
export const getReaders = {
  method: "GET",
  path: "/api/readers",
  may: {
    by: "teacher",
    theirs: { "query.classId": "class", "query.groupId": "group", "query.childId": "child" },
    shows: { "children.*.id": "child" },
  },
  query: z.object({ classId: id, groupId: id, childId: id }).partial(),
  answer: z.object({
    name: z.string(),
    /** What all of them can build on: for a class what it has been taught, else what every child reads. */
    known: z.array(gpc),
    /** Exception words taught to all of them. */
    wholes: z.array(z.string()),
    /** Spellings to set as target: a group's own, else those that some child still needs. */
    targets: z.array(gpc),
    children: z.array(canRead),
    /** Up to which age words are known to the youngest of them: 12 is every word. */
    age: z.literal([...knownBys]),
  }),
} as const satisfies Endpoint;
export type Readers = z.infer<typeof getReaders.answer>;
