import { useEffect, useState } from "react";
import type { SWRConfiguration } from "swr";
import { type AnswerOf, type Asking, addressOf, type Endpoint, getSitting } from "#contract";
import { Refused, useAsk } from "./api.ts";
import { box } from "./box.ts";
import { outbox } from "./outbox.ts";

/** Keeps an answer of the server on the device, for when there is no line. */
export async function keep(address: string, content: unknown): Promise<void> {
  await (await box).put("pages", { address, content, keptAt: Date.now() });
}

/** Forgets what was kept under this address. */
export async function forget(address: string): Promise<void> {
  await (await box).delete("pages", address);
}

const LONG = 14 * 86_400_000;

/** Sittings that this device has kept for two weeks are forgotten. What the server does not have yet stays. */
export async function forgetOld(): Promise<void> {
  const pages = await (await box).getAll("pages");
  const [beginning] = addressOf(getSitting, { id: "-" }).split("-");
  for (const { address, keptAt } of pages) {
    if (!address.startsWith(beginning ?? "-") || Date.now() - keptAt < LONG) continue;
    await outbox.forget(address.slice(beginning?.length));
    await forget(address);
  }
}

async function kept(address: string): Promise<unknown> {
  return (await (await box).get("pages", address))?.content;
}

/**
 * Reads an endpoint as `useAsk` does and keeps its answer; what was kept stands in until the server has answered, and
 * for as long as it does not. Nothing is kept of what the server says is gone.
 */
export function useKept<E extends Endpoint>(endpoint: E, asking: Asking<E>, options?: SWRConfiguration) {
  const { params, query } = asking as { params?: unknown; query?: unknown };
  const address = addressOf(endpoint, params, query);
  const [stored, setStored] = useState<{ address: string; content: AnswerOf<E> | undefined }>();
  const asked = useAsk(endpoint, asking, options);
  useEffect(() => {
    let here = true;
    void kept(address).then((content) => {
      const read = endpoint.answer.safeParse(content);
      if (here) setStored({ address, content: read.success ? (read.data as AnswerOf<E>) : undefined });
    });
    return () => {
      here = false;
    };
  }, [address, endpoint]);
  const gone = asked.error instanceof Refused && asked.error.problem.status === 404;
  useEffect(() => {
    if (asked.data) void keep(address, asked.data);
    else if (gone) void forget(address);
  }, [asked.data, gone, address]);
  const data = gone ? undefined : (asked.data ?? (stored?.address === address ? stored.content : undefined));
  return { data, error: data ? undefined : asked.error, refresh: asked.mutate };
}
