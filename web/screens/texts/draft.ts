import { useEffect, useState } from "react";
import type { ReadingBody } from "#contract";
import { box } from "#web/app/box.ts";

/** A reading on its way: what is marked so far, kept on the device at every change. */
export interface Draft {
  readonly id: string;
  readonly body: ReadingBody;
  /** Milliseconds read when the clock last stood still. */
  readonly ms: number;
  readonly finished: boolean;
}

const addressOfDraft = (childId: string, textId: string) => `reading ${childId} ${textId}`;

/**
 * The draft of a child and a text: found again after a reload, else made anew. `forget` clears it once the server has
 * the reading. Undefined until the device was asked.
 */
export function useDraft(childId: string, textId: string, make: () => Draft) {
  const address = addressOfDraft(childId, textId);
  const [draft, setDraft] = useState<Draft>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once for a child and a text
  useEffect(() => {
    let here = true;
    void box.then(async (db) => {
      const kept = (await db.get("pages", address))?.content as Draft | undefined;
      if (here) setDraft(kept ?? make());
    });
    return () => {
      here = false;
    };
  }, [address]);
  const change = (next: Draft) => {
    setDraft(next);
    void box.then((db) => db.put("pages", { address, content: next, keptAt: Date.now() }));
  };
  const forget = async () => (await box).delete("pages", address);
  return { draft, change, forget };
}
