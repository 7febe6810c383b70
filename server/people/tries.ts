import { RateLimiterDrizzle } from "rate-limiter-flexible";
import { type OpenTries, triesOf } from "../frame/tries.ts";
import type { OpenStore } from "../store/opened.ts";
import { tries } from "../store/tables/accounts.ts";

/** Bounds guessing on this database: where it is a server all of its processes count together. */
export function triesOn({ kind, accounts }: Pick<OpenStore, "kind" | "accounts">): OpenTries {
  if (kind === "embedded") return triesOf();
  return triesOf(
    (counted) =>
      new RateLimiterDrizzle({ ...counted, storeClient: accounts, schema: tries, clearExpiredByTimeout: false }),
  );
}
