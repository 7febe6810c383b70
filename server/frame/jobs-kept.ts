import { createHash } from "node:crypto";
import { serialize } from "node:v8";
import { LRUCache } from "lru-cache";
import type { Jobs } from "./jobs.ts";

/** Outputs that are kept; of a class each is some ten kilobytes. */
const MOST_KEPT = 200;

/**
 * The same jobs, of which these are not worked out again for an input and seed that they had lately: a page that is asked for anew
 * after each press asks mostly for what is the same. Kept in the memory of this process alone, under a digest of the input.
 * @param names jobs whose output is never changed by whoever asks, and says nothing of a child but its id
 */
export function keeping<Table>(jobs: Jobs<Table>, names: readonly (keyof Table & string)[]): Jobs<Table> {
  const kept = new LRUCache<string, object>({ max: MOST_KEPT });
  return {
    run: async (name, input, seed, how) => {
      if (!names.includes(name)) return jobs.run(name, input, seed, how);
      how?.signal?.throwIfAborted();
      const key = createHash("sha256").update(`${name} ${seed} `).update(serialize(input)).digest("base64url");
      const before = kept.get(key);
      if (before !== undefined) return before as never;
      const output = await jobs.run(name, input, seed, how);
      kept.set(key, output as object);
      return output;
    },
    close: () => {
      kept.clear();
      return jobs.close();
    },
  };
}
