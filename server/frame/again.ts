import { isDeepStrictEqual } from "node:util";
import { conflict } from "./problem.ts";

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
