import { z } from "zod";
import { isNeedFamily } from "#core/mastery";

/** What a person reads when a value is missing or of another kind than asked for. */
z.config({
  customError: (issue) => {
    if (issue.code !== "invalid_type") return undefined;
    return issue.input === undefined ? "Please fill this in." : `This should be a ${issue.expected}.`;
  },
});

/** Made on the device that writes, so that sending twice changes nothing. */
export const id = z.uuid().toLowerCase();
function inOurTime(text: string): boolean {
  return text >= "2000" && text < "2100";
}

/** A calendar day, `2026-11-23`. */
export const day = z.iso.date().refine(inOurTime, "Choose a day of this century.");
/** An instant in UTC, `2026-11-23T09:15:00.000Z`. */
export const instant = z.iso
  .datetime()
  .max(30, "At most a thousandth of a second.")
  .refine(inOurTime, "The time is not of this century.");
/** A version of something, or a count, as the database keeps it. */
export const count = z.number().int().min(0).max(2_147_483_647);
/** Of what a save was made from, as last read; 0 for what is new. A change made elsewhere meanwhile is not written over. */
export const onto = count.describe("the version that a save was made from");
/** One correspondence, `ea=ee`: a unit of a word. Whether it is known is for `core` to say. */
export const oneGpc = z
  .string()
  .regex(/^[a-z]{1,5}(_e)?=[a-z]{1,6}$/, "Write it as spelling=sound, for example ea=ee.");
/** A correspondence, or a unit of the school's own of two to four of them: `ea=ee`, `n+k=ng+k`. Whether it is known is for `core` to say. */
export const gpc = z
  .string()
  .regex(
    /^[a-z]{1,5}(_e)?(\+[a-z]{1,5}(_e)?){0,3}=[a-z]{1,6}(\+[a-z]{1,6}){0,3}$/,
    "Write it as spelling=sound, for example ea=ee.",
  );
/** Room for the longest unit of a school's own. */
export const LONGEST_GPC = 64;
/** What a group works on that is no spelling: needs that one lesson takes up together (`contrast sound b/d`, `exception words`). */
export const needFamily = line(80).refine(isNeedFamily, "A group cannot work on this. Choose it from the list.");

/** One line of text without control characters, trimmed, 1 to `most` characters. */
export function line(most: number) {
  return z
    .string()
    .trim()
    .min(1, "Please fill this in.")
    .max(most, `At most ${most} characters.`)
    .regex(/^[^\u0000-\u001f\u007f\p{Surrogate}]*$/u, "Has characters that cannot be shown.");
}

/** Several lines of free text; may be empty. */
export function note(most: number) {
  return z
    .string()
    .trim()
    .max(most, `At most ${most} characters.`)
    .regex(
      /^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\p{Surrogate}]*$/u,
      "Has characters that cannot be shown.",
    );
}

/** An address with an id in it. */
export const byId = z.object({ id });
/** It was done, and there is nothing else to tell. */
export const done = z.object({ done: z.literal(true) });
/** A setting of the school is kept; the version of its settings now. */
export const settingsSaved = done.extend({ version: count });

/** An error as `application/problem+json` (RFC 9457). */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  /** What happened, what was kept, what to do. */
  detail: z.string(),
  fields: z.array(z.object({ field: z.string(), says: z.string() })),
  /**
   * Of a 409, when something was changed since the version that a save was made from: what was sent and what stands now,
   * both as they are sent, and the version to save onto for who has seen both.
   */
  both: z.object({ version: count, mine: z.unknown(), theirs: z.unknown() }).optional(),
});
export type Problem = z.infer<typeof problem>;

/** How large letters stand for a child, and how far apart. */
export const letterSizes = ["usual", "larger", "largest"] as const;
export const letterSpacings = ["usual", "wider", "widest"] as const;
export const letters = { letterSize: z.enum(letterSizes), letterSpacing: z.enum(letterSpacings) };
export type ChildLetters = { readonly [Key in keyof typeof letters]: z.infer<(typeof letters)[Key]> };
