import type { z } from "zod";
import type { Trailed } from "./deeds.ts";
import type { May } from "./may.ts";

/**
 * One thing the server can be asked. Web and server share this entry: the server checks what comes in and
 * what goes out by it, the web builds the request and checks the answer by it.
 */
export interface Endpoint<
  Params extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> {
  readonly method: "GET" | "POST" | "PUT" | "PATCH" | "DELETE";
  /** With `:name` for each key of `params`. */
  readonly path: string;
  /** Who may ask it. An endpoint that does not say so does not compile. */
  readonly may: May;
  /**
   * What stands in the school's trail when it was done. Of what is several transactions it is written first: what can be
   * refused between them writes its own.
   */
  readonly trail?: Trailed;
  readonly params?: Params;
  readonly query?: Query;
  readonly body?: Body;
  readonly answer: Answer;
}

/** Asked like an endpoint, and answered with a stream: of events, as long as someone listens, or of a file. */
export interface Stream {
  /** With `:name` for each key of `params`. */
  readonly path: string;
  readonly may: May;
  readonly params: z.ZodType;
}

/** After checking. */
type Parsed<T> = T extends z.ZodType ? z.output<T> : undefined;
/** Before checking. */
type Sent<T> = T extends z.ZodType ? z.input<T> : undefined;

/** What a handler is given, after checking. */
export interface Asked<E extends Endpoint> {
  readonly params: Parsed<E["params"]>;
  readonly query: Parsed<E["query"]>;
  readonly body: Parsed<E["body"]>;
}

/** What a caller has to give. */
export type Asking<E extends Endpoint> = (E["params"] extends z.ZodType
  ? { params: Sent<E["params"]> }
  : { params?: undefined }) &
  (E["query"] extends z.ZodType ? { query?: Sent<E["query"]> } : { query?: undefined }) &
  (E["body"] extends z.ZodType ? { body: Sent<E["body"]> } : { body?: undefined });

/**
 * What a caller gets.
 * @example AnswerOf<typeof getChild>["child"]
 */
export type AnswerOf<E extends Endpoint> = z.output<E["answer"]>;

/**
 * The address of a request.
 * @example addressOf(getCheck, { id: "42" }) // "/api/checks/42"
 */
export function addressOf(endpoint: Endpoint, params: unknown, query?: unknown): string {
  const given = (params ?? {}) as Record<string, unknown>;
  const path = endpoint.path.replace(/:(\w+)/g, (_, key: string) =>
    // Half of a pair of surrogates stands for nothing and cannot be sent.
    encodeURIComponent(String(given[key]).replaceAll(/\p{Surrogate}/gu, "\ufffd")),
  );
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries((query ?? {}) as Record<string, unknown>)) {
    if (value !== undefined && value !== null && value !== "") search.set(key, String(value));
  }
  const text = search.toString();
  return text ? `${path}?${text}` : path;
}
