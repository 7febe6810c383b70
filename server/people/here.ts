import type { Actor } from "../frame/actor.ts";
import type { Knows } from "../frame/gate.ts";
import { slugIn } from "../frame/headers.ts";
import { HttpProblem } from "../frame/problem.ts";
import type { Door } from "./door.ts";

/**
 * Who asks, until people sign in: whoever sits at this machine is the lead of the school that the host name says,
 * `SLUG.localhost`, or of the first one. This is the one place that makes an actor.
 */
export function knowing(door: Door): Knows {
  return {
    memberOf: async (request): Promise<Actor> => {
      const slug = slugIn(request.headers.host);
      const schoolId = await door.schoolOf(slug);
      if (schoolId === undefined)
        throw new HttpProblem(
          404,
          "No such school",
          slug === null
            ? "There is no school on this server yet. Make one: npm run school -- add NAME"
            : `There is no school at ${slug}.localhost. Look at how its name is spelled, or make it: npm run school -- add NAME`,
        );
      return { schoolId, as: "lead", memberId: null };
    },
    schoolBehind: door.schoolBehind,
  };
}
