import { timeInWords } from "#core/saying";
import { DAY_MINUTES, inOrder, overlap, type Stretch } from "./times.ts";

/**
 * What is wrong with stretches that may not overlap, a sentence each; none where all is well.
 * @param name of one, as a sentence begins
 */
export function faultsOf<One extends Stretch>(stretches: readonly One[], name: (one: One) => string): string[] {
  const faults = stretches.flatMap((one) => {
    if (one.from < 0 || one.to > DAY_MINUTES) return [`${name(one)} goes past midnight. End it on the same day.`];
    if (one.to === one.from) return [`${name(one)} has no length. Set when it ends.`];
    return one.to < one.from ? [`${name(one)} ends before it begins. Swap the two times.`] : [];
  });
  const order = inOrder(stretches);
  for (const [at, one] of order.entries()) {
    const next = order[at + 1];
    if (next && one.from < one.to && overlap(one, next))
      faults.push(
        `${name(one)} and ${name(next)} overlap from ${timeInWords(next.from)} to ${timeInWords(Math.min(one.to, next.to))}. Change one of them.`,
      );
  }
  return faults;
}
