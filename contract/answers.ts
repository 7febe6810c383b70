import { z } from "zod";
import { day, id, instant, line, note } from "./common.ts";
import type { Endpoint } from "./endpoint.ts";

const kinds = z.enum(["card", "words", "exception", "write", "dictation", "find", "listen", "names", "paper"]);
/** A kind of check. A device that kept marks or a plan before spelling cards had this code still says `say`. */
export const kindId = z.preprocess((code) => (code === "say" ? "card" : code), kinds);
/** What was asked, in the notation of its kind; whether it is one is for `core/checks` to say. */
export const item = line(200);

const plainOutcome = ["right", "slow", "ownWay", "sounded", "reversed", "none"] as const;
const heardOutcome = ["other", "blend", "wrong"] as const;
export const outcome = z.enum([...plainOutcome, ...heardOutcome]);

/** `day` is the server's: it works it out when the mark arrives. What a device sends there is its guess until then. */
const mark = z.object({ id, childId: id, markedAt: instant, day, markedBy: line(60) });
const given = mark.extend({
  kind: kindId,
  item,
  ms: z.number().int().min(0).max(3_600_000).nullable(),
  checkId: id.nullable(),
  /** The reading of a text in which the word stood; only the server writes such an answer. */
  readingId: id.optional(),
  pass: z.number().int().min(1).max(200),
  tags: z.array(z.enum(["noName", "noKeyword", "noSpelling", "reversed", "doubled", "putRight"])).max(6),
});
const heard = {
  /** What was said, written or chosen; null when no one noted it. */
  heard: line(200).nullable(),
  /** Indexes of the units that failed, where a person overruled the tool. */
  units: z.array(z.number().int().min(0).max(60)).max(60).nullable(),
};

/** The answer log: right answers have no `heard`; an undo, a note and the end of a check are entries of their own. */
export const answer = z.discriminatedUnion("outcome", [
  given.extend({ outcome: z.literal("right") }),
  given.extend({ outcome: z.literal("slow") }),
  given.extend({ outcome: z.literal("ownWay") }),
  given.extend({ outcome: z.literal("sounded") }),
  given.extend({ outcome: z.literal("reversed") }),
  given.extend({ outcome: z.literal("none") }),
  given.extend({ outcome: z.literal("other"), ...heard }),
  given.extend({ outcome: z.literal("blend"), ...heard }),
  given.extend({ outcome: z.literal("wrong"), ...heard }),
  mark.extend({ outcome: z.literal("void"), voids: id }),
  mark.extend({
    outcome: z.literal("note"),
    checkId: id,
    item: item.nullable(),
    text: note(300).pipe(z.string().min(1)),
  }),
  mark.extend({
    outcome: z.literal("stop"),
    checkId: id,
    why: z.enum(["done", "suggested", "tired", "stopped"]),
  }),
]);
export type AnswerBody = z.infer<typeof answer>;

export const MOST_ANSWERS = 500;
export const saveAnswers = {
  method: "POST",
  path: "/api/answers",
  body: z.object({ answers: z.array(answer).min(1).max(MOST_ANSWERS) }),
  /** Every answer is either saved (now or before) or refused with a reason; one refused stops no other. */
  answer: z.object({ saved: z.array(id), refused: z.array(z.object({ id, says: z.string() })) }),
} as const satisfies Endpoint;
