import { useEffect, useState } from "react";
import type { SWRConfiguration } from "swr";
import { type AnswerOf, type Asking, addressOf, type Endpoint } from "#contract";
import { Refused, useAsk } from "./api.ts";
import { outbox } from "./outbox.ts";
import { forgetOldAnswers, keptPage } from "./pages.ts";

/** What this device has kept for two weeks is forgotten. Marks that the server does not have yet stay. */
export async function forgetOld(): Promise<void> {
  for (const sittingId of await forgetOldAnswers()) await outbox.forget(sittingId);
}

/**
 * Reads an endpoint as `useAsk` does; what the device kept stands in at once, until the server has answered. For what
 * changes seldom, or is needed in the middle of a check.
 */
export function useKept<E extends Endpoint>(endpoint: E, asking: Asking<E>, options?: SWRConfiguration) {
  const { params, query } = asking as { params?: unknown; query?: unknown };
  const address = addressOf(endpoint, params, query);
  const [stored, setStored] = useState<{ address: string; content: AnswerOf<E> | undefined }>();
  const asked = useAsk(endpoint, asking, options);
  useEffect(() => {
    let here = true;
    void keptPage(address).then((page) => {
      const read = endpoint.answer.safeParse(page?.content);
      if (here) setStored({ address, content: read.success ? (read.data as AnswerOf<E>) : undefined });
    });
    return () => {
      here = false;
    };
  }, [address, endpoint]);
  const gone = asked.error instanceof Refused && asked.error.problem.status === 404;
  const data = gone ? undefined : (asked.data ?? (stored?.address === address ? stored.content : undefined));
  return { data, error: data ? undefined : asked.error, refresh: asked.mutate };
}
