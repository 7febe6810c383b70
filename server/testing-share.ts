/** How much of a long run is done: all of it (`npm run test:long`), a twentieth (`npm test -- all`), a hundredth (`npm test`). */
const share = process.env.KEEN_LONG ? 1 : process.env.KEEN_SHORT ? 1 / 100 : 1 / 20;

/** What of a long run this one does, for tests only. @param long how many times the long run does it @returns at least 1 */
export const partOf = (long: number): number => Math.max(1, Math.round(long * share));
