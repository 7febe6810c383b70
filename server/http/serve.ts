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
  handler: (asked: Asked<E>) => Promise<z.input<E["answer"]>> | z.input<E["answer"]>,
): void {
  const handle: RequestHandler = async (request: Request, response: Response) => {
    response.locals.route = `${endpoint.method} ${endpoint.path}`;
    const asked = {
      params: parsed(endpoint.params, request.params, 404),
      query: parsed(endpoint.query, request.query, 422),
      body: parsed(endpoint.body, request.body, 422),
    } as Asked<E>;
    const answer = endpoint.answer.parse(await handler(asked)) as AnswerOf<E>;
    response.json(answer);
  };
  const method = endpoint.method.toLowerCase() as "get" | "post" | "put" | "patch" | "delete";
  router[method](endpoint.path, handle);
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
