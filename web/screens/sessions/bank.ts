import { useMemo } from "react";
import { getBank } from "#contract";
import { splitGpc } from "#core/phonics";
import type { Word } from "#core/words";
import { useAsk } from "#web/app/api.ts";

/** The words that ship, by their text; empty until they have arrived. */
export function useWords(): ReadonlyMap<string, Word> {
  const { data } = useAsk(getBank, {}, { revalidateOnFocus: false, revalidateIfStale: false });
  return useMemo(
    () =>
      new Map(
        data?.words.map((word) => [
          word.text,
          { text: word.text, units: word.units.map((gpc) => ({ gpc, ...splitGpc(gpc) })) },
        ]),
      ),
    [data],
  );
}
