import type { RequestHandler } from "express";
import helmet from "helmet";

/**
 * What every answer tells the browser: to run our own scripts only, and to tell no one where it came from.
 * @param tls whether it is reached under TLS, and then never without again
 */
export function securityHeaders(tls: boolean): RequestHandler {
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
    strictTransportSecurity: tls && { maxAge: 31_536_000 },
  });
}
