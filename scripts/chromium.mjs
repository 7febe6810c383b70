import { existsSync } from "node:fs";

// Debian's chromium without what draws windows costs a fifth less; the whole one does as well.
const places = ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"];

/** The browser of tests and pictures, where there is one; the place of the whole one where there is none. KEEN_CHROMIUM names another one. */
export function chromium() {
  return process.env.KEEN_CHROMIUM ?? places.find(existsSync) ?? "/usr/bin/chromium";
}
