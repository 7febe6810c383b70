import { useMemo } from "react";
import { getPreparation, type PreparationBody, type TextView } from "#contract";
import type { TextFit } from "#core/reading";
import type { MarkedWord } from "#core/words";
import { useAsk } from "#web/device/api.ts";
import type { SchoolWords } from "#web/device/lexicon.ts";
import type { For } from "#web/device/readers.ts";
import { groundSent, readerSent, textsOffPage, useWorked } from "./laying.ts";
import { useLayGround } from "./shelf.ts";

interface Prepared {
  readonly text: TextView | undefined;
  /** How the text fits; false when there is no such text, undefined until that is known. */
  readonly found:
    | { readonly step: number | null; readonly fit: TextFit; readonly orderName: string }
    | false
    | undefined;
  readonly reader: For | undefined;
  readonly ground: SchoolWords | undefined;
  /** The text alone, judged against what the readers know before it. */
  readonly words: readonly MarkedWord[] | undefined;
  /** What was kept for these readers, else what the engine proposes. */
  readonly preparation: PreparationBody | undefined;
  readonly proposed: PreparationBody | undefined;
  readonly kept: boolean;
  /** Of what was kept; 0 when nothing was. */
  readonly version: number;
  readonly error: Error | undefined;
}

/** A text prepared for some readers; a worker takes it apart. */
export function usePreparation(textId: string, forKey: string): Prepared {
  const { texts, reader, ground, steps, orderName, error } = useLayGround(forKey);
  const text = texts?.find((one) => one.id === textId);
  const kept = useAsk(getPreparation, text ? { params: { textId, forKey } } : null);
  const ask = useMemo(
    () =>
      text && ground && reader && steps
        ? () => textsOffPage.ask((worker) => worker.prepare(groundSent(ground), text, readerSent(reader), steps))
        : undefined,
    [text, ground, reader, steps],
  );
  const { value: told, error: failed } = useWorked(ask);
  const proposed = told?.proposed;
  return {
    text,
    found: texts && !text ? false : told && { step: told.step, fit: told.fit, orderName },
    reader,
    ground,
    words: told?.words,
    proposed,
    preparation: kept.data ? (kept.data.preparation ?? proposed) : kept.error ? proposed : undefined,
    kept: Boolean(kept.data?.preparation),
    version: kept.data?.version ?? 0,
    error: told ? undefined : (failed ?? error),
  };
}
