import type { Request } from "express";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { HttpProblem } from "./problem.ts";

interface TriesWanted {
  /** Wrong ones that a device may try in the time. */
  readonly most: number;
  readonly minutes: number;
  /** What is tried, for the answer: `codes`. */
  readonly what: string;
}

export interface Tries {
  /**
   * Looks something up that can be guessed. A device that guessed wrong too often is refused before it is looked up;
   * one that has it right is never counted, however often it comes back.
   * @throws HttpProblem 429
   */
  lookUp<T>(request: Request, find: () => Promise<T | undefined>): Promise<T | undefined>;
}

/** Bounds the guessing of codes and links, wherever they are looked up. */
export function openTries({ most, minutes, what }: TriesWanted): Tries {
  const wrong = new RateLimiterMemory({ points: most, duration: minutes * 60 });
  return {
    lookUp: async (request, find) => {
      const from = request.ip ?? "";
      const before = await wrong.get(from);
      if (before !== null && before.consumedPoints >= most)
        throw new HttpProblem(
          429,
          `Too many ${what}`,
          `Too many wrong ${what} from here. Wait ${minutes} minutes and try again.`,
        );
      const found = await find();
      if (found === undefined) await wrong.consume(from).catch(() => undefined);
      return found;
    },
  };
}
