import type { ErrorRequestHandler, RequestHandler } from "express";
import type { Logger } from "pino";
import type { Problem } from "#contract";
import { HttpProblem } from "./problem.ts";
import { codeOf, isDatabaseAway, isDiskFull, loggedError } from "./trouble.ts";

/** The largest content of a request. */
export const MOST_BODY = "512kb";

/** One line a request: the route's pattern, never the address, which may carry a token. */
export function logged(log: Logger): RequestHandler {
  return (request, response, next) => {
    const began = performance.now();
    response.on("finish", () => {
      const ms = Math.round(performance.now() - began);
      if (response.locals.leftOut)
        log.warn(
          { route: response.locals.route, ...response.locals.leftOut },
          "rows that break a rule were left out",
        );
      log.debug({ route: response.locals.route ?? request.method, status: response.statusCode, ms }, "answered");
    });
    next();
  };
}

/** Every error as `application/problem+json`; one that no one expected is logged without anything that a person wrote. */
export function problems(log: Logger): ErrorRequestHandler {
  return (error, _request, response, next) => {
    if (response.headersSent) return next(error);
    const known = asProblem(error);
    // What is no fault of the asker's is logged, whether it has words or not.
    if (!known || known.status >= 500)
      log.error({ route: response.locals.route, ...loggedError(error) }, "unexpected error");
    const { status, title, detail, fields, both } =
      known ??
      new HttpProblem(
        500,
        "Something went wrong here",
        "Nothing of this request was kept. Try again; if it stays, restart Keen Sapling.",
      );
    const body: Problem = { type: "about:blank", title, status, detail, fields, ...(both ? { both } : {}) };
    if (status === 503) response.setHeader("retry-after", "2");
    response.status(status).type("application/problem+json").send(JSON.stringify(body));
  };
}

/** Errors of Express' own parts and of the database's text rules, in our words. */
function asProblem(error: unknown): HttpProblem | undefined {
  if (error instanceof HttpProblem) return error;
  const code = codeOf(error);
  // Data that the database's own types and rules refuse: what was asked cannot be done, and nothing of it was.
  if (code && /^2[23][0-9A-Z]{3}$/.test(code))
    return new HttpProblem(
      code === "23505" ? 409 : 422,
      "Not accepted",
      "Something in it cannot be kept: it is too long, out of range, there already, or belongs to what is not here any more. Nothing was changed; reload and try again.",
    );
  if (isDatabaseAway(error))
    return new HttpProblem(
      503,
      "The database does not answer",
      "The school's database is away or busy just now. Nothing of this was kept; it is tried again by itself, or try it in a moment.",
    );
  if (isDiskFull(error))
    return new HttpProblem(
      507,
      "The disk is full",
      "The machine that keeps the school's data has no room left. Nothing of this was kept; make room on it, then try again.",
    );
  const { status, type } = (error ?? {}) as { status?: number; type?: string };
  if (type === "entity.too.large")
    return new HttpProblem(
      413,
      "Too large",
      `At most ${MOST_BODY} at a time. Nothing was changed; send it in smaller parts.`,
    );
  if (type === "entity.parse.failed")
    return new HttpProblem(400, "Not readable", "The content is not valid JSON. Nothing was changed.");
  if (status === 404) return new HttpProblem(404, "Not found", "There is nothing at this address.");
  if (status !== undefined && status >= 400 && status < 500)
    return new HttpProblem(status, "Not readable", "The request cannot be read. Nothing was changed.");
  return undefined;
}
