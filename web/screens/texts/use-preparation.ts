import { useMemo } from "react";
import { getPreparation, type PreparationBody, type TextView } from "#contract";
import { prepareReading, type TextFit } from "#core/reading";
import { decodability, keyOf, type TextVerdict } from "#core/words";
import { useAsk } from "#web/app/api.ts";
import type { WordGround } from "#web/app/lexicon.ts";
import { type For, focusOf } from "#web/app/readers.ts";
import { useShelf } from "./shelf.ts";

interface Prepared {
  readonly text: TextView | undefined;
  /** How the text fits; false when there is no such text, undefined until that is known. */
  readonly found:
    | { readonly step: number | null; readonly fit: TextFit; readonly orderName: string }
    | false
    | undefined;
  readonly reader: For | undefined;
  readonly ground: WordGround | undefined;
  /** The text alone, judged against what the readers know before it. */
  readonly verdict: TextVerdict | undefined;
  /** What was kept for these readers, else what the engine proposes. */
  readonly preparation: PreparationBody | undefined;
  readonly proposed: PreparationBody | undefined;
  readonly kept: boolean;
  readonly error: Error | undefined;
}

/** A text prepared for some readers. */
export function usePreparation(textId: string, forKey: string): Prepared {
  const { shelf, reader, ground, orderName, error } = useShelf(forKey);
  const one = shelf?.find((text) => text.id === textId);
  const text = one?.text;
  const kept = useAsk(getPreparation, text ? { params: { textId, forKey } } : null);
  const told = useMemo(() => {
    if (!text || !ground || !reader) return undefined;
    const wanted = {
      lexicon: ground.lexicon,
      accent: ground.accent,
      wholes: new Set([...reader.wholes, ...text.exceptions.map(keyOf)]),
    };
    // Known before the text and not being taught: what is to be practised is in the way until then.
    const judge = (of: string) => decodability(of, reader.known, new Set(), wanted);
    const whole = judge(`${text.title}.\n${text.body}`);
    const proposed = prepareReading(text, whole, focusOf(reader));
    return { verdict: judge(text.body), proposed: JSON.parse(JSON.stringify(proposed)) as PreparationBody };
  }, [text, ground, reader]);
  return {
    text,
    found: one ? { step: one.step, fit: one.fit, orderName } : shelf ? false : undefined,
    reader,
    ground,
    verdict: told?.verdict,
    proposed: told?.proposed,
    preparation: kept.data ? (kept.data.preparation ?? told?.proposed) : kept.error ? told?.proposed : undefined,
    kept: Boolean(kept.data?.preparation),
    error,
  };
}
