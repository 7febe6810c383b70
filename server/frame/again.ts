import { isDeepStrictEqual } from "node:util";
import type { Problem } from "#contract";
import { changedMeanwhile, conflict } from "./problem.ts";

/**
 * For a thing that was made before under this id. The same content is a retry, and told as success; other content is
 * refused, since two things cannot be one.
 * @throws HttpProblem 409
 */
export function mustBeSame(what: string, stored: unknown, sent: unknown): void {
  if (isDeepStrictEqual(stored, sent)) return;
  throw conflict(
    `This ${what} was made before with other content. What was made first is kept; reload to see it, then make your change there.`,
  );
}

/**
 * For a save that was made from an older version. When it says what stands there already it is a retry, and told as success;
 * else both states go to the person who must choose.
 * @param what as a person would say it: `this group`
 * @throws HttpProblem 409 with both
 */
export function mustAgree(what: string, both: NonNullable<Problem["both"]>): void {
  const { mine, theirs } = both as { mine: Record<string, unknown>; theirs: Record<string, unknown> };
  const agrees = Object.keys(mine).every(
    (key) => mine[key] === undefined || isDeepStrictEqual(mine[key], theirs[key]),
  );
  if (!agrees) throw changedMeanwhile(what, both);
}
