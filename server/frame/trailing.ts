import { LRUCache } from "lru-cache";
import { type Did, type Endpoint, idsAt } from "#contract";
import type { Actor } from "./actor.ts";

/** Where a school keeps who saw and did what. */
export interface Trail {
  write(deed: {
    readonly at: string;
    readonly memberId: string | null;
    readonly by: string;
    readonly did: Did;
    readonly about?: string;
    readonly count?: number;
  }): Promise<void>;
}

/** A page that is seen again within this time, by the same person, is the same seeing of it. */
const SAME_SEEING_MS = 10 * 60_000;
const MOST_SEEN = 5000;

/** Leaves the trail that the contract says of an endpoint, in the transaction that is open. What fails here fails the asking. */
export type LeaveTrail = (
  endpoint: Pick<Endpoint, "method" | "trail">,
  actor: Actor,
  trail: Trail,
  asked: unknown,
) => Promise<void>;

/** @param now the clock of the rows */
export function trailing(now: () => Date): LeaveTrail {
  const seen = new LRUCache<string, true>({ max: MOST_SEEN, ttl: SAME_SEEING_MS });
  return async ({ method, trail: wanted }, { schoolId, memberId, name }, trail, asked) => {
    if (!wanted) return;
    const about = wanted.about ? idsAt(asked, wanted.about) : [];
    const [one] = about;
    const key = `${schoolId} ${memberId} ${wanted.did} ${about.join(" ")}`;
    if (method === "GET" && seen.has(key)) return;
    await trail.write({
      at: now().toISOString(),
      memberId,
      by: name,
      did: wanted.did,
      ...(about.length === 1 && one ? { about: one } : {}),
      ...(about.length > 1 ? { count: about.length } : {}),
    });
    if (method === "GET") seen.set(key, true);
  };
}
