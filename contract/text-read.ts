import { z } from "zod";
import { readingMarkKinds } from "#core/ledger";
import { line } from "./common.ts";

const mark = z
  .object({
    /** Index of the word; -1 for a word put in before the first. */
    at: z.number().int().min(-1).max(5000),
    kind: z.enum(readingMarkKinds),
    heard: line(60).nullable(),
    /** Milliseconds on the clock when it was marked; missing when the clock stood still. */
    ms: z.number().int().min(0).max(3_600_000).optional(),
  })
  .refine(({ at, kind }) => at >= 0 || kind === "putIn", "Before the first word only a word can be put in.");

/** A text as it was read: its words, what was marked at them, and how far reading came. */
export const textRead = z.object({
  /** The version that was read, kept with the reading. */
  text: z.string().min(1).max(20_000),
  marks: z.array(mark).max(3000),
  stoppedAt: z.number().int().min(0).max(5000).nullable(),
});
