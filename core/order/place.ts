import { type OrderContent, stepsUpTo } from "./order.ts";

/** How far someone was taught, from which day on: up to a step of an order, or nothing (null). */
export interface TaughtMark {
  readonly stepId: string | null;
  readonly taughtOn: string;
}

/** Since when each spelling and exception word (in small letters) was taught, by marks in their order; what was marked back is not in it. */
export function taughtSince(
  marks: readonly TaughtMark[],
  order: OrderContent | undefined,
): ReadonlyMap<string, string> {
  let since = new Map<string, string>();
  for (const { stepId, taughtOn } of order ? marks : []) {
    const steps = stepsUpTo(order as OrderContent, stepId);
    const things = steps.flatMap((step) => [...step.gpcs, ...step.exceptionWords.map((word) => word.toLowerCase())]);
    since = new Map(things.map((thing) => [thing, since.get(thing) ?? taughtOn]));
  }
  return since;
}

/** What was taught on days on which a child was away, by those days. */
export function missedOf(since: ReadonlyMap<string, string>, away: ReadonlySet<string>): ReadonlySet<string> {
  return new Set([...since].flatMap(([thing, day]) => (away.has(day) ? [thing] : [])));
}

/**
 * Since when each thing was taught to a child that has a place of its own. The first time through, what the class had on an
 * earlier day was taught on that day, and what lies beyond its own place was not. A second time through, its own lessons are
 * the newer ones, and what lies beyond was taught the first time.
 */
export function taughtAtOwnPlace(
  own: ReadonlyMap<string, string>,
  ofClass: ReadonlyMap<string, string>,
  again: boolean,
): ReadonlyMap<string, string> {
  if (again) return new Map([...ofClass, ...own]);
  return new Map(
    [...own].map(([thing, day]) => {
      const before = ofClass.get(thing);
      return [thing, before !== undefined && before < day ? before : day];
    }),
  );
}
