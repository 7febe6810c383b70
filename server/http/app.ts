import { existsSync } from "node:fs";
import { join } from "node:path";
import compression from "compression";
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from "express";
import expressStaticGzip from "express-static-gzip";
import helmet from "helmet";
import type { Logger } from "pino";
import type { Problem } from "#contract";
import { ledgerRoutes } from "../ledger/routes.ts";
import { childRoutes } from "./children.ts";
import { classRoutes } from "./classes.ts";
import { faceRoutes } from "./faces.ts";
import { gapRoutes } from "./gaps.ts";
import { groupRoutes } from "./groups.ts";
import type { House } from "./house.ts";
import { openLive } from "./live.ts";
import { planRoutes } from "./plans.ts";
import { HttpProblem } from "./problem.ts";
import { readingRoutes } from "./readings.ts";
import { sessionRoutes } from "./sessions.ts";
import { sharedRoutes } from "./shared.ts";
import { sittingRoutes } from "./sittings.ts";
import { textRoutes } from "./texts.ts";
import { todayRoutes } from "./today.ts";
import { codeOf, loggedError } from "./trouble.ts";
import { wordRoutes } from "./words.ts";

export interface AppWanted extends Omit<House, "live"> {
  readonly log: Logger;
  /** Folder of the built web application; left out in development, where Vite serves it. */
  readonly web?: string | undefined;
}

const MOST_BODY = "512kb";

/** The whole Express application: API under `/api`, the built web application for every other address. */
export function buildApp(wanted: AppWanted): Express {
  const { log, web } = wanted;
  const house: House = { ...wanted, live: openLive() };
  const app = express();
  app.disable("x-powered-by");
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          "script-src": ["'self'"],
          "style-src": ["'self'", "'unsafe-inline'"],
          "worker-src": ["'self'", "blob:"],
          "upgrade-insecure-requests": null,
        },
      },
      referrerPolicy: { policy: "no-referrer" },
      strictTransportSecurity: false,
    }),
  );
  app.use(onlyFromHere, logged(log), compression());
  app.use("/api", (request, response, next) => {
    // The lexicon says nothing about anyone and is large: a browser may keep it and ask whether it is still the same.
    response.setHeader("Cache-Control", request.path === "/lexicon" ? "private, no-cache" : "no-store");
    next();
  });
  app.use("/api", express.json({ limit: MOST_BODY }));
  for (const routes of [
    classRoutes,
    childRoutes,
    planRoutes,
    sittingRoutes,
    ledgerRoutes,
    faceRoutes,
    gapRoutes,
    groupRoutes,
    sessionRoutes,
    sharedRoutes,
    textRoutes,
    readingRoutes,
    todayRoutes,
    wordRoutes,
  ]) {
    app.use(routes(house));
  }
  app.use("/api", () => {
    throw new HttpProblem(404, "Not found", "The server has nothing at this address.");
  });
  if (web && existsSync(web)) serveWeb(app, web);
  app.use(problems(log));
  return app;
}

function serveWeb(app: Express, web: string): void {
  // An address that cannot be read is answered by the application, in words, as any other under which nothing stands.
  app.use((request, response, next) => {
    try {
      decodeURIComponent(request.path);
      next();
    } catch {
      response.setHeader("Cache-Control", "no-cache");
      response.sendFile(join(web, "index.html"));
    }
  });
  const pressed = { enableBrotli: true, orderPreference: ["br" as const], index: false as const };
  const serveStatic = { immutable: true, maxAge: "1y", fallthrough: false };
  app.use("/assets", expressStaticGzip(join(web, "assets"), { ...pressed, serveStatic }));
  app.use(expressStaticGzip(web, { ...pressed, serveStatic: { maxAge: 0 } }));
  app.get(/.*/, (_request, response) => {
    response.setHeader("Cache-Control", "no-cache");
    response.sendFile(join(web, "index.html"));
  });
}

/**
 * Until people sign in, only this machine may ask: the name in the address must be local (a page elsewhere
 * could point its own name here), and a write must come from our own pages.
 */
const onlyFromHere: RequestHandler = (request, _response, next) => {
  const local = (host: string | undefined) => /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/.test(host ?? "");
  const { host, origin } = request.headers;
  if (!local(host)) throw new HttpProblem(403, "Only on this machine", "This server answers only to localhost.");
  const writes = request.method !== "GET" && request.method !== "HEAD";
  // A page of another port of this machine is another program's.
  const ours = origin === undefined || origin.replace(/^https?:\/\//, "") === host;
  if (writes && (!ours || request.headers["sec-fetch-site"] === "cross-site")) {
    throw new HttpProblem(
      403,
      "Only on this machine",
      "A page from elsewhere may not change anything here. Nothing was changed.",
    );
  }
  next();
};

/** One line a request: the route's pattern, never the address, which may carry a token. */
function logged(log: Logger): RequestHandler {
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

function problems(log: Logger): ErrorRequestHandler {
  return (error, _request, response, next) => {
    if (response.headersSent) return next(error);
    const known = asProblem(error);
    if (!known) log.error({ route: response.locals.route, ...loggedError(error) }, "unexpected error");
    const { status, title, detail, fields } =
      known ??
      new HttpProblem(
        500,
        "Something went wrong here",
        "Nothing of this request was kept. Try again; if it stays, restart Keen Sapling.",
      );
    const body: Problem = { type: "about:blank", title, status, detail, fields };
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
