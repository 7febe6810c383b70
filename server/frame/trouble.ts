/** What may be logged of an error: nothing that came from a person. */
export interface LoggedError {
  readonly name: string;
  /** The system's or the database's own code, `23505` or `ENOSPC`. */
  readonly code: string | undefined;
  /** Where it happened, innermost first. */
  readonly frames: readonly string[];
}

const MOST_FRAMES = 6;

/** The code of an error, or of what caused it. */
export function codeOf(error: unknown): string | undefined {
  for (let one = error, depth = 0; one instanceof Error && depth < 5; one = one.cause, depth++) {
    const { code } = one as { code?: unknown };
    if (typeof code === "string") return code;
  }
  return undefined;
}

const awayCodes =
  /^(57P0[1-5]|08...|53300|ECONN[A-Z]+|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|ENOTFOUND|EAI_AGAIN)$/;
/** What the driver says in words alone: no connection came free, or the one that it had went away. */
const awayWords =
  /timeout exceeded when trying to connect|connection terminated|client has encountered a connection error/i;

/** True when the database did not answer: it is down, starts, has no connection free, or the line was lost. */
export function isDatabaseAway(error: unknown): boolean {
  const code = codeOf(error);
  if (code !== undefined) return awayCodes.test(code);
  for (let one = error, depth = 0; one instanceof Error && depth < 5; one = one.cause, depth++)
    if (awayWords.test(one.message)) return true;
  return false;
}

/** True when there was no room left to write. */
export function isDiskFull(error: unknown): boolean {
  return ["53100", "ENOSPC", "EDQUOT"].includes(codeOf(error) ?? "");
}

/**
 * An error for the log: its name, its code and its frames. A message can hold a child's name, a note or the parameters of
 * a query, over several lines, so none of it is taken.
 */
export function loggedError(error: unknown): LoggedError {
  const known = error instanceof Error ? error : undefined;
  return {
    name: known?.constructor.name ?? typeof error,
    code: codeOf(error),
    frames: (known?.stack ?? "")
      .split("\n")
      .map((line) => /^\s+at (?:.*\()?([^()]+:\d+:\d+)\)?$/.exec(line)?.[1])
      .filter((frame) => frame !== undefined)
      .map((frame) => frame.replace(/^.*\/(?=[^/]+\/[^/]+$)/, ""))
      .slice(0, MOST_FRAMES),
  };
}
