import { turn } from "./turn.ts";

/**
 * Reads that ask the same and wait for the database together share one answer: a burst of screens that look at one map costs
 * one map. Who comes once it has begun to read gets one of its own, so that no one sees less than what was acknowledged
 * before they asked.
 * @returns does the work, or joins one of this key that has not begun; the work says when it begins
 * @example const read = sharing(); await read("GET /api/gaps", (begun) => school.together(() => { begun(); return map(); }))
 */
export function sharing(): <T>(key: string, work: (begun: () => void) => Promise<T>) => Promise<T> {
  const waiting = new Map<string, Promise<unknown>>();
  return <T>(key: string, work: (begun: () => void) => Promise<T>): Promise<T> => {
    const joined = waiting.get(key);
    if (joined) return joined as Promise<T>;
    // The embedded database computes in this thread: requests that have arrived are read only when it lets go.
    const mine: Promise<T> = turn()
      .then(() =>
        work(() => {
          if (waiting.get(key) === mine) waiting.delete(key);
        }),
      )
      .finally(() => {
        // One that failed before it began.
        if (waiting.get(key) === mine) waiting.delete(key);
      });
    waiting.set(key, mine);
    return mine;
  };
}
