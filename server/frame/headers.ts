import type { RequestHandler } from "express";
import helmet, { type HelmetOptions } from "helmet";

/** The one worker that runs a solver which comes as WebAssembly: there that is let in, and nowhere else. */
const SOLVES = /^\/assets\/(groups|week)\.worker-[\w-]+\.js$/;
/** A piece of a page; what a worker begins with is none, since it goes by the policy that comes with it. */
const PIECE = /^\/assets\/(?!.*\.worker-)[\w.-]+$/;

/**
 * What every answer tells the browser: to run our own scripts only, and to tell no one where it came from. Pieces of a page go by
 * the policy of the page, and come without one.
 * @param tls whether it is reached under TLS, and then never without again
 */
export function securityHeaders(tls: boolean): RequestHandler {
  const always: HelmetOptions = {
    referrerPolicy: { policy: "no-referrer" },
    strictTransportSecurity: tls && { maxAge: 31_536_000 },
  };
  const whole = helmet({
    ...always,
    contentSecurityPolicy: {
      directives: {
        "script-src": ["'self'", (request) => (SOLVES.test(request.url ?? "") ? "'wasm-unsafe-eval'" : "'self'")],
        "style-src": ["'self'", "'unsafe-inline'"],
        "worker-src": ["'self'", "blob:"],
        "upgrade-insecure-requests": null,
      },
    },
  });
  const piece = helmet({ ...always, contentSecurityPolicy: false });
  return (request, response, next) => (PIECE.test(request.path) ? piece : whole)(request, response, next);
}
