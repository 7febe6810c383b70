/** The browser of tests and pictures, where there is one; the place of the whole one where there is none. KEEN_CHROMIUM names another one. */
export function chromium(): string;
