import type { RequestHandler } from "express";
import helmet from "helmet";
import { HttpProblem } from "./problem.ts";

/** What every answer tells the browser: to run our own scripts only, and to tell no one where it came from. */
export function securityHeaders(): RequestHandler {
  return helmet({
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
  });
}

const local = /^(?:([a-z0-9-]{1,63})\.)?(?:localhost|127\.0\.0\.1|\[::1\])(?::\d+)?$/;

/**
 * The name of the school in a host name; null where there is none.
 * @example slugIn("orm.localhost:4310") // "orm"
 */
export function slugIn(host: string | undefined): string | null {
  return local.exec(host ?? "")?.[1] ?? null;
}

/**
 * Until people sign in, only this machine may ask: the name in the address must be local (a page elsewhere
 * could point its own name here), and a write must come from our own pages.
 */
export const onlyFromHere: RequestHandler = (request, _response, next) => {
  const { host, origin } = request.headers;
  if (!local.test(host ?? ""))
    throw new HttpProblem(403, "Only on this machine", "This server answers only to localhost.");
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
