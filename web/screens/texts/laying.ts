import { useEffect, useState } from "react";
import type { OwnSplit } from "#contract";
import type { SchoolWords } from "#web/device/lexicon.ts";
import { offPage } from "#web/device/off-page.ts";
import { type For, focusOf } from "#web/device/readers.ts";
import type { ReaderSent, TextsWorker, WordsSent } from "#web/workers/texts.worker.ts";

/** Lays texts against readers; one worker for the page, so that what it took apart stays. */
export const textsOffPage = offPage<TextsWorker>(
  () => new Worker(new URL("../../workers/texts.worker.ts", import.meta.url), { type: "module" }),
);

export function groundSent({ source, own, accent }: SchoolWords): WordsSent {
  return { source, own: own.map(({ text, units }: OwnSplit) => ({ text, units })), accent: accent.id };
}

export function readerSent(reader: For): ReaderSent {
  return { known: [...reader.known], wholes: [...reader.wholes], targets: [...focusOf(reader)] };
}

/**
 * What a worker makes of something, undefined until it has; what was asked for before and comes late is let go. `ask` is
 * run once for each function that is given, so that callers keep it (`useMemo`); with undefined nothing is asked.
 */
export function useWorked<T>(ask: (() => Promise<T>) | undefined) {
  const [made, setMade] = useState<{ readonly of: () => Promise<T>; readonly value?: T; readonly error?: Error }>();
  useEffect(() => {
    if (!ask) return;
    let here = true;
    ask().then(
      (value) => here && setMade({ of: ask, value }),
      (error: unknown) =>
        here && setMade({ of: ask, error: error instanceof Error ? error : new Error(String(error)) }),
    );
    return () => {
      here = false;
    };
  }, [ask]);
  const current = made?.of === ask ? made : undefined;
  return { value: current?.value, error: current?.error };
}
