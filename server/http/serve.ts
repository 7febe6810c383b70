import type { Request, RequestHandler, Response, Router } from "express";
import type { z } from "zod";
import type { AnswerOf, Asked, Endpoint } from "#contract";
import { fieldsOf, HttpProblem, unfit } from "./problem.ts";

/**
 * Puts an endpoint of the contract on the router: what comes in is checked before the handler sees it, what
 * goes out before it is sent.
 */
export function serve<E extends Endpoint>(
  router: Router,
  endpoint: E,
  handler: (asked: Asked<E>, request: Request) => Promise<z.input<E["answer"]>> | z.input<E["answer"]>,
): void {
  const handle: RequestHandler = async (request: Request, response: Response) => {
    response.locals.route = `${endpoint.method} ${endpoint.path}`;
    const asked = {
      params: parsed(endpoint.params, request.params, 404),
      query: parsed(endpoint.query, request.query, 422),
      body: parsed(endpoint.body, request.body, 422),
    } as Asked<E>;
    response.json(fitting(endpoint, await handler(asked, request), response) as AnswerOf<E>);
  };
  const method = endpoint.method.toLowerCase() as "get" | "post" | "put" | "patch" | "delete";
  router[method](endpoint.path, handle);
}

/** Rows that are left out of one answer at most; more of them are no slip of a row. */
const MOST_LEFT_OUT = 200;

/**
 * An answer that the contract allows. A stored row that breaks a rule of today (of a version before, or changed by hand)
 * is left out of its list, and the log says how many were and where; it never takes the list with it.
 */
function fitting(endpoint: Endpoint, answer: unknown, response: Response): unknown {
  const whole = endpoint.answer.safeParse(answer);
  if (whole.success) return whole.data;
  const pruned = structuredClone(answer);
  const left: string[] = [];
  let result = whole as ReturnType<typeof endpoint.answer.safeParse>;
  while (!result.success && left.length < MOST_LEFT_OUT) {
    // Of several in one list the last first, so that the places of the others stay.
    const paths = result.error.issues.flatMap(({ path }) => {
      const at = path.findLastIndex((key) => typeof key === "number");
      return at < 0 ? [] : [path.slice(0, at + 1)];
    });
    if (paths.length === 0) break;
    const once = new Map(paths.map((path) => [path.join("."), path]));
    for (const path of [...once.values()].sort((one, other) => Number(other.at(-1)) - Number(one.at(-1)))) {
      const list = path.slice(0, -1).reduce<unknown>((within, key) => (within as never)?.[key as never], pruned);
      if (!Array.isArray(list)) continue;
      list.splice(Number(path.at(-1)), 1);
      left.push(path.map((key) => (typeof key === "number" ? "*" : String(key))).join("."));
    }
    result = endpoint.answer.safeParse(pruned);
  }
  if (!result.success) throw result.error;
  response.locals.leftOut = { rows: left.length, of: [...new Set(left)] };
  return result.data;
}

function parsed(schema: z.ZodType | undefined, value: unknown, status: 404 | 422): unknown {
  if (!schema) return undefined;
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const fields = fieldsOf(result.error);
  if (status === 404)
    throw new HttpProblem(
      404,
      "Not found",
      "This address does not lead anywhere. Go back and open the list again.",
      fields,
    );
  const first = fields[0];
  const where = first?.field ? `${first.field}: ` : "";
  throw unfit(`${where}${first?.says ?? "The content is not as expected."}`, fields);
}
