import type { Request, RequestHandler, Response, Router } from "express";
import type { z } from "zod";
import type { Asked, Endpoint } from "#contract";
import type { Actor } from "./actor.ts";
import type { Gate, OfWhom } from "./gate.ts";
import { fieldsOf, HttpProblem, unfit } from "./problem.ts";
import { sharing } from "./shared.ts";
import { type Trail, trailing } from "./trailing.ts";

/** What a handler is given beside what was asked. */
interface Given<School> {
  /** The repositories of the school that the asking is about, and of no other. */
  readonly school: School;
  readonly actor: Actor;
  readonly now: Date;
  readonly request: Request;
  /** Sends these `Set-Cookie` lines with a good answer. */
  cookies(lines: readonly string[]): void;
}

/** Puts an endpoint of the contract on the router, with what answers it. */
export type Serve<School> = <E extends Endpoint>(
  endpoint: E,
  handler: (given: Asked<E> & Given<School>) => Promise<z.input<E["answer"]>> | z.input<E["answer"]>,
  how?: {
    /** Its reads and writes are transactions of their own: for what computes long between them. */
    readonly apart?: boolean;
  },
) => void;

/** A school as the frame needs it: its transaction, and what is whose. */
export interface AnySchool {
  readonly own: OfWhom;
  readonly trail: Trail;
  /** Does all of the work in one transaction. */
  together<T>(work: () => Promise<T>): Promise<T>;
}

export interface ServingWanted<School> {
  readonly router: Router;
  readonly gate: Gate;
  /** The repositories of the actor's school. */
  readonly as: (actor: Actor) => School;
  now(): Date;
}

/**
 * Serves endpoints of the contract: who asks is looked at first, what comes in is checked before the handler sees it, what
 * goes out before it is sent. A request is one transaction: what it reads is of one moment, and when it fails nothing of it
 * was kept.
 */
export function serving<School extends AnySchool>(wanted: ServingWanted<School>): Serve<School> {
  const { router, gate, as, now } = wanted;
  const share = sharing();
  const leaveTrail = trailing(now);
  return (endpoint, handler, { apart = false } = {}) => {
    const handle: RequestHandler = async (request: Request, response: Response) => {
      response.locals.route = `${endpoint.method} ${endpoint.path}`;
      const { may } = endpoint;
      const params = parsed(endpoint.params, request.params, 404);
      const actor = await gate.enter(may, request, params);
      const query = parsed(endpoint.query, request.query, 422);
      const body = parsed(endpoint.body, request.body, 422);
      const asked = { params, query, body } as Asked<typeof endpoint>;
      const school = as(actor);
      const cookies: string[] = [];
      const work = async () => {
        await gate.check(may, actor, school.own, asked);
        // What is several transactions stands in the trail before it is done, so that nothing is done without.
        if (apart) await leaveTrail(endpoint, actor, school.trail, asked);
        const told = await handler({
          ...asked,
          school,
          actor,
          now: now(),
          request,
          cookies: (lines) => void cookies.push(...lines),
        });
        if (!apart) await leaveTrail(endpoint, actor, school.trail, asked);
        return gate.narrow(may, actor, school.own, told);
      };
      const answer = async (begun = () => {}) => {
        const told = await (apart
          ? work()
          : school.together(() => {
              begun();
              return work();
            }));
        const { data, leftOut } = fitting(endpoint, told);
        return { text: JSON.stringify(data), leftOut };
      };
      const shares = endpoint.method === "GET" && !apart;
      const { text, leftOut } = await (shares
        ? share(`${JSON.stringify(actor)} ${request.originalUrl}`, answer)
        : answer());
      if (leftOut) response.locals.leftOut = leftOut;
      if (cookies.length > 0) response.append("Set-Cookie", cookies);
      response.type("json").send(text);
    };
    const method = endpoint.method.toLowerCase() as "get" | "post" | "put" | "patch" | "delete";
    router[method](endpoint.path, handle);
  };
}

/** An answer, and how many rows were left out of which lists. */
interface Fitting {
  readonly data: unknown;
  readonly leftOut?: { readonly rows: number; readonly of: readonly string[] };
}

/** Rows that are left out of one answer at most; more of them are no slip of a row. */
const MOST_LEFT_OUT = 200;

/**
 * An answer that the contract allows. A stored row that breaks a rule of today (of a version before, or changed by hand)
 * is left out of its list, and the log says how many were and where; it never takes the list with it.
 */
function fitting(endpoint: Endpoint, answer: unknown): Fitting {
  const whole = endpoint.answer.safeParse(answer);
  if (whole.success) return { data: whole.data };
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
  return { data: result.data, leftOut: { rows: left.length, of: [...new Set(left)] } };
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
