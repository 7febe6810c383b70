import { useDeferredValue, useEffect, useMemo } from "react";
import useSWR, { mutate, type SWRConfiguration } from "swr";
import { type AnswerOf, type Asking, addressOf, type Endpoint, type Problem, problem, whoAsks } from "#contract";
import { measureClock } from "./clock.ts";
import { forget, isOld, keep, keptPage, setAge, show } from "./pages.ts";

/** The server said no, in words for the person in front of the screen. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
    this.name = "Refused";
  }
}

/** The server could not be reached. */
export class NoLine extends Error {
  constructor() {
    super("The server cannot be reached. Nothing was changed; try again in a moment.");
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
  const sentAt = Date.now();
  try {
    response = await fetch(addressOf(endpoint, params, query), {
      method: endpoint.method,
      ...(body === undefined ? {} : { headers: { "content-type": "application/json" }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new NoLine();
  }
  measureClock(response.headers.get("date"), sentAt, Date.now());
  const content: unknown = await response.json().catch(() => undefined);
  if (response.ok) return endpoint.answer.parse(content) as AnswerOf<E>;
  const said = problem.safeParse(content);
  if (said.success) {
    if (said.data.status === 401 && endpoint.may.by !== "door") unknownHere();
    throw new Refused(said.data);
  }
  throw new NoLine();
}

/** Until what was marked on this device is with the server; the outbox says when. */
let marksSent: () => Promise<void> = () => Promise.resolve();

/** What is read waits for this first, so that what was marked here is in all that is read here afterwards. */
export function readAfter(sent: () => Promise<void>): void {
  marksSent = sent;
}

/** Asks, and keeps the answer on the device; when no one answers, what was kept before stands in, with its age. */
async function callOrKept<E extends Endpoint>(endpoint: E, asking: Asking<E>, key: string): Promise<AnswerOf<E>> {
  await marksSent();
  try {
    const content = await call(endpoint, asking);
    setAge(key, null);
    void keep(key, content);
    return content;
  } catch (error) {
    if (error instanceof Refused) {
      setAge(key, null);
      // Nothing is kept of what the server says is gone.
      if (error.problem.status === 404) void forget(key);
      throw error;
    }
    const page = await keptPage(key);
    const read = endpoint.answer.safeParse(page?.content);
    if (!page || !read.success) throw error;
    setAge(key, page.keptAt);
    return read.data as AnswerOf<E>;
  }
}

/** The server does not know who is here (any more): the page that says so is asked for again. */
function unknownHere(): void {
  void mutate(addressOf(whoAsks, {}));
}

const ASK_AGAIN_MS = 4000;

/**
 * Reads an endpoint and keeps it fresh; `null` asks nothing yet. While the server cannot be reached, what this device
 * kept of it is the data, `useAge` tells how old that is, and it is asked for again every few seconds.
 */
export function useAsk<E extends Endpoint>(endpoint: E, asking: Asking<E> | null, options?: SWRConfiguration) {
  const { params, query } = (asking ?? {}) as { params?: unknown; query?: unknown };
  const key = asking === null ? null : addressOf(endpoint, params, query);
  useEffect(() => (key === null ? undefined : show(key)), [key]);
  return useSWR<AnswerOf<E>, Error>(key, () => callOrKept(endpoint, asking as Asking<E>, key ?? ""), {
    refreshInterval: () => (key !== null && isOld(key) ? ASK_AGAIN_MS : 0),
    ...options,
  });
}

/**
 * As `useAsk`, for answers of which a page draws much: what is drawn of them is drawn in slices, between which a slow
 * device can take a tap. What has just been written may stand there a moment later than with `useAsk`.
 */
export function useAskSliced<E extends Endpoint>(endpoint: E, asking: Asking<E> | null, options?: SWRConfiguration) {
  const { data, error } = useAsk(endpoint, asking, options);
  const { params, query } = (asking ?? {}) as { params?: unknown; query?: unknown };
  const key = asking === null ? "" : addressOf(endpoint, params, query);
  // With its key, so that what was asked for before never stands in for what is asked for now.
  const drawn = useDeferredValue<{ key: string; data: typeof data } | null>(
    useMemo(() => ({ key, data }), [key, data]),
    null,
  );
  return { data: drawn?.key === key ? drawn.data : undefined, error };
}

/** As `useAsk`, for what must not stay on this device: it came by a link that someone else was given. */
export function useAskOnly<E extends Endpoint>(endpoint: E, asking: Asking<E>) {
  const { params, query } = asking as { params?: unknown; query?: unknown };
  return useSWR<AnswerOf<E>, Error>(addressOf(endpoint, params, query), () => call(endpoint, asking));
}

/** True for what was asked for, and neither came nor failed yet. */
export const isOnItsWay = ({ data, error }: { readonly data?: unknown; readonly error?: unknown }): boolean =>
  data === undefined && error === undefined;

/** After a write: everything that was read is asked for again when it is next on the screen. */
export function refreshAll(): Promise<unknown> {
  return mutate((key) => typeof key === "string" && key.startsWith("/api/") && key !== "/api/lexicon");
}

/** The words of an error for a toast or a line under a form. */
export function wordsOfError(error: unknown): string {
  return error instanceof Error ? error.message : "Something went wrong. Nothing was lost; try again.";
}
