import type { Request } from "express";
import { idsAt, isAtLeast, type May, type Opens, type Theirs, type Thing } from "#contract";
import type { Actor } from "./actor.ts";
import { HttpProblem } from "./problem.ts";
import type { OpenTries } from "./tries.ts";

/** What the gate must know of schools, and asks outside of itself. */
export interface Knows {
  /** The member who asks, when it is one. */
  memberOf(request: Request): Promise<Actor | undefined>;
  /** The school at whose door someone stands. @throws HttpProblem 404 when there is none at this host name */
  schoolAt(request: Request): Promise<string>;
  /** The school that a link or a code leads to. */
  schoolBehind(opens: Opens, key: string): Promise<string | undefined>;
}

/** Of a school: which of these things are here and not the actor's own. */
export interface OfWhom {
  notTheirs(
    actor: Actor,
    of: { readonly thing: Thing; readonly ids: readonly string[]; readonly now: Date },
  ): Promise<string[]>;
}

/** Wrong links and codes that one device may try in five minutes. */
const MOST_WRONG = 30;
const MINUTES = 5;

const unknown: Readonly<Record<Opens, () => HttpProblem>> = {
  face: () =>
    new HttpProblem(404, "No such code", "This code leads to no check. It may have ended; ask for the new one."),
  invitation: () =>
    new HttpProblem(
      404,
      "This link does not work any more",
      "It was used already, its last day has passed, or a newer one was made. Ask the lead of your school for a new one.",
    ),
  feed: () =>
    new HttpProblem(
      404,
      "This calendar is not here any more",
      "Its address was ended, or was never made. Ask the school for a new one.",
    ),
  share: () =>
    new HttpProblem(
      404,
      "This link does not work any more",
      "It was switched off, or its last day has passed. Ask the teacher who sent it for a new one.",
    ),
};

/** Lets in who may ask, by what the contract says of it. */
export interface Gate {
  /**
   * Who asks.
   * @throws HttpProblem 401 when no member asks what members may, 403 for too small a role, 404 and 429 for links and codes
   */
  enter(may: May, request: Request, params: unknown): Promise<Actor>;
  /** @throws HttpProblem 403 when something of what is asked is not theirs */
  check(may: May, actor: Actor, school: OfWhom, asked: unknown): Promise<void>;
  /** The answer without rows that are not theirs. */
  narrow(may: May, actor: Actor, school: OfWhom, answer: unknown): Promise<unknown>;
}

/**
 * The one place that lets anyone in.
 * @param knows who asks, and which school a link or a code leads to
 */
export function openGate({ memberOf, schoolAt, schoolBehind }: Knows, openTries: OpenTries, clock: () => Date): Gate {
  const bound = { most: MOST_WRONG, minutes: MINUTES };
  const tries = {
    face: openTries({ of: "face", ...bound, what: "codes" }),
    share: openTries({ of: "share", ...bound, what: "links" }),
    feed: openTries({ of: "feed", ...bound, what: "links" }),
    invitation: openTries({ of: "invitation", ...bound, what: "links" }),
  };
  const refusedOf = async (theirs: Theirs, actor: Actor, school: OfWhom, from: unknown) => {
    const all = new Map<string, ReadonlySet<string>>();
    const now = clock();
    for (const [path, thing] of Object.entries(theirs))
      all.set(path, new Set(await school.notTheirs(actor, { thing, ids: idsAt(from, path), now })));
    return all;
  };
  const mustOwn = (actor: Actor) => actor.as !== "visitor" && actor.as !== "lead";
  return {
    enter: async (may, request, params) => {
      if (may.by === "link") {
        const key = String((params as Record<string, unknown>)[may.key]);
        const schoolId = await tries[may.opens].lookUp(request.ip ?? "", () => schoolBehind(may.opens, key));
        if (schoolId === undefined) throw unknown[may.opens]();
        return { schoolId, as: "visitor", memberId: null, name: "someone with a link" };
      }
      if (may.by === "door")
        return { schoolId: await schoolAt(request), as: "visitor", memberId: null, name: "someone at the door" };
      const member = await memberOf(request);
      if (!member) throw new HttpProblem(401, "Who is asking?", "Sign in to this school first. Nothing was changed.");
      if (may.by === "anyone") return member;
      if (member.as === "visitor" || !isAtLeast(member.as, may.by))
        throw new HttpProblem(
          403,
          "Not yours to do",
          `This is for ${/^[ao]/.test(may.by) ? "an" : "a"} ${may.by} of the school. Ask one of them. Nothing was changed.`,
        );
      return member;
    },
    check: async (may, actor, school, asked) => {
      if (!mustOwn(actor) || !("theirs" in may) || !may.theirs) return;
      for (const refused of (await refusedOf(may.theirs, actor, school, asked)).values())
        if (refused.size > 0)
          throw new HttpProblem(
            403,
            "Not yours to see",
            "This belongs to another class or group of the school. Ask its teacher, or the lead. Nothing was changed.",
          );
    },
    narrow: async (may, actor, school, answer) => {
      if (!mustOwn(actor) || !("shows" in may) || !may.shows) return answer;
      const refused = await refusedOf(may.shows, actor, school, answer);
      return [...refused].reduce((shown, [path, ids]) => without(shown, path.split("."), ids), answer);
    },
  };
}

/** The value without entries of the list on the path whose id, at its end, is among these. */
function without(value: unknown, [key = "", ...rest]: readonly string[], ids: ReadonlySet<string>): unknown {
  if (value === null || typeof value !== "object") return value;
  if (key !== "*") {
    if (!(key in value)) return value;
    return { ...value, [key]: without((value as Record<string, unknown>)[key], rest, ids) };
  }
  if (!Array.isArray(value)) return value;
  const [last = ""] = rest;
  return rest.length === 1
    ? value.filter((entry) => !ids.has(String((entry as Record<string, unknown>)[last])))
    : value.map((entry) => without(entry, rest, ids));
}
