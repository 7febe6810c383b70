import type { RequestHandler } from "express";
import helmet from "helmet";

/** The one worker that runs a solver which comes as WebAssembly: there that is let in, and nowhere else. */
const SOLVES = /^\/assets\/groups\.worker-[\w-]+\.js$/;

/**
 * What every answer tells the browser: to run our own scripts only, and to tell no one where it came from.
 * @param tls whether it is reached under TLS, and then never without again
 */
export function securityHeaders(tls: boolean): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        "script-src": ["'self'", (request) => (SOLVES.test(request.url ?? "") ? "'wasm-unsafe-eval'" : "'self'")],
        "style-src": ["'self'", "'unsafe-inline'"],
        "worker-src": ["'self'", "blob:"],
        "upgrade-insecure-requests": null,
      },
    },
    referrerPolicy: { policy: "no-referrer" },
    strictTransportSecurity: tls && { maxAge: 31_536_000 },
  });
}
