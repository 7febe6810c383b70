import useSWR, { mutate, type SWRConfiguration } from "swr";
import { type AnswerOf, type Asking, addressOf, type Endpoint, type Problem, problem } from "#contract";

/** The server said no, in words for the person in front of the screen. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = "Refused";
  }
}

/** The server could not be reached. */
class NoLine extends Error {
  constructor() {
    super("The server cannot be reached. What you typed is still here; try again in a moment.");
    this.name = "NoLine";
  }
}

/**
 * Asks the server for one endpoint and checks its answer. Throws `Refused` with the server's words, or
 * `NoLine` when there was no answer.
 */
export async function call<E extends Endpoint>(endpoint: E, asking: Asking<E>): Promise<AnswerOf<E>> {
  const { params, query, body } = asking as { params?: unknown; query?: unknown; body?: unknown };
  let response: Response;
  try {
    response = await fetch(addressOf(endpoint, params, query), {
      method: endpoint.method,
      ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new NoLine();
  }
  const content: unknown = await response.json().catch(() => undefined);
  if (response.ok) return endpoint.answer.parse(content) as AnswerOf<E>;
  const said = problem.safeParse(content);
  if (said.success) throw new Refused(said.data);
  throw new NoLine();
}

/** Reads an endpoint and keeps it fresh; `null` asks nothing yet. */
export function useAsk<E extends Endpoint>(endpoint: E, asking: Asking<E> | null, options?: SWRConfiguration) {
  const { params, query } = (asking ?? {}) as { params?: unknown; query?: unknown };
  const key = asking === null ? null : addressOf(endpoint, params, query);
  return useSWR<AnswerOf<E>, Error>(key, () => call(endpoint, asking as Asking<E>), options);
}

/** After a write: everything that was read is asked for again when it is next on the screen. */
export function refreshAll(): Promise<unknown> {
  return mutate((key) => typeof key === "string" && key.startsWith("/api/") && key !== "/api/lexicon");
}

/** The words of an error for a toast or a line under a form. */
export function wordsOfError(error: unknown): string {
  return error instanceof Error ? error.message : "Something went wrong. Nothing was lost; try again.";
}
