import type { z } from "zod";
import type { Problem } from "#contract";

type Fields = Problem["fields"];

/** An error that is the answer: thrown anywhere below a route, sent as `application/problem+json`. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly fields: Fields = [],
    readonly both?: Problem["both"],
  ) {
    super(detail);
    this.name = "HttpProblem";
  }
}

/**
 * For what is not there, or not in this school: the two are told apart to no one.
 * @param what as a person would call it: `group`
 */
export function notFound(what: string): HttpProblem {
  return new HttpProblem(
    404,
    "Not found",
    `There is no such ${what}. It may have been removed; go back and open the list again.`,
  );
}

/** For what cannot be taken as it is. @param detail why, in a sentence; that nothing was changed is said after it */
export function unfit(detail: string, fields: Fields = []): HttpProblem {
  return new HttpProblem(422, "Not accepted", `${detail} Nothing was changed.`, fields);
}

/** For what does not fit what stands there. @param detail what was kept and what to do, in sentences */
export function conflict(detail: string): HttpProblem {
  return new HttpProblem(409, "Changed meanwhile", detail);
}

/**
 * For a save that was made from an older version.
 * @param what as a person would say it, with its article: `this group`
 */
export function changedMeanwhile(what: string, both: NonNullable<Problem["both"]>): HttpProblem {
  return new HttpProblem(
    409,
    "Changed meanwhile",
    `Someone else changed ${what} meanwhile. Theirs is kept and nothing of yours was written; look at both and choose.`,
    [],
    both,
  );
}

/** Zod's issues as fields a form can point at. */
export function fieldsOf(error: z.ZodError): Fields {
  return error.issues.slice(0, 40).map((issue) => ({ field: issue.path.join("."), says: issue.message }));
}
