import { createHash } from "node:crypto";
import { type RateLimiterAbstract, RateLimiterMemory } from "rate-limiter-flexible";
import { HttpProblem } from "./problem.ts";

interface TriesWanted {
  /** What is counted, one word: the same word counts together wherever it is opened, counts of other words are others. */
  readonly of: string;
  /** Wrong ones that may be tried in the time. */
  readonly most: number;
  readonly minutes: number;
  /** What is tried, for the answer: `codes`. */
  readonly what: string;
}

/** Counts what was guessed wrong, by whatever it is counted by. */
interface Tries {
  /**
   * Looks something up that can be guessed. Who guessed wrong too often is refused before it is looked up; who has it right is
   * never counted, however often they come back.
   * @param by an address, or whatever it is counted by; not kept as it is
   * @param find gives undefined for what is wrong
   * @throws HttpProblem 429
   */
  lookUp<T>(by: string, find: () => Promise<T | undefined>): Promise<T | undefined>;
  /**
   * As `lookUp`, where what is wrong is refused by whoever looks it up.
   * @throws HttpProblem what `find` throws, which is counted, or 429
   */
  guess<T>(by: string, find: () => Promise<T>): Promise<T>;
}

export type OpenTries = (wanted: TriesWanted) => Tries;

/** How many, in how many seconds, and under which word they are counted. */
export interface Counted {
  readonly keyPrefix: string;
  readonly points: number;
  readonly duration: number;
}

/**
 * Bounds the guessing of codes, links and passphrases.
 * @param counting where it is counted; in this process unless said otherwise
 */
export function triesOf(
  counting: (counted: Counted) => RateLimiterAbstract = (counted) => new RateLimiterMemory(counted),
): OpenTries {
  const counts = new Map<string, RateLimiterAbstract>();
  return ({ of, most, minutes, what }) => {
    const wrong = counts.get(of) ?? counting({ keyPrefix: of, points: most, duration: minutes * 60 });
    counts.set(of, wrong);
    const tries: Tries = {
      guess: async (by, find) => {
        let refused: unknown;
        const told = await tries.lookUp(by, async () => {
          try {
            return { found: await find() };
          } catch (error) {
            // What was not even looked at for another bound is not counted here as well.
            if (!(error instanceof HttpProblem) || error.status === 429) throw error;
            refused = error;
            return undefined;
          }
        });
        if (!told) throw refused;
        return told.found;
      },
      lookUp: async (by, find) => {
        const key = createHash("sha256").update(by).digest("base64url");
        const before = await wrong.get(key);
        if (before !== null && before.consumedPoints >= most) {
          const wait = Math.max(1, Math.ceil(before.msBeforeNext / 60_000));
          throw new HttpProblem(
            429,
            `Too many ${what}`,
            `Too many wrong ${what}. Wait ${wait === 1 ? "a minute" : `${wait} minutes`} and try again.`,
          );
        }
        const found = await find();
        if (found === undefined) await wrong.consume(key).catch(refusedOnly);
        return found;
      },
    };
    return tries;
  };
}

/** The last wrong one that is counted is told as a refusal, which the next one hears; a database that is away is an error. */
function refusedOnly(refused: unknown): void {
  if (refused instanceof Error) throw refused;
}
