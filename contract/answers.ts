import { z } from "zod";
import {
  allTags,
  type HeardOutcome,
  heardOutcomes,
  helps,
  kindIds,
  type PlainOutcome,
  plainOutcomes,
  stopReasons,
  ways,
} from "#core/ledger";
import { count, day, id, instant, line, note } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";
import { broughtUp } from "./old-marks.ts";
import { textRead } from "./text-read.ts";

/** A kind of check. A device that kept a plan before spelling cards had this code still says `say`. */
export const kindId = z.preprocess((code) => (code === "say" ? "card" : code), z.enum(kindIds));
/** What was asked, in the notation of its kind; whether it is one is for `core/checks` to say. */
export const item = line(200);
/** What became of an item. */
export const outcome = z.enum([...plainOutcomes, ...heardOutcomes]);

const check = z.object({ kind: z.literal("check"), checkId: id });
const reading = z.object({ kind: z.literal("reading"), readingId: id });
/** Where a mark comes from; open by kind. */
const source = z.discriminatedUnion("kind", [
  check,
  reading,
  z.object({ kind: z.literal("judgement") }),
  z.object({ kind: z.literal("session"), sessionId: id.nullable(), reportId: id.nullable() }),
]);

/** `day` is the server's: it works it out when the mark arrives. What a device sends there is its guess until then. */
const mark = z.object({ id, childId: id, markedAt: instant, day, markedBy: line(60) });
/** What an answer says of itself, whatever became of it. */
const given = mark.extend({
  kind: z.enum(kindIds),
  item,
  ms: z.number().int().min(0).max(3_600_000).nullable(),
  source,
  help: z.enum(helps),
  way: z.enum(ways),
  pass: z.number().int().min(1).max(200),
  tags: z.array(z.enum(allTags)).max(6).readonly(),
});
const heard = {
  /** What was said, written or chosen; null when no one noted it. */
  heard: line(200).nullable(),
  /** Indexes of the units that failed, where a person overruled the tool. */
  units: z.array(z.number().int().min(0).max(60)).max(60).readonly().nullable(),
};
const plain = <O extends PlainOutcome>(one: O) => given.extend({ outcome: z.literal(one) });
const withHeard = <O extends HeardOutcome>(one: O) => given.extend({ outcome: z.literal(one), ...heard });

/** The answer log: right answers have no `heard`; an undo, a note and the end of a check are entries of their own. */
export const answer = z.discriminatedUnion("outcome", [
  plain("right"),
  plain("slow"),
  plain("ownWay"),
  plain("sounded"),
  plain("reversed"),
  plain("none"),
  withHeard("other"),
  withHeard("blend"),
  withHeard("wrong"),
  mark.extend({ outcome: z.literal("void"), voids: id }),
  mark.extend({
    outcome: z.literal("note"),
    source: check,
    item: item.nullable(),
    text: note(300).pipe(z.string().min(1)),
  }),
  mark.extend({ outcome: z.literal("stop"), source: check, why: z.enum(stopReasons) }),
  // A whole reading; what it says of each word, core works out.
  mark.extend({ outcome: z.literal("reading"), source: reading, reading: textRead }),
]);
export type AnswerBody = z.infer<typeof answer>;

/**
 * A mark as a device sends it: brought up to date when a version before made it.
 * @example sentAnswer.safeParse(mark) // one that is malformed is refused alone
 */
export const sentAnswer = z.preprocess(broughtUp, answer);

/** What became of one mark. */
const fate = z.object({
  /** Which of those sent, from 0. */
  at: count,
  fate: z.enum(["kept", "there", "refused"]),
  /** Why it was refused, in words for the adult; empty otherwise. */
  says: z.string(),
});

/** Marks that are sent at once. */
export const MOST_ANSWERS = 500;

/**
 * Sends marks. Each is looked at by itself, so what is sent is not checked as a whole: a malformed mark is refused with its
 * reason and its neighbours are kept. Sent twice, the second time it is `there`.
 */
export const saveAnswers = {
  method: "POST",
  path: "/api/answers",
  may: { by: "assistant" },
  body: z.object({ answers: z.array(z.custom<AnswerBody>()).min(1).max(MOST_ANSWERS) }),
  answer: z.object({
    /** What became of each, in the order in which they were sent. */
    fates: z.array(fate),
    /** The same for a web application of the version before: ids that the log has, and those refused. */
    saved: z.array(id),
    refused: z.array(z.object({ id: z.string(), says: z.string() })),
  }),
} as const satisfies Endpoint;
